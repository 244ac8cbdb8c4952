import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { extent, medianSorted } from 'simple-statistics'
import { slopeOf, tQuantile } from '#core/measure'

/**
 * Temperature on its way to a final value, degC.
 * @param start degC
 * @param final degC
 * @param tau time constant, s, above 0
 * @param time s
 * Reference: first-order balance (docs/physics.md HT6)
 */
export const temperatureAt = (start: number, final: number, tau: number, time: number) =>
  final + (start - final) * Math.exp(-time / tau)
/**
 * Time until a temperature is reached, s; null where it never is, 0 where it is already.
 * @param start degC
 * @param final degC
 * @param tau time constant, s, above 0
 * @param target degC
 * Reference: first-order balance; docs/physics.md HT6 to HT12
 */
export function timeTo(start: number, final: number, tau: number, target: number): number | null {
  if (target === start) return 0
  const share = (final - start) / (final - target)
  return share > 1 && Number.isFinite(share) ? tau * Math.log(share) : null
}
/**
 * Change still to come, K: slope times time constant.
 * @param slope K/s
 * @param tau time constant, s, above 0
 * Reference: first-order balance; docs/physics.md HT6 to HT12
 */
export const remainingChange = (slope: number, tau: number) => slope * tau
/** A rise fitted: T = T_inf + A exp(-(t - t1)/tau). */
export interface RiseFit {
  final: number
  amplitude: number
  tau: number
  /** standard error of the final value, K; null for three readings or fewer */
  finalError: number | null
  /** half-width of its 95 % interval, K */
  halfWidth: number | null
  residual: number
  /** whether the final value may be stated; why not otherwise */
  trusted: boolean
  why: string
}

/** Search of the time constant, as multiples of the span of the data. docs/physics.md HT9. */
const SEARCH = { from: 0.03, to: 1000, steps: 60 } as const
/** Readings that a fit needs before it is believed, and the error it may have: kelvin and share of the rise. docs/physics.md HT10. */
const MIN_READINGS = 8
const ERROR_LIMIT = { kelvin: 0.5, share: 0.05 } as const
/** Longer records are averaged into this many groups first: the fit is the same to its own error, and quick. */
const MAX_POINTS = 1500

/** Means of equal groups of a long record. */
function grouped(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
): { t: Float64Array; v: Float64Array; each: number } {
  const n = times.length
  const groups = Math.min(n, MAX_POINTS)
  const t = new Float64Array(groups)
  const v = new Float64Array(groups)
  for (let i = 0; i < groups; i++) {
    const from = Math.floor((i * n) / groups)
    const to = Math.floor(((i + 1) * n) / groups)
    for (let k = from; k < to; k++) {
      t[i]! += times[k]!
      v[i]! += values[k]!
    }
    t[i] = t[i]! / (to - from)
    v[i] = v[i]! / (to - from)
  }
  return { t, v, each: n / groups }
}

/** For a given time constant the model is a straight line in exp(-t/tau): its two normal equations, and what is left. */
function lineAt(
  t: Float64Array,
  v: Float64Array,
  tau: number,
): { final: number; amplitude: number; squares: number } {
  const n = t.length
  const t0 = t[0]!
  let [se, see, sv, sev] = [0, 0, 0, 0]
  for (let i = 0; i < n; i++) {
    const e = Math.exp(-(t[i]! - t0) / tau)
    se += e
    see += e * e
    sv += v[i]!
    sev += e * v[i]!
  }
  const det = n * see - se * se
  if (!(det > 1e-12 * n * see)) return { final: sv / n, amplitude: 0, squares: Infinity }
  const amplitude = (n * sev - se * sv) / det
  const final = (sv - amplitude * se) / n
  let squares = 0
  for (let i = 0; i < n; i++) squares += (v[i]! - final - amplitude * Math.exp(-(t[i]! - t0) / tau)) ** 2
  return { final, amplitude, squares }
}

/** First look: the time constant of the coarse search that leaves least; null where it lies at an end of the search. */
function firstLook(t: Float64Array, v: Float64Array, span: number): number | null {
  const [from, to] = [Math.log(SEARCH.from * span), Math.log(SEARCH.to * span)]
  const step = (to - from) / SEARCH.steps
  let best = 0
  let least = Infinity
  for (let i = 0; i <= SEARCH.steps; i++) {
    const { squares } = lineAt(t, v, Math.exp(from + i * step))
    if (squares < least) {
      least = squares
      best = i
    }
  }
  return best === 0 || best === SEARCH.steps ? null : Math.exp(from + best * step)
}

/**
 * Settings of the library's search: relative steps of the gradient, and how many. From a start within a fifth of the
 * best time constant it stands still after eight at most; the sum of squares of a noisy record never reaches its tolerance.
 */
const FINE = { damping: 1e-3, gradientDifference: 1e-6, maxIterations: 8, errorTolerance: 1e-14 } as const

/**
 * Time constant by least squares, s: the curve is fitted in units of its own span and height, so that all three
 * parameters are near one.
 */
