export { sums } from './sums'
