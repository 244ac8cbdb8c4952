export { normal, normalAt, seeded, splitNormalAt, stratified, Z95 } from './random'
export { rangeBySquares, type OpenRange } from './range'
