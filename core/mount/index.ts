/** How the fans go into their place. */
export { mountsOf, type MountReport } from './mount'
export { holeOption, leastWeb, screwHoleOf, type HoleOption } from './hole'
export type { Layer } from './stack'
export { adapterOf, type AdapterReport } from './adapter'
export type { KeepRow } from './keeps'
export { countPiece, dropStale, piecesOf, staleOf, type Piece } from './pieces'
