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
  times: number
  flow: number | null
  x: number
  width: number
  top: number
  height: number
  pieces: Piece[]
}

/** Height of the whole drawing, its middle line, of a band that is fully open, and of the two lines of a name. */
export const RIBBON = { height: 112, middle: 48, band: 56, names: [91, 106] } as const
/** Narrower than this a piece's figures would meet its neighbour's. */
const MIN_PIECE = 84
/** Width of a letter of a name, and the room between two names, px. */
const LETTER = 7
const APART = 10
const LANE_GAP = 4

/** How much of the width a piece takes. */
function weight(s: RibbonSegment): number {
  if (s.kind === 'chamber') return 1.7
  if (s.kind.startsWith('room')) return 1.15
  return s.kind === 'split' ? Math.max(1.4, ...s.branches.map((b) => b.segments.length * 0.9)) : 1
}

const longest = (lines: readonly string[]) => Math.max(...lines.map((l) => l.length))
const roomFor = (lines: readonly string[]) => longest(lines) * LETTER + APART

/** A name on two lines, broken between words so that the longer line is as short as can be; on one where it is one word. */
function broken(name: string): string[] {
  const words = name.split(' ')
  const ways = words.slice(1).map((_, i) => [words.slice(0, i + 1).join(' '), words.slice(i + 1).join(' ')])
  return ways.toSorted((a, b) => longest(a) - longest(b))[0] ?? [name]
}
/**
 * A name on as few lines as its place allows.
 * @param room width of the place, px
 * @returns one or two lines; none where it does not fit whole: a name is never cut
 */
export const nameLines = (name: string, room: number): string[] =>
  [[name], broken(name)].find((lines) => roomFor(lines) <= room) ?? []

/** The least width at which a segment's name stands whole. */
const least = (s: RibbonSegment) => Math.max(MIN_PIECE, roomFor(broken(s.name)))
/** Width at which every name stands whole, px. */
export const wordsWidth = (segments: readonly RibbonSegment[]) =>
  segments.reduce((sum, s) => sum + Math.max(least(s), MIN_PIECE * weight(s)), 0)

/** Widths by weight, but none below what its name needs while there is room. */
function widths(segments: readonly RibbonSegment[], width: number): number[] {
  const total = segments.reduce((sum, s) => sum + weight(s), 0)
  const wanted = segments.map((s) => Math.max(least(s), (width * weight(s)) / total))
  const sum = wanted.reduce((a, b) => a + b, 0)
  // what is too much is taken from those that have more than they need; what is left over is shared
  const spare = wanted.map((w, i) => w - least(segments[i]!))
  const spareSum = spare.reduce((a, b) => a + b, 0)
  const taken = spareSum > 0 ? Math.min(1, Math.max(0, sum - width) / spareSum) : 0
  const fitted = wanted.map((w, i) => w - spare[i]! * taken)
  const scale = width / fitted.reduce((a, b) => a + b, 0)
  return fitted.map((w) => w * scale)
}

/** px a second for every m/s to this power, and between what it stays readable: a drift, no race. */
const PACE = { factor: 34, power: 0.7, least: 5, most: 140 } as const
/**
 * How fast the air is seen to drift in each piece, px/s: it follows the velocity; a fan takes that of its neighbours, a
 * room the slowest. Nothing drifts where nothing is known to flow.
 */
export function paces(segments: readonly RibbonSegment[]): (number | null)[] {
  const known = segments.map((s) => s.speedMs).filter((v) => v !== null)
  if (!known.length) return segments.map(() => null)
  const slowest = Math.min(...known)
  return segments.map((s, i) => {
    const beside = [segments[i - 1]?.speedMs, segments[i + 1]?.speedMs].filter((v) => typeof v === 'number')
    const speed =
      s.speedMs ??
      (s.kind === 'fan' && beside.length ? beside.reduce((a, b) => a + b, 0) / beside.length : slowest)
    return Math.min(PACE.most, Math.max(PACE.least, PACE.factor * speed ** PACE.power))
  })
}

/** Where everything in the ribbon goes. @param width of the drawing */
export function layoutRibbon(
  segments: readonly RibbonSegment[],
  width: number,
): { pieces: Piece[]; lanes: Lane[] } {
  const each = widths(segments, width)
  const pieces: Piece[] = []
  const lanes: Lane[] = []
  let x = 0
  for (const [index, segment] of segments.entries()) {
    const w = each[index]!
    const h = RIBBON.band * segment.height
    pieces.push({ segment, x, width: w, top: RIBBON.middle - h / 2, height: h, index })
    const n = segment.branches.length
    const laneHeight = n ? (RIBBON.band - LANE_GAP * (n - 1)) / n : 0
    for (const [k, way] of segment.branches.entries()) {
      const top = RIBBON.middle - RIBBON.band / 2 + k * (laneHeight + LANE_GAP)
      const part = w / Math.max(1, way.segments.length)
      lanes.push({
        id: way.id,
        name: way.name,
        leak: way.leak,
        times: way.times,
        flow: way.flow,
        x,
        width: w,
        top,
        height: laneHeight,
        pieces: way.segments.map((s, i) => {
          const height = laneHeight * Math.max(0.4, s.height)
          return {
            segment: s,
            x: x + i * part,
            width: part,
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
