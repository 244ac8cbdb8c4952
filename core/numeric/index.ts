export { normal, normalAt, seeded, splitNormalAt, stratified, Z95 } from './random'
export { rangeBySquares } from './range'
export { atOnce } from './steps'