function fineTau(t: Float64Array, v: Float64Array, tau: number, span: number, height: number): number {
  const start = lineAt(t, v, tau)
  const first = v[0]!
  const fit = levenbergMarquardt(
    { x: Array.from(t, (x) => (x - t[0]!) / span), y: Array.from(v, (y) => (y - first) / height) },
    ([final, amplitude, log]) => {
      const rate = Math.exp(-log!)
      return (x) => final! + amplitude! * Math.exp(-x * rate)
    },
    {
      ...FINE,
      centralDifference: true,
      initialValues: [(start.final - first) / height, start.amplitude / height, Math.log(tau / span)],
    },
  )
  const found = Math.exp(fit.parameterValues[2]!) * span
  return Number.isFinite(found) && lineAt(t, v, found).squares <= start.squares ? found : tau
}

/** Why the end of a fit may not be stated; '' where it may. */
function doubtOf(fit: {
  n: number
  span: number
  tau: number
  changed: boolean
  bends: boolean
  finalError: number | null
  rise: number
}): string {
  if (fit.changed) return 'something changed on the way'
  if (!fit.bends) return 'it does not bend towards an end'
  if (fit.span < fit.tau) return 'less than one time constant has passed'
  if (fit.n < MIN_READINGS) return `fewer than ${MIN_READINGS} readings`
  const limit = Math.max(ERROR_LIMIT.kelvin, ERROR_LIMIT.share * fit.rise)
  return fit.finalError === null || fit.finalError > limit ? 'its end value still scatters too much' : ''
}

/**
 * Least squares of a first-order rise (or fall), with the standard error of its final value and whether that may be
 * stated.
 * @param times s, rising
 * @param values degC
 * @returns null where no time constant fits: a ramp, an upward bend, a constant
 * Reference: K. Levenberg and D. Marquardt, as a library computes it; docs/physics.md HT9 and HT10 (rules of trust); error from
 * the three-parameter Jacobian
 */
export function fitRise(times: ArrayLike<number>, values: ArrayLike<number>): RiseFit | null {
  const n = times.length
  if (n < 4) return null
  const { t, v, each } = grouped(times, values)
  const span = times[n - 1]! - times[0]!
  const [low, high] = extent(Array.from(v))
  const height = high - low
  if (!(span > 0) || height < 1e-9) return null
  const coarse = firstLook(t, v, span)
  if (coarse === null) return null
  const tau = fineTau(t, v, coarse, span, height)
  const { final, amplitude, squares } = lineAt(t, v, tau)
  const dof = t.length - 3
  const residual = dof > 0 ? Math.sqrt((squares * each) / dof) : 0
  const finalError = dof > 0 ? finalStandardError(t, tau, amplitude, squares / dof) : null
  const noise = scatter(t, v, final, amplitude, tau)
  const why = doubtOf({
    n,
    span,
    tau,
    finalError,
    rise: Math.abs(final - values[0]!),
    changed: residual > CHANGED.times * noise * Math.sqrt(each) && residual > CHANGED.kelvin,
    bends: amplitude !== 0 && (final - values[0]!) * (values[n - 1]! - values[0]!) >= 0,
  })
  const halfWidth = finalError === null ? null : finalError * tQuantile(Math.max(1, dof))
  return { final, amplitude, tau, finalError, halfWidth, residual, trusted: why === '', why }
}

/**
 * What is left changes smoothly from reading to reading by more than its noise, and by more than this: the model does
 * not hold. A choice of ours.
 */
const CHANGED = { times: 3, kelvin: 0.2 } as const
/** Median of the size of a standard normal number. */
const NORMAL_MEDIAN = 0.6745
/** Noise of the readings, K: from the differences of neighbouring residuals, which a slow misfit hardly touches. */
function scatter(t: Float64Array, v: Float64Array, final: number, amplitude: number, tau: number): number {
  const left = (i: number) => v[i]! - final - amplitude * Math.exp(-(t[i]! - t[0]!) / tau)
  // the median: a few steep readings at the start do not pass for noise
  const steps = Array.from({ length: t.length - 1 }, (_, i) => Math.abs(left(i + 1) - left(i))).sort(
    (a, b) => a - b,
  )
  return medianSorted(steps) / (NORMAL_MEDIAN * Math.SQRT2)
}

/** Square root of the first element of s² (JᵀJ)⁻¹ for the parameters (T_inf, A, tau). */
function finalStandardError(t: Float64Array, tau: number, amplitude: number, variance: number): number | null {
  const t0 = t[0]!
  let [n, e1, e2, d1, de, dd] = [0, 0, 0, 0, 0, 0]
  for (const x of t) {
    const e = Math.exp(-(x - t0) / tau)
    const d = (amplitude * e * (x - t0)) / tau ** 2
    n++
    e1 += e
    e2 += e * e
    d1 += d
    de += d * e
    dd += d * d
  }
  const det = n * (e2 * dd - de * de) - e1 * (e1 * dd - de * d1) + d1 * (e1 * de - e2 * d1)
  const cofactor = e2 * dd - de * de
  return det > 0 && cofactor > 0 ? Math.sqrt((variance * cofactor) / det) : null
}

/**
 * Whether the least-squares slope of a window lies within a limit, K/s.
 * @param times s, rising
 * @param values degC
 * @param limit K/s
 * Reference: docs/physics.md HT12
 */
export function isSteady(times: ArrayLike<number>, values: ArrayLike<number>, limit: number): boolean | null {
  const slope = slopeOf(times, values)
  return slope === null ? null : Math.abs(slope) <= limit
}
