import { slotArea } from './cutting'

/** Sheets of pieces that lead from one opening to another of another shape. Lengths in m, angles in degrees. */

export type EndShape = 'round' | 'square' | 'oval'
/** One end of a transition: a circle, a rectangle, or a slot with round ends; a circle is as wide as it is high. */
export interface TransitionEnd {
  shape: EndShape
  widthM: number
  heightM: number
}
type Point3 = readonly [x: number, y: number, z: number]
type Point2 = readonly [x: number, y: number]

/** Pieces of a quarter turn. */
const PARTS = 24
const QUARTERS = 4

/** Free area of an end, m2. Reference: definition */
export function endAreaOf({ shape, widthM: w, heightM: h }: TransitionEnd): number {
  return shape === 'square' ? w * h : slotArea(Math.max(w, h), Math.min(w, h))
}

/** A point of a round or oval end by its angle, from the middle of the right side. */
function smoothPoint({ widthM, heightM }: TransitionEnd, deg: number, z: number): Point3 {
  const r = Math.min(widthM, heightM) / 2
  const [dx, dy] = [widthM / 2 - r, heightM / 2 - r]
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)]
  const side = (x: number) => (Math.abs(x) < 1e-12 ? 0 : Math.sign(x))
  return [r * c + side(c) * dx, r * s + side(s) * dy, z]
}
/** Corner of a rectangle by its quarter: right above, left above, left below, right below. */
function cornerOf({ widthM, heightM }: TransitionEnd, quarter: number, z: number): Point3 {
  const x = quarter === 0 || quarter === 3 ? 1 : -1
  const y = quarter < 2 ? 1 : -1
  return [(x * widthM) / 2, (y * heightM) / 2, z]
}

/** Points of both ends that are joined by a straight line; whether the sheet is bent there, at a rectangle's corner. */
interface Ruling {
  a: Point3
  b: Point3
  bend: boolean
}
/** From the seam in the middle of the right side once round. */
function rulings(from: TransitionEnd, to: TransitionEnd, lengthM: number): Ruling[] {
  const square = (e: TransitionEnd) => e.shape === 'square'
  const pointOf = (end: TransitionEnd, quarter: number, part: number, z: number): Point3 =>
    square(end) ? cornerOf(end, quarter, z) : smoothPoint(end, quarter * 90 + (part * 90) / PARTS, z)
  const seamOf = (end: TransitionEnd, z: number): Point3 => [end.widthM / 2, 0, z]
  const seam: Ruling = { a: seamOf(from, 0), b: seamOf(to, lengthM), bend: false }
  const angular = square(from) || square(to)
  const parts = square(from) && square(to) ? [0] : Array.from({ length: PARTS + 1 }, (_, i) => i)
  const round = Array.from({ length: QUARTERS }, (_, quarter) =>
    parts.map((part): Ruling => ({
      a: pointOf(from, quarter, part, 0),
      b: pointOf(to, quarter, part, lengthM),
      bend: angular && (part === 0 || part === PARTS),
    })),
  )
  return [seam, ...round.flat(), seam]
}

const apart = (a: Point3, b: Point3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
/** The point that is so far from two points of the sheet, on the right of the way from the first to the second. */
function beyond(a: Point2, b: Point2, toA: number, toB: number): Point2 {
  const d = Math.hypot(b[0] - a[0], b[1] - a[1])
  const along = (d ** 2 + toA ** 2 - toB ** 2) / (2 * d)
  const off = Math.sqrt(Math.max(0, toA ** 2 - along ** 2))
  const [ux, uy] = [(b[0] - a[0]) / d, (b[1] - a[1]) / d]
  return [a[0] + along * ux + off * uy, a[1] + along * uy - off * ux]
}

export interface TransitionSheet {
  /** edge of the first and of the second end, from seam to seam */
  fromEdge: Point2[]
  toEdge: Point2[]
  /** lines to bend sharply, at the corners of a rectangle */
  bends: [Point2, Point2][]
}
const SAME_M = 1e-9

/**
 * The flat sheet of a straight transition between two openings on one axis, triangle by triangle.
 * @param from first end @param to second end @param lengthM between their planes, m, above 0
 * Reference: development by triangulation, geometry; each quarter of a curve in 24 parts
 */
export function transitionSheet(from: TransitionEnd, to: TransitionEnd, lengthM: number): TransitionSheet {
  const lines = rulings(from, to, lengthM)
  let a: Point2 = [0, 0]
  let b: Point2 = [0, apart(lines[0]!.a, lines[0]!.b)]
  const sheet: TransitionSheet = { fromEdge: [a], toEdge: [b], bends: [] }
  for (let i = 1; i < lines.length; i++) {
    const [was, is] = [lines[i - 1]!, lines[i]!]
    if (apart(was.a, is.a) > SAME_M) a = beyond(a, b, apart(was.a, is.a), apart(was.b, is.a))
    if (apart(was.b, is.b) > SAME_M) b = beyond(a, b, apart(is.a, is.b), apart(was.b, is.b))
    sheet.fromEdge.push(a)
    sheet.toEdge.push(b)
    if (is.bend) sheet.bends.push([a, b])
  }
  return sheet
}

/** Round bore of the same area, m. Reference: definition */
export const boreOf = (end: TransitionEnd) => Math.sqrt(endAreaOf(end) / (Math.PI / 4))
/**
 * The steepest half angle of a transition, degrees: over its width, its height, or round bores of the same areas.
 * @param lengthM m, above 0
 * Reference: geometry, by definition
 */
export const steepestDeg = (from: TransitionEnd, to: TransitionEnd, lengthM: number): number => {
  const sizes = (e: TransitionEnd) => [e.widthM, e.heightM, boreOf(e)]
  const [one, other] = [sizes(from), sizes(to)]
  const step = Math.max(...one.map((size, i) => Math.abs(size - other[i]!))) / 2
  return (Math.atan2(step, lengthM) * 180) / Math.PI
}

/** Bores of hoses and pipes that are usual, m: round millimetres, and 3, 4, 5 and 6 inches. Trade, common practice. */
export const usualBores: readonly number[] = [40, 50, 63, 76, 80, 100, 102, 125, 127, 150, 152, 160, 200].map(
  (mm) => mm / 1000,
)
/** Half angles that air follows, degrees: where it narrows, and where it widens. Handbook fit 4, common practice. */
export const GENTLE_DEG = { narrowing: 30, widening: 15 } as const
