import { medianSorted } from 'simple-statistics'
import { meanOf, slopeOf, standardDeviation } from '#core/measure'
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
  const t = new Float64Array(times.length)
  const v = new Float64Array(times.length)
  const over = ambient !== null && !Number.isNaN(last)
  let n = 0
  for (let i = 0; i < times.length; i++) {
    const value = over ? values[i]! - ambient[i]! + last : values[i]!
    if (!Number.isFinite(value)) continue
    t[n] = times[i]!
    v[n++] = value
  }
  return { t: t.subarray(0, n), v: v.subarray(0, n) }
}

const MIN_READINGS = 8
const nothing: SoakReport = {
  state: 'rising',
  final: null,
  low: null,
  high: null,
  tau: null,
  to95S: null,
  remaining: null,
  slope: null,
  from: 0,
  changedAt: null,
  why: `fewer than ${MIN_READINGS} readings`,
  fit: null,
}

/** A record moves by more than its noise where its spread is this many times that of neighbours. A choice of ours. */
const MOVES = 1.5
/** Median of the size of a standard normal number. */
const NORMAL_MEDIAN = 0.6745
/** So many pairs of neighbours, from all over a record, tell its noise. */
const PAIRS = 5000
/** Whether a record does anything but scatter: its spread against the noise from reading to reading. */
function moves(v: Float64Array): boolean {
  const pairs = Math.min(PAIRS, v.length - 1)
  const each = (v.length - 1) / pairs
  const at = (i: number) => Math.floor(i * each)
  // a list of doubles sorts by number, and many times faster than one with a comparison
  const steps = Float64Array.from({ length: pairs }, (_, i) => Math.abs(v[at(i) + 1]! - v[at(i)]!)).sort()
  const noise = medianSorted(Array.from(steps)) / (NORMAL_MEDIAN * Math.SQRT2)
  return (standardDeviation(Array.from(v)) ?? 0) > MOVES * noise
}

/** The fit of the longest stretch up to now that one curve explains, and where it begins. */
function longestFit(t: Float64Array, v: Float64Array): { fit: RiseFit | null; begin: number } {
  const n = t.length
  const whole = fitRise(t, v)
  // what only scatters has not changed on the way, wherever a curve could be laid through its noise
  if (!moves(v)) return { fit: whole, begin: 0 }
  for (const share of BEGINS) {
    const begin = Math.floor(share * n)
    if (n - begin < MIN_READINGS) break
    const [times, values] = [t.subarray(begin), v.subarray(begin)]
    const fit = share === 0 ? whole : fitRise(times, values)
    if (fit && fit.why !== 'something changed on the way' && !oneSided(times, values, fit))
      return { fit, begin }
  }
  return { fit: whole, begin: 0 }
}

/** Mean of the last tenth, at least eight readings. */
function lastMean(v: Float64Array): number {
  const from = Math.max(0, v.length - Math.max(MIN_READINGS, Math.round(0.1 * v.length)))
  return meanOf([...v.subarray(from)])
}

/** What stands: the mean of the last readings, and no more to come. */
function steadyReport(base: SoakReport, v: Float64Array): SoakReport {
  const final = lastMean(v)
  return {
    ...base,
    state: 'steady',
    final,
    low: final - REST_K,
    high: final + REST_K,
    to95S: 0,
    remaining: 0,
    why: '',
  }
}

/** What a trusted curve says. @param sinceS from where the fit begins to the last reading */
function fittedReport(base: SoakReport, fit: RiseFit, v: Float64Array, sinceS: number): SoakReport {
  const last = temperatureAt(fit.final + fit.amplitude, fit.final, fit.tau, sinceS)
  const remaining = fit.final - last
  const done = Math.abs(fit.amplitude)
  // three time constants have passed, or there was hardly anything to come from where the fit begins
  const flat = done <= REST_K && sinceS >= WINDOW_S
  const steady = Math.abs(remaining) <= REST_K && (flat || sinceS >= STEADY_TAU * fit.tau)
  if (flat && steady) return steadyReport({ ...base, changedAt: null, tau: null }, v)
  const half = Math.hypot(fit.halfWidth!, MODEL.share * remaining, MODEL.kelvin)
  return {
    ...base,
    state: steady ? 'steady' : 'predicted',
    final: fit.final,
    low: fit.final - half,
    high: fit.final + half,
    to95S: Math.max(0, fit.tau * Math.log(Math.abs(remaining) / ((1 - DONE) * done))),
    remaining,
    why: '',
  }
}

/**
 * Judges a warm-up (or cool-down).
 * @param times s, rising
 * @param values degC, NaN for gaps
 * @param ambient degC at the same times; null where it was not logged
 * Reference: docs/physics.md HT8 to HT12
 */
export function soakOf(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
  ambient: ArrayLike<number> | null = null,
): SoakReport {
  const { t, v } = usable(times, values, ambient)
  const n = t.length
  if (n < MIN_READINGS) return { ...nothing, from: t[0] ?? 0 }
  const { fit, begin } = longestFit(t, v)
  const [start, end] = [t[0]!, t[n - 1]!]
  const tau = fit?.trusted ? fit.tau : null
  const window =
    tau === null ? WINDOW_S : Math.min(WINDOW_S, Math.max(WINDOW_TAU * tau, (8 * (end - start)) / n))
  const slope = lastSlope(t, v, window)
  const from = t[begin]!
  const base = { ...nothing, slope, fit, tau, from, changedAt: begin > 0.05 * n ? from : null }
  const whole = slopeOf(t, v)
  const scatters = whole !== null && !moves(v) && Math.abs(remainingChange(whole, end - start)) <= REST_K
  if (scatters && end - start >= WINDOW_S) return steadyReport({ ...base, changedAt: null }, v)
  if (fit?.trusted) return fittedReport(base, fit, v, end - from)
  const still = slope !== null && Math.abs(slope) <= STILL_KS && end - start >= WINDOW_S
  // without a curve only a slope that leaves nothing over a long window is steady
  if (still && Math.abs(remainingChange(slope, end - start)) <= REST_K) return steadyReport(base, v)
  return { ...base, why: fit ? fit.why : 'it does not bend towards an end' }
}
