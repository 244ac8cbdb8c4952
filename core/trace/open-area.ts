import type { Raster } from './follow'
import { inPhoto, obliqueness, planeOf, type PlanePoint } from './plane'
import type { Pixel } from './axes'

/** How much of a grille is open, from a photo of it: straightened, told apart by brightness, counted. */

/** A straightened part of the plane: brightness 0..255. */
export interface Straight {
  width: number
  height: number
  /** m for each pixel */
  stepM: number
  light: Float32Array
}
export type StraightResult = { ok: true; straight: Straight } | { ok: false; reason: string }

/** Longest side of the straightened picture, pixels. A choice of ours: fine enough for holes of a hundredth of it. */
const LONGEST = 900
/** Seen more slanted than this the far holes are too small to be told. A choice of ours. */
const MOST_OBLIQUE = 2.6

/** Brightness of a photo between its pixels. Reference: bilinear interpolation; Rec. 601 luma */
function lightAt({ width, height, data }: Raster, x: number, y: number): number {
  const x0 = Math.max(0, Math.min(width - 2, Math.floor(x)))
  const y0 = Math.max(0, Math.min(height - 2, Math.floor(y)))
  const [fx, fy] = [Math.min(1, Math.max(0, x - x0)), Math.min(1, Math.max(0, y - y0))]
  const luma = (px: number, py: number) => {
    const i = 4 * (py * width + px)
    return 0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]!
  }
  const top = luma(x0, y0) * (1 - fx) + luma(x0 + 1, y0) * fx
  return top * (1 - fy) + (luma(x0, y0 + 1) * (1 - fx) + luma(x0 + 1, y0 + 1) * fx) * fy
}

/**
 * Straightens a part of a photo.
 * @param corners of a rectangle of known size, in order, pixels
 * @param size of that rectangle, m
 * @param part of the plane that is wanted; null: the rectangle itself
 * @returns a reason where it is seen too slanted, or is no rectangle
 * Reference: projective map, sampled backwards
 */
export function straighten(
  photo: Raster,
  corners: readonly Pixel[],
  size: { widthM: number; heightM: number },
  part: { from: PlanePoint; to: PlanePoint } | null = null,
): StraightResult {
  const map = planeOf(corners, size.widthM, size.heightM)
  if (!map)
    return {
      ok: false,
      reason: 'These corners are no rectangle: set them in order, from the top left on to the right.',
    }
  if (obliqueness(map, size.widthM, size.heightM) > MOST_OBLIQUE)
    return {
      ok: false,
      reason: 'The photo is too slanted: stand in front of it, so that the sides look alike.',
    }
  const from = part?.from ?? { x: 0, y: 0 }
  const to = part?.to ?? { x: size.widthM, y: size.heightM }
  const [w, h] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  // no finer than the photo itself
  const sides = corners.map((c, i) => Math.hypot(c.x - corners[(i + 1) % 4]!.x, c.y - corners[(i + 1) % 4]!.y))
  const finest = Math.max(
    size.widthM / Math.max(sides[0]!, sides[2]!),
    size.heightM / Math.max(sides[1]!, sides[3]!),
  )
  const stepM = Math.max(Math.max(w, h) / LONGEST, finest)
  const width = Math.max(1, Math.round(w / stepM))
  const height = Math.max(1, Math.round(h / stepM))
  const light = new Float32Array(width * height)
  const [left, top] = [Math.min(from.x, to.x), Math.min(from.y, to.y)]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = inPhoto(map, { x: left + (x + 0.5) * stepM, y: top + (y + 0.5) * stepM })
      light[y * width + x] = lightAt(photo, at.x - 0.5, at.y - 0.5)
    }
  return { ok: true, straight: { width, height, stepM, light } }
}

/** Where a straightened picture is split: what is on the open side of it counts as open. */
export interface OpenArea {
  /** 0..1, and what the threshold leaves open */
  ratio: number
  low: number
  high: number
  /** 1 where open, row by row */
  mask: Uint8Array
  /** whole holes: how many, their usual size as a circle, m, and from middle to middle, m; null where none stand alone */
  holes: { count: number; diameterM: number; squareM: number; pitchM: number } | null
}
export type OpenResult = { ok: true; open: OpenArea } | { ok: false; reason: string }

/** Two kinds of brightness nearer than this cannot be told apart, of 255. A choice of ours. */
const LEAST_CONTRAST = 28
/** The threshold may as well lie so far from the middle between the two, share of their distance. A choice of ours. */
const DOUBT = 0.16
/** Shade is levelled over so many tiles on the longer side. A choice of ours. */
const TILES = 6
/** An edge of more than this share of the holes' size is a blur. A choice of ours. */
const MOST_BLUR = 0.6

/** The split that parts a histogram best, and the means on both sides. Reference: N. Otsu (1979) */
function otsu(values: ArrayLike<number>): { at: number; dark: number; bright: number; share: number } {
  const bins = new Float64Array(256)
  for (let i = 0; i < values.length; i++) bins[Math.max(0, Math.min(255, Math.round(values[i]!)))]!++
  const n = values.length
  let total = 0
  for (let b = 0; b < 256; b++) total += b * bins[b]!
  let [below, sum, best] = [0, 0, -1]
  let found = { at: 127, dark: 0, bright: 255, share: 0.5 }
  for (let b = 0; b < 255; b++) {
    below += bins[b]!
    sum += b * bins[b]!
    if (below === 0 || below === n) continue
    const [dark, bright] = [sum / below, (total - sum) / (n - below)]
    const between = below * (n - below) * (bright - dark) ** 2
    if (between > best) {
      best = between
      found = { at: (dark + bright) / 2, dark, bright, share: below / n }
    }
  }
  return found
}

