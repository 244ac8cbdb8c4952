import type { Pixel } from './axes'

/** A picture as the browser gives it: four bytes a pixel, row by row. */
export interface Raster {
  width: number
  height: number
  data: Uint8ClampedArray | Uint8Array
}

export interface Trace {
  points: Pixel[]
  /** mean thickness of the line, pixels */ thickness: number
}

/**
 * How far the line may step from one column to the next, pixels, and how many columns it may be hidden (crossed by a
 * grid line or another curve).
 */
const MAX_STEP = 6
const MAX_GAP = 14
/** Columns whose heights are averaged for the line's direction. */
const DIRECTION = 6

/** Distance of two colours, 0..441: root of the squares of red, green and blue. */
function colourDistance(raster: Raster, at: number, r: number, g: number, b: number): number {
  const { data } = raster
  return Math.hypot(data[at]! - r, data[at + 1]! - g, data[at + 2]! - b)
}

/**
 * Mean colour around a place: what a person means who clicks on a line. The darkest or most coloured of the nearest pixels rules.
 * Reference: a choice of ours
 */
export function pickColour(raster: Raster, { x, y }: Pixel): { r: number; g: number; b: number } | null {
  const white = { r: 255, g: 255, b: 255 }
  let best: { r: number; g: number; b: number; far: number } | null = null
  for (let dy = -2; dy <= 2; dy++) {
    for (let dx = -2; dx <= 2; dx++) {
      const px = Math.round(x) + dx
      const py = Math.round(y) + dy
      if (px < 0 || py < 0 || px >= raster.width || py >= raster.height) continue
      const at = 4 * (py * raster.width + px)
      const far = colourDistance(raster, at, white.r, white.g, white.b) - 8 * Math.hypot(dx, dy)
      if (!best || far > best.far)
        best = { r: raster.data[at]!, g: raster.data[at + 1]!, b: raster.data[at + 2]!, far }
    }
  }
  return best && best.far > 30 ? { r: best.r, g: best.g, b: best.b } : null
}

/** The run of like-coloured pixels in a column that lies nearest to a height; null where none is near enough. */
function nearestRun(
  raster: Raster,
  x: number,
  y: number,
  colour: { r: number; g: number; b: number },
  tolerance: number,
  reach: number,
): { middle: number; length: number } | null {
  const like = (row: number) =>
    row >= 0 &&
    row < raster.height &&
    colourDistance(raster, 4 * (row * raster.width + x), colour.r, colour.g, colour.b) <= tolerance
  let found: number | null = null
  for (let d = 0; d <= reach && found === null; d++) {
    if (like(Math.round(y) - d)) found = Math.round(y) - d
    else if (like(Math.round(y) + d)) found = Math.round(y) + d
  }
  if (found === null) return null
  let top = found
  let foot = found
  while (like(top - 1)) top--
  while (like(foot + 1)) foot++
  return { middle: (top + foot) / 2, length: foot - top + 1 }
}

/** Follows the line from a place in one direction until it ends. */
function march(
  raster: Raster,
  start: Pixel,
  colour: { r: number; g: number; b: number },
  tolerance: number,
  step: 1 | -1,
  limit: { left: number; right: number },
): { points: Pixel[]; thickness: number[] } {
  const points: Pixel[] = []
  const thickness: number[] = []
  let y = start.y
  let gap = 0
  for (let x = Math.round(start.x) + step; x >= limit.left && x <= limit.right; x += step) {
    const last = points.slice(-DIRECTION)
    const slope = last.length > 1 ? (last.at(-1)!.y - last[0]!.y) / (last.length - 1) : 0
    const expected = y + slope * (gap + 1)
    const run = nearestRun(raster, x, expected, colour, tolerance, MAX_STEP + gap + Math.abs(slope))
    if (!run) {
      if (++gap > MAX_GAP) break
      continue
    }
    // a run much longer than the line is thick is a crossing or an upright: go on in the line's direction
    const usual = thickness.length ? thickness.toSorted((a, b) => a - b)[thickness.length >> 1]! : run.length
    const steep = Math.abs(slope) + 2
    const height = run.length > 3 * usual + steep ? expected : run.middle
    points.push({ x, y: height })
    thickness.push(run.length)
    y = height
    gap = 0
  }
  return { points, thickness }
}

/**
 * Follows a line of one colour through a chart, both ways from where it was clicked.
 * @param start on the line, within two pixels
 * @param tolerance how much its colour may differ, 0..441
 * @param limit columns of the plot; the whole picture unless given
 * @returns a height for every column where the line was seen, from left to right, or what is wrong
 * Reference: a choice of ours
 */
export function followLine(
  raster: Raster,
  start: Pixel,
  tolerance = 90,
  limit = { left: 0, right: raster.width - 1 },
): Trace | string {
  const colour = pickColour(raster, start)
  if (!colour) return 'There is no line where you clicked: click on the curve itself.'
  const here = nearestRun(raster, Math.round(start.x), start.y, colour, tolerance, 4)
  if (!here) return 'There is no line where you clicked: click on the curve itself.'
  const from = { x: Math.round(start.x), y: here.middle }
  const left = march(raster, from, colour, tolerance, -1, limit)
  const right = march(raster, from, colour, tolerance, 1, limit)
  const points = [...left.points.reverse(), from, ...right.points]
  if (points.length < 12)
    return 'Only a short piece of that colour was found: click elsewhere on the curve, or set the points by hand.'
  const widths = [...left.thickness, here.length, ...right.thickness].sort((a, b) => a - b)
  return { points, thickness: widths[widths.length >> 1]! }
}

/**
 * Every pixel height of a trace smoothed a little, thinned to n places with its two ends: more where it bends.
 * @param n how many
 * Reference: a choice of ours
 */
export function thinTrace(points: readonly Pixel[], n: number): Pixel[] {
  if (points.length <= n) return [...points]
  // Ramer-Douglas-Peucker by priority: always the point that lies farthest from the chord of its piece
  const kept = new Set([0, points.length - 1])
  const farthest = (a: number, b: number) => {
    let at = -1
    let most = 0
    const p = points[a]!
    const q = points[b]!
    const length = Math.hypot(q.x - p.x, q.y - p.y) || 1
    for (let i = a + 1; i < b; i++) {
      const d = Math.abs((q.x - p.x) * (p.y - points[i]!.y) - (p.x - points[i]!.x) * (q.y - p.y)) / length
      if (d > most) {
        most = d
        at = i
      }
    }
    return { at, most }
  }
  while (kept.size < n) {
    const order = [...kept].sort((a, b) => a - b)
    let best = { at: -1, most: 0 }
    for (let k = 0; k + 1 < order.length; k++) {
      const found = farthest(order[k]!, order[k + 1]!)
      // long straight pieces are halved as well, so that no piece is left without a point
      const span = order[k + 1]! - order[k]!
      const weight = found.most + span / points.length
      if (span > 1 && weight > best.most)
        best = { at: found.at > 0 ? found.at : (order[k]! + order[k + 1]!) >> 1, most: weight }
    }
    if (best.at < 0) break
    kept.add(best.at)
  }
  return [...kept].sort((a, b) => a - b).map((i) => points[i]!)
}
