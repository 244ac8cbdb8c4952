import type { RibbonSegment } from '#core/plan'

export interface Piece {
  segment: RibbonSegment
  x: number
  width: number
  top: number
  height: number
  /** place in the main row, to insert before; null in a way */ index: number | null
}
export interface Lane {
  id: string
  name: string
  leak: boolean
  flow: number | null
  x: number
  width: number
  top: number
  height: number
  pieces: Piece[]
}

/** Height of the whole drawing, its middle line, and of a band that is fully open. */
export const RIBBON = { height: 104, middle: 54, band: 56 } as const
/** Narrower than this a piece's words would meet its neighbour's. */
export const MIN_PIECE = 92
const LANE_GAP = 4

/** How much of the width a piece takes. */
function weight(s: RibbonSegment): number {
  if (s.kind === 'chamber') return 1.7
  if (s.kind.startsWith('room')) return 1.15
  return s.kind === 'split' ? Math.max(1.4, ...s.branches.map((b) => b.segments.length * 0.9)) : 1
}

/** Where everything in the ribbon goes. @param width of the drawing */
export function layoutRibbon(
  segments: readonly RibbonSegment[],
  width: number,
): { pieces: Piece[]; lanes: Lane[] } {
  const total = segments.reduce((sum, s) => sum + weight(s), 0)
  const pieces: Piece[] = []
  const lanes: Lane[] = []
  let x = 0
  for (const [index, segment] of segments.entries()) {
    const w = (width * weight(segment)) / total
    const h = RIBBON.band * segment.height
    pieces.push({ segment, x, width: w, top: RIBBON.middle - h / 2, height: h, index })
    const n = segment.branches.length
    const laneHeight = n ? (RIBBON.band - LANE_GAP * (n - 1)) / n : 0
    for (const [k, way] of segment.branches.entries()) {
      const top = RIBBON.middle - RIBBON.band / 2 + k * (laneHeight + LANE_GAP)
      const each = w / Math.max(1, way.segments.length)
      lanes.push({
        id: way.id,
        name: way.name,
        leak: way.leak,
        flow: way.flow,
        x,
        width: w,
        top,
        height: laneHeight,
        pieces: way.segments.map((s, i) => {
          const height = laneHeight * Math.max(0.4, s.height)
          return {
            segment: s,
            x: x + i * each,
            width: each,
            top: top + (laneHeight - height) / 2,
            height,
            index: null,
          }
        }),
      })
    }
    x += w
  }
  return { pieces, lanes }
}

export const ribbonWeight = (segments: readonly RibbonSegment[]) =>
  segments.reduce((sum, s) => sum + weight(s), 0)