/** Dark and bright level of every tile, smoothed from tile to tile; of a tile of one kind those of all. */
function levels({ width, height, light }: Straight, all: ReturnType<typeof otsu>) {
  const tile = Math.ceil(Math.max(width, height) / TILES)
  const [columns, rows] = [Math.ceil(width / tile), Math.ceil(height / tile)]
  const dark = new Float64Array(columns * rows)
  const bright = new Float64Array(columns * rows)
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const own: number[] = []
      for (let y = r * tile; y < Math.min(height, (r + 1) * tile); y += 2)
        for (let x = c * tile; x < Math.min(width, (c + 1) * tile); x += 2) own.push(light[y * width + x]!)
      const split = otsu(own)
      const told =
        split.bright - split.dark > 0.5 * (all.bright - all.dark) && split.share > 0.04 && split.share < 0.96
      dark[r * columns + c] = told ? split.dark : all.dark
      bright[r * columns + c] = told ? split.bright : all.bright
    }
  const at = (field: Float64Array, x: number, y: number) => {
    const [fx, fy] = [x / tile - 0.5, y / tile - 0.5]
    const [c, r] = [Math.floor(fx), Math.floor(fy)]
    const of = (cc: number, rr: number) =>
      field[Math.max(0, Math.min(rows - 1, rr)) * columns + Math.max(0, Math.min(columns - 1, cc))]!
    const [u, v] = [fx - c, fy - r]
    return (
      (of(c, r) * (1 - u) + of(c + 1, r) * u) * (1 - v) + (of(c, r + 1) * (1 - u) + of(c + 1, r + 1) * u) * v
    )
  }
  return { dark: (x: number, y: number) => at(dark, x, y), bright: (x: number, y: number) => at(bright, x, y) }
}

/** Holes that are held against each other at most. */
const MOST_HOLES = 1500
const medianOf = (list: readonly number[]) => list.toSorted((a, b) => a - b)[list.length >> 1] ?? 0

/** Whole holes of a mask: connected open pixels that touch no edge. Reference: connected components, four neighbours */
function holesOf(mask: Uint8Array, width: number, height: number, stepM: number): OpenArea['holes'] {
  const seen = new Uint8Array(mask.length)
  const stack: number[] = []
  const found: { area: number; x: number; y: number }[] = []
  for (let start = 0; start < mask.length; start++) {
    if (!mask[start] || seen[start]) continue
    seen[start] = 1
    stack.push(start)
    let [area, edge, sumX, sumY] = [0, false, 0, 0]
    while (stack.length) {
      const i = stack.pop()!
      area++
      const [x, y] = [i % width, Math.floor(i / width)]
      sumX += x
      sumY += y
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1) edge = true
      for (const j of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width])
        if (j >= 0 && j < mask.length && mask[j] && !seen[j]) {
          seen[j] = 1
          stack.push(j)
        }
    }
    if (!edge) found.push({ area, x: sumX / area, y: sumY / area })
  }
  const middle = medianOf(found.map((h) => h.area))
  const whole = found.filter((h) => h.area > middle / 2).slice(0, MOST_HOLES)
  if (whole.length < 4 || middle < 9) return null
  const size = medianOf(whole.map((h) => h.area))
  const nearest = whole.map((a) =>
    Math.min(...whole.map((b) => (a === b ? Infinity : Math.hypot(a.x - b.x, a.y - b.y)))),
  )
  return {
    count: whole.length,
    diameterM: 2 * Math.sqrt(size / Math.PI) * stepM,
    squareM: Math.sqrt(size) * stepM,
    pitchM: medianOf(nearest) * stepM,
  }
}

/**
 * How much of a straightened grille is open.
 * @param openIs whether the holes are the dark or the bright side
 * @returns a reason where open and closed cannot be told apart
 * Reference: threshold by N. Otsu (1979), levelled for shade in tiles; range by moving the threshold
 */
export function openAreaOf(straight: Straight, openIs: 'dark' | 'bright'): OpenResult {
  const { width, height, stepM, light } = straight
  const all = otsu(light)
  if (all.bright - all.dark < LEAST_CONTRAST)
    return {
      ok: false,
      reason: 'Open and closed look alike: put something dark (or a lamp) behind it, and take the photo again.',
    }
  const { dark, bright } = levels(straight, all)
  const mask = new Uint8Array(width * height)
  let [open, least, most, edge] = [0, 0, 0, 0]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      const d = dark(x, y)
      // 0: as dark as the dark side, 1: as bright as the bright one
      const t = (light[i]! - d) / Math.max(1, bright(x, y) - d)
      const openness = openIs === 'dark' ? 1 - t : t
      if (openness > 0.5) {
        mask[i] = 1
        open++
      }
      if (openness > 0.5 + DOUBT) least++
      if (openness > 0.5 - DOUBT) most++
      if (openness > 0.2 && openness < 0.8) edge++
    }
  const n = width * height
  const holes = holesOf(mask, width, height, stepM)
  const sizePx = holes ? holes.diameterM / stepM : Math.min(width, height)
  // pixels in between, spread over the edges of the holes
  const blurPx = holes ? edge / Math.max(1, (open / n) * n * (4 / sizePx)) : (LONGEST * edge) / n
  if ((holes && blurPx > MOST_BLUR * Math.min(sizePx, holes.pitchM / stepM - sizePx * 0.5)) || edge > 0.6 * n)
    return {
      ok: false,
      reason: 'The photo is blurred: the edges are as wide as the holes. Go nearer, hold still, more light.',
    }
  return { ok: true, open: { ratio: open / n, low: least / n, high: most / n, mask, holes } }
}
