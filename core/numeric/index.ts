export { normal, seeded } from './random'
