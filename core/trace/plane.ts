import type { Pixel } from './axes'

/** A flat thing in a photo: four corners of a rectangle of known size say where everything in its plane is. */

/** Takes a point of the plane (m) to the photo (pixels): nine numbers of a projective map. */
export type PlaneMap = readonly number[]
export interface PlanePoint {
  x: number
  y: number
}

/**
 * The map of a plane from the corners of a rectangle in it.
 * @param corners in the photo, in order: top left, top right, bottom right, bottom left, pixels
 * @param widthM of the rectangle, m, above 0
 * @param heightM of the rectangle, m, above 0
 * @returns null where the corners are no quadrilateral
 * Reference: square to quadrilateral in closed form, P. S. Heckbert (1989), from memory
 */
export function planeOf(corners: readonly Pixel[], widthM: number, heightM: number): PlaneMap | null {
  if (corners.length !== 4 || !(widthM > 0) || !(heightM > 0)) return null
  // a corner inside the triangle of the others, or crossed sides: no rectangle looks like that
  const turns = corners.map((c, i) => {
    const [b, d] = [corners[(i + 1) % 4]!, corners[(i + 2) % 4]!]
    return (b.x - c.x) * (d.y - b.y) - (b.y - c.y) * (d.x - b.x)
  })
  if (!turns.every((t) => t > 0) && !turns.every((t) => t < 0)) return null
  const [a, b, c, d] = corners as [Pixel, Pixel, Pixel, Pixel]
  const [dx1, dx2, dx3] = [b.x - c.x, d.x - c.x, a.x - b.x + c.x - d.x]
  const [dy1, dy2, dy3] = [b.y - c.y, d.y - c.y, a.y - b.y + c.y - d.y]
  const area = dx1 * dy2 - dx2 * dy1
  const g = (dx3 * dy2 - dx2 * dy3) / area
  const h = (dx1 * dy3 - dx3 * dy1) / area
  const [w, t] = [widthM, heightM]
  return [
    (b.x - a.x + g * b.x) / w,
    (d.x - a.x + h * d.x) / t,
    a.x,
    (b.y - a.y + g * b.y) / w,
    (d.y - a.y + h * d.y) / t,
    a.y,
    g / w,
    h / t,
    1,
  ]
}

/** Where a point of the plane is in the photo. @param p m Reference: projective map */
export function inPhoto(m: PlaneMap, { x, y }: PlanePoint): Pixel {
  const w = m[6]! * x + m[7]! * y + m[8]!
  return { x: (m[0]! * x + m[1]! * y + m[2]!) / w, y: (m[3]! * x + m[4]! * y + m[5]!) / w }
}

/** Where a pixel is in the plane, m. Reference: the map turned round (adjugate of its matrix) */
export function inPlane(m: PlaneMap, { x, y }: Pixel): PlanePoint {
  const [a, b, c, d, e, f, g, h, i] = m as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  const w = (d * h - e * g) * x + (b * g - a * h) * y + (a * e - b * d)
  return {
    x: ((e * i - f * h) * x + (c * h - b * i) * y + (b * f - c * e)) / w,
    y: ((f * g - d * i) * x + (a * i - c * g) * y + (c * d - a * f)) / w,
  }
}

/** Length between two pixels in the plane, m. Reference: plane geometry */
export function lengthInPlane(m: PlaneMap, from: Pixel, to: Pixel): number {
  const [a, b] = [inPlane(m, from), inPlane(m, to)]
  return Math.hypot(a.x - b.x, a.y - b.y)
}

/**
 * How many times larger the plane is drawn at its nearest corner than at its farthest: 1 is seen straight on.
 * @param widthM m
 * @param heightM m
 * Reference: Jacobian of the projective map at the corners
 */
export function obliqueness(m: PlaneMap, widthM: number, heightM: number): number {
  const step = 1e-3 * Math.max(widthM, heightM)
  const areas = [
    [0, 0],
    [widthM, 0],
    [widthM, heightM],
    [0, heightM],
  ].map(([x, y]) => {
    const [o, a, b] = [
      inPhoto(m, { x: x!, y: y! }),
      inPhoto(m, { x: x! + step, y: y! }),
      inPhoto(m, { x: x!, y: y! + step }),
    ]
    return {
      area: Math.abs((a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x)),
      along: Math.hypot(a.x - o.x, a.y - o.y),
      across: Math.hypot(b.x - o.x, b.y - o.y),
    }
  })
  const all = areas.flatMap((s) => [s.along, s.across])
  return Math.max(...all) / Math.min(...all)
}
