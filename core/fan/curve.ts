/**
 * A fan curve: static pressure over flow at one voltage, speed and density, by monotone cubic interpolation.
 * Built once, then read without allocation. Interpolation: F. N. Fritsch and J. Butland, "A method for
 * constructing local monotone piecewise cubic interpolants", SIAM J. Sci. Stat. Comput. 5 (1984) (the PCHIP of
 * general-purpose numerical libraries): extremes stay at the data points, nothing overshoots.
 */
export interface FanCurve {
  /** flows, m3/s, rising */
  q: Float64Array
  /** static pressures, Pa */
  p: Float64Array
  /** slopes dp/dq at the points, Pa.s/m3 */
  m: Float64Array
  /**
   * the same once more for a search that reads thousands of curves: flow, pressure and slope of each point in turn, from
   * one place to another (not with it) of memory that many curves share
   */
  flat: Float64Array
  from: number
  to: number
}

export interface CurvePoint {
  q: number
  p: number
}

export type CurveProblem =
  'too-few-points' | 'not-a-number' | 'negative-flow' | 'negative-pressure' | 'flow-not-rising'
export type CurveResult =
  { ok: true; curve: FanCurve } | { ok: false; problem: CurveProblem; index: number; message: string }

const problemText: Record<CurveProblem, string> = {
  'too-few-points': 'A curve needs at least two points.',
  'not-a-number': 'Every point needs a flow and a pressure.',
  'negative-flow': 'A flow cannot be negative.',
  'negative-pressure': 'A pressure cannot be negative.',
  'flow-not-rising': 'Each flow must be larger than the one before.',
}

/**
 * Checks the points and prepares the curve.
 * @param points flows m3/s (>= 0, rising), pressures Pa (>= 0), at least two; dips are allowed
 * @returns the curve, or which point is wrong and why
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function makeCurve(points: readonly CurvePoint[]): CurveResult {
  const refuse = (problem: CurveProblem, index: number): CurveResult => ({
    ok: false,
    problem,
    index,
    message: problemText[problem],
  })
  for (const [i, point] of points.entries()) {
    if (!Number.isFinite(point.q) || !Number.isFinite(point.p)) return refuse('not-a-number', i)
    if (point.q < 0) return refuse('negative-flow', i)
    if (point.p < 0) return refuse('negative-pressure', i)
    if (i > 0 && point.q <= points[i - 1]!.q) return refuse('flow-not-rising', i)
  }
  if (points.length < 2) return refuse('too-few-points', points.length)
  const q = Float64Array.from(points, (x) => x.q)
  const p = Float64Array.from(points, (x) => x.p)
  return { ok: true, curve: curveOf(q, p, pchipSlopes(q, p)) }
}

/** Numbers in a piece of shared memory; a longer curve has one of its own. */
const PIECE = 4096
let piece = new Float64Array(PIECE)
let taken = 0
/** Room for a curve behind the one that was made before it. A piece goes when none of its curves is held any more. */
function room(numbers: number): number {
  if (taken + numbers > piece.length) {
    piece = new Float64Array(Math.max(PIECE, numbers))
    taken = 0
  }
  taken += numbers
  return taken - numbers
}

function curveOf(q: Float64Array, p: Float64Array, m: Float64Array): FanCurve {
  const from = room(3 * q.length)
  const to = from + 3 * q.length
  for (let k = 0; k < q.length; k++) {
    piece[from + 3 * k] = q[k]!
    piece[from + 3 * k + 1] = p[k]!
    piece[from + 3 * k + 2] = m[k]!
  }
  return { q, p, m, flat: piece, from, to }
}

