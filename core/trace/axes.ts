/** A place in a picture, pixels from its upper left corner. */
export interface Pixel {
  x: number
  y: number
}
/** A point of an axis whose value is known. */
export interface AxisMark {
  at: Pixel
  value: number
}
/** One axis of a chart by two marks on it. */
export interface Axis {
  first: AxisMark
  second: AxisMark
  logarithmic: boolean
}

export type AxesResult = { ok: true; axes: Axes } | { ok: false; message: string }
/** Pixels to values, and how much one pixel is worth. */
export interface Axes {
  toValues: (p: Pixel) => { x: number; y: number }
  perPixel: (p: Pixel) => { x: number; y: number }
}

const scale = (axis: Axis) => (axis.logarithmic ? Math.log10 : (v: number) => v)
const unscale = (axis: Axis) => (axis.logarithmic ? (v: number) => 10 ** v : (v: number) => v)

/** Marks nearer than this say nothing, pixels. */
const MIN_SPAN = 8

/**
 * The axes of a chart in a picture, from two marks on each. The picture may be turned a little: each axis runs along the
 * line through its marks, and a place is read along both at once.
 * @returns what is wrong where the marks cannot be used
 * Reference: a choice of ours
 */
export function makeAxes(flow: Axis, pressure: Axis): AxesResult {
  for (const [name, axis] of [
    ['flow', flow],
    ['pressure', pressure],
  ] as const) {
    const { first, second } = axis
    if (Math.hypot(second.at.x - first.at.x, second.at.y - first.at.y) < MIN_SPAN)
      return { ok: false, message: `The two marks on the ${name} axis are too near each other.` }
    if (first.value === second.value)
      return { ok: false, message: `The two marks on the ${name} axis have the same value.` }
    if (axis.logarithmic && !(first.value > 0 && second.value > 0))
      return { ok: false, message: `A logarithmic ${name} axis has values above zero only.` }
  }
  const u = { x: flow.second.at.x - flow.first.at.x, y: flow.second.at.y - flow.first.at.y }
  const v = { x: pressure.second.at.x - pressure.first.at.x, y: pressure.second.at.y - pressure.first.at.y }
  const cross = u.x * v.y - u.y * v.x
  if (Math.abs(cross) < 0.2 * Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y))
    return { ok: false, message: 'The two axes run the same way.' }
  const [f0, f1] = [scale(flow)(flow.first.value), scale(flow)(flow.second.value)]
  const [p0, p1] = [scale(pressure)(pressure.first.value), scale(pressure)(pressure.second.value)]
  const toValues = ({ x, y }: Pixel) => {
    // shares along both axes: place = corner + s u + t v, each axis counted from its own first mark
    const a = { x: x - flow.first.at.x, y: y - flow.first.at.y }
    const b = { x: x - pressure.first.at.x, y: y - pressure.first.at.y }
    const s = (a.x * v.y - a.y * v.x) / cross
    const t = (u.x * b.y - u.y * b.x) / cross
    return { x: unscale(flow)(f0 + s * (f1 - f0)), y: unscale(pressure)(p0 + t * (p1 - p0)) }
  }
  const perPixel = (p: Pixel) => {
    const here = toValues(p)
    return {
      x: Math.abs(toValues({ x: p.x + 1, y: p.y }).x - here.x),
      y: Math.abs(toValues({ x: p.x, y: p.y + 1 }).y - here.y),
    }
  }
  return { ok: true, axes: { toValues, perPixel } }
}
