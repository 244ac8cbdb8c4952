export { normal, seeded } from './random'
export * from './range'