/**
 * Slopes of the monotone cubic through (x, y), Fritsch-Butland weights with three-point ends.
 * @param x flow, m3/s
 * @param y pressure, Pa
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function pchipSlopes(x: Float64Array, y: Float64Array): Float64Array {
  const n = x.length
  const m = new Float64Array(n)
  const h = (k: number) => x[k + 1]! - x[k]!
  const d = (k: number) => (y[k + 1]! - y[k]!) / h(k)
  if (n === 2) return m.fill(d(0))
  for (let k = 1; k < n - 1; k++) {
    const before = d(k - 1)
    const after = d(k)
    if (before * after > 0) {
      const w1 = 2 * h(k) + h(k - 1)
      const w2 = h(k) + 2 * h(k - 1)
      m[k] = (w1 + w2) / (w1 / before + w2 / after)
    }
  }
  m[0] = endSlope(h(0), h(1), d(0), d(1))
  m[n - 1] = endSlope(h(n - 2), h(n - 3), d(n - 2), d(n - 3))
  return m
}

function endSlope(h0: number, h1: number, d0: number, d1: number): number {
  const e = ((2 * h0 + h1) * d0 - h0 * d1) / (h0 + h1)
  if (e * d0 <= 0) return 0
  return d0 * d1 <= 0 && Math.abs(e) > 3 * Math.abs(d0) ? 3 * d0 : e
}

/**
 * Index k of the interval q[k]..q[k+1] that holds the flow, or -1 outside the data.
 * @param flow m3/s, 0 or more
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function intervalOf(curve: FanCurve, flow: number): number {
  const { q } = curve
  let low = 0
  let high = q.length - 1
  if (!(flow >= q[0]! && flow <= q[high]!)) return -1
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (q[middle]! <= flow) low = middle
    else high = middle
  }
  return low
}

/** Pressure in interval k, no range check. */
function pressureIn(curve: FanCurve, k: number, flow: number): number {
  const { q, p, m } = curve
  const h = q[k + 1]! - q[k]!
  const t = (flow - q[k]!) / h
  const u = 1 - t
  return u * u * ((1 + 2 * t) * p[k]! + t * h * m[k]!) + t * t * ((3 - 2 * t) * p[k + 1]! - u * h * m[k + 1]!)
}

/**
 * Static pressure at a flow, Pa.
 * @param flow m3/s
 * @returns null outside the first and last data point: nothing is extrapolated or clamped
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function pressureAt(curve: FanCurve, flow: number): number | null {
  const k = intervalOf(curve, flow)
  return k < 0 ? null : pressureIn(curve, k, flow)
}

/**
 * Slope dp/dq at a flow, Pa.s/m3; null outside the data.
 * @param flow m3/s, 0 or more
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function slopeAt(curve: FanCurve, flow: number): number | null {
  const k = intervalOf(curve, flow)
  if (k < 0) return null
  const { q, p, m } = curve
  const h = q[k + 1]! - q[k]!
  const t = (flow - q[k]!) / h
  return (
    (6 * t * (t - 1) * (p[k]! - p[k + 1]!)) / h + (1 - t) * (1 - 3 * t) * m[k]! + t * (3 * t - 2) * m[k + 1]!
  )
}

/**
 * The rightmost flow that has a pressure, m3/s (the branch right of any dip).
 * @param pressure Pa
 * @returns null above the curve's highest pressure, or below its last point
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function flowAt(curve: FanCurve, pressure: number): number | null {
  const { q, p } = curve
  for (let k = q.length - 2; k >= 0; k--) {
    const right = p[k + 1]!
    if (pressure === right) return q[k + 1]!
    const left = p[k]!
    if (left >= pressure && right < pressure) {
      let low = q[k]!
      let high = q[k + 1]!
      for (let i = 0; i < 60; i++) {
        const middle = (low + high) / 2
        if (pressureIn(curve, k, middle) >= pressure) low = middle
        else high = middle
      }
      return (low + high) / 2
    }
  }
  return pressure === p[0] ? q[0]! : null
}

/**
 * Flow below which the curve dips: the right-hand peak beside the dip, m3/s.
 * @returns null where no dip is visible (which does not mean that there is none: few points hide it)
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function stallLimit(curve: FanCurve): number | null {
  const { q, p } = curve
  for (let k = q.length - 2; k >= 1; k--) {
    if (p[k]! > p[k - 1]! && p[k]! >= p[k + 1]!) return q[k]!
  }
  return null
}

/**
 * Highest pressure of the curve, Pa (a data point, as the cubic is monotone between them).
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function highestPressure({ p }: FanCurve): number {
  let highest = 0
  for (let k = 0; k < p.length; k++) if (p[k]! > highest) highest = p[k]!
  return highest
}

/**
 * Largest flow of the curve, m3/s.
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function lastFlow(curve: FanCurve): number {
  return curve.q[curve.q.length - 1]!
}

/**
 * The curve with flows and pressures multiplied; shape and slopes follow.
 * Reference: F. N. Fritsch and J. Butland (1984), monotone cubic; docs/physics.md FP1, FP2
 */
export function scaleCurve(curve: FanCurve, flowFactor: number, pressureFactor: number): FanCurve {
  return curveOf(
    curve.q.map((x) => x * flowFactor),
    curve.p.map((x) => x * pressureFactor),
    curve.m.map((x) => (x * pressureFactor) / flowFactor),
  )
}
