import { slopeOf } from '#core/measure'
import { fitRise, remainingChange, temperatureAt, type RiseFit } from './rise'

/** A soak that is being watched: where it will end, how long that takes, whether that may be believed. */

export interface SoakReport {
  /** `steady`: nothing worth waiting for is left; `predicted`: the end may be stated; `rising`: it may not yet */
  state: 'steady' | 'predicted' | 'rising'
  /** end value and its 95 % interval, degC; the mean of the last window where it is steady; null while it may not be stated */
  final: number | null
  low: number | null
  high: number | null
  tau: number | null
  /** s from the last reading until 95 % of the whole rise are done; 0 where they are */
  to95S: number | null
  /** K still to come */
  remaining: number | null
  /** K/s over the last window; null for fewer than two readings */
  slope: number | null
  /** s that the fit begins at, and why not at the first reading */
  from: number
  changedAt: number | null
  why: string
  fit: RiseFit | null
}

/** Window of the slope: the last ten minutes or half a time constant. docs/physics.md, steady state (common practice). */
const WINDOW_S = 600
const WINDOW_TAU = 0.5
/** Still to come when it counts as steady, K, and time constants that must have passed. docs/physics.md HT8 and section 4. */
const REST_K = 0.5
const STEADY_TAU = 3
/** Slope that counts as none where no time constant can be fitted, K/s: 0.1 K a minute (docs/physics.md, common practice). */
const STILL_KS = 0.1 / 60
/** Where a fit may begin, as shares of the record: at once, after the small part's own time constant, after a change on the way. */
const BEGINS = [0, 0.04, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.85] as const
const DONE = 0.95
/**
 * What the curve itself does not know: a tenth of what is still to come, and how alike two probes read, K. A choice of
 * ours: the scatter alone would promise too much.
 */
const MODEL = { share: 0.1, kelvin: 0.1 } as const

function lastSlope(times: Float64Array, values: Float64Array, window: number): number | null {
  const end = times.length
  let start = end
  while (start > 0 && times[end - 1]! - times[start - 1]! <= window) start--
  return slopeOf(times.subarray(start, end), values.subarray(start, end))
}

/** Readings at the start that all lie on one side of the curve: the small part's own time constant is still in them. */
const START = { share: 0.04, least: 4, errors: 3 } as const
function oneSided(t: Float64Array, v: Float64Array, fit: RiseFit): boolean {
  const k = Math.max(START.least, Math.round(START.share * t.length))
  let sum = 0
  for (let i = 0; i < k; i++) sum += v[i]! - fit.final - fit.amplitude * Math.exp(-(t[i]! - t[0]!) / fit.tau)
  return Math.abs(sum / k) > (START.errors * fit.residual) / Math.sqrt(k) && Math.abs(sum / k) > REST_K / 2
}

/** Rows that have a value, as rises over the ambient of the same moment brought to the last ambient where one is given. */
function usable(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
  ambient: ArrayLike<number> | null,
): { t: Float64Array; v: Float64Array } {
  let last = NaN
  if (ambient) for (let i = ambient.length - 1; i >= 0 && Number.isNaN(last); i--) last = ambient[i]!
  const t: number[] = []
  const v: number[] = []
  for (let i = 0; i < times.length; i++) {
    const value = ambient && !Number.isNaN(last) ? values[i]! - ambient[i]! + last : values[i]!
    if (!Number.isFinite(value)) continue
    t.push(times[i]!)
    v.push(value)
  }
  return { t: Float64Array.from(t), v: Float64Array.from(v) }
}

/**
 * Judges a warm-up (or cool-down).
 * @param times s, rising @param values degC, NaN for gaps @param ambient degC at the same times; null where it was not logged
 * Reference: docs/physics.md HT8 to HT12
 */
export function soakOf(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
  ambient: ArrayLike<number> | null = null,
): SoakReport {
  const { t, v } = usable(times, values, ambient)
  const n = t.length
  const nothing: SoakReport = {
    state: 'rising',
    final: null,
    low: null,
    high: null,
    tau: null,
    to95S: null,
    remaining: null,
    slope: null,
    from: t[0] ?? 0,
    changedAt: null,
    why: 'fewer than 8 readings',
    fit: null,
  }
  if (n < 8) return nothing
  let begin = 0
  let fit = fitRise(t, v)
  for (const share of BEGINS) {
    const i = Math.floor(share * n)
    if (n - i < 8) break
    const tried = share === 0 ? fit : fitRise(t.subarray(i), v.subarray(i))
    if (
      tried &&
      tried.why !== 'something changed on the way' &&
      !oneSided(t.subarray(i), v.subarray(i), tried)
    ) {
      fit = tried
      begin = i
      break
    }
  }
  const end = t[n - 1]!
  const tau = fit?.trusted ? fit.tau : null
  const slope = lastSlope(
    t,
    v,
    tau === null ? WINDOW_S : Math.min(WINDOW_S, Math.max(WINDOW_TAU * tau, (8 * (end - t[0]!)) / n)),
  )
  const base = { ...nothing, slope, fit, tau, from: t[begin]!, changedAt: begin > 0.05 * n ? t[begin]! : null }
  const mean = () => {
    const k = Math.max(0, n - Math.max(8, Math.round(0.1 * n)))
    let sum = 0
    for (let i = k; i < n; i++) sum += v[i]!
    return sum / (n - k)
  }
  if (fit?.trusted) {
    const last = temperatureAt(fit.final + fit.amplitude, fit.final, fit.tau, end - t[begin]!)
    const remaining = fit.final - last
    const done = Math.abs(fit.amplitude)
    const to95S = Math.max(0, fit.tau * Math.log(Math.abs(remaining) / ((1 - DONE) * done)))
    // three time constants have passed, or there was hardly anything to come from where the fit begins
    const flat = done <= REST_K && end - t[begin]! >= WINDOW_S
    const steady = Math.abs(remaining) <= REST_K && (flat || end - t[begin]! >= STEADY_TAU * fit.tau)
    const half = Math.hypot(fit.halfWidth!, MODEL.share * remaining, MODEL.kelvin)
    if (flat && steady)
      return {
        ...base,
        state: 'steady',
        changedAt: null,
        tau: null,
        final: mean(),
        low: mean() - REST_K,
        high: mean() + REST_K,
        to95S: 0,
        remaining: 0,
        why: '',
      }
    return {
      ...base,
      state: steady ? 'steady' : 'predicted',
      final: fit.final,
      low: fit.final - half,
      high: fit.final + half,
      to95S,
      remaining,
      why: '',
    }
  }
  const still = slope !== null && Math.abs(slope) <= STILL_KS && end - t[0]! >= WINDOW_S
  // without a curve only a slope that leaves nothing over a long window is steady
  if (still && Math.abs(remainingChange(slope, end - t[0]!)) <= REST_K)
    return {
      ...base,
      state: 'steady',
      final: mean(),
      low: mean() - REST_K,
      high: mean() + REST_K,
      to95S: 0,
      remaining: 0,
      why: '',
    }
  return { ...base, why: fit ? fit.why : 'it does not bend towards an end' }
}
