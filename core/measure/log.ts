import type { Channel } from './channel'

/** A log in memory: times in s from its start, rising, and a column for each channel; NaN is a gap. SI units. */
export interface LogChannel extends Channel {
  values: Float64Array
}
export interface LogData {
  times: Float64Array
  channels: LogChannel[]
}

/**
 * Rows between two times.
 * @param from index of the first
 * @param to index behind the last
 * Reference: a choice of ours
 */
export function logWindow(log: LogData, from: number, to: number): { start: number; end: number } {
  const at = (t: number) => {
    let [low, high] = [0, log.times.length]
    while (low < high) {
      const mid = (low + high) >> 1
      if (log.times[mid]! < t) low = mid + 1
      else high = mid
    }
    return low
  }
  return { start: at(from), end: Math.max(at(from), at(to) + (log.times[at(to)] === to ? 1 : 0)) }
}

/** What a channel did over a window; null where it has no value there. */
export interface WindowSummary {
  n: number
  mean: number
  low: number
  high: number
  last: number
  sd: number
}
/**
 * What a log holds in a few numbers.
 * @param values in any one unit
 * @param start index of the first
 * Reference: a choice of ours
 */
export function summarise(values: Float64Array, start = 0, end = values.length): WindowSummary | null {
  let [n, sum, low, high, last] = [0, 0, Infinity, -Infinity, NaN]
  for (let i = start; i < end; i++) {
    const v = values[i]!
    if (Number.isNaN(v)) continue
    n++
    sum += v
    if (v < low) low = v
    if (v > high) high = v
    last = v
  }
  if (!n) return null
  const mean = sum / n
  let squares = 0
  for (let i = start; i < end; i++) if (!Number.isNaN(values[i]!)) squares += (values[i]! - mean) ** 2
  return { n, mean, low, high, last, sd: n > 1 ? Math.sqrt(squares / (n - 1)) : 0 }
}

/**
 * Usual step between rows, s: the median of up to a thousand of them; null for fewer than two rows.
 * @param times s, rising
 * Reference: a choice of ours
 */
export function usualStep(times: Float64Array): number | null {
  const n = times.length - 1
  if (n < 1) return null
  const take = Math.min(n, 1000)
  const steps = Array.from({ length: take }, (_, k) => {
    const i = Math.floor((k * n) / take)
    return times[i + 1]! - times[i]!
  }).sort((a, b) => a - b)
  return steps[take >> 1]!
}
/** A silence longer than this many usual steps is a gap. A choice of ours. */
const GAP_STEPS = 3.5
export interface Gap {
  from: number
  to: number
}
/**
 * Silences of a log. @param most how many are listed at most, the longest first
 * @param times s, rising
 * Reference: a choice of ours
 */
export function gapsOf(times: Float64Array, most = 100): Gap[] {
  const step = usualStep(times)
  if (step === null || step <= 0) return []
  const gaps: Gap[] = []
  for (let i = 1; i < times.length; i++)
    if (times[i]! - times[i - 1]! > GAP_STEPS * step) gaps.push({ from: times[i - 1]!, to: times[i]! })
  return gaps.toSorted((a, b) => b.to - b.from - (a.to - a.from)).slice(0, most)
}

/** A fan that turned and turns no more although it is fed. */
export interface TachLoss {
  at: number
  /** s, until it turned again or the log ended */ lasted: number
}
/**
 * It turned above the first, stands below the second (rpm), for at least this long (s), at more than this voltage.
 * Common practice, no source.
 */
export const TACH = { turning: 200, standing: 60, forS: 3, fedV: 2 } as const
/**
 * Losses of speed: the reading falls to nothing, or stops coming, while the supply is on.
 * @param volts of the fan or null where it is not logged
 * @param times s, rising
 * @param rpm rpm, 0 or more
 * Reference: a choice of ours
 */
export function tachLosses(times: Float64Array, rpm: Float64Array, volts: Float64Array | null): TachLoss[] {
  const losses: TachLoss[] = []
  let turned = false
  let from = -1
  const close = (i: number) => {
    if (from >= 0 && times[i]! - times[from]! >= TACH.forS)
      losses.push({ at: times[from]!, lasted: times[i]! - times[from]! })
    from = -1
  }
  for (let i = 0; i < times.length; i++) {
    const v = rpm[i]!
    const unfed = volts !== null && volts[i]! <= TACH.fedV
    if (unfed) turned = false
    if (v > TACH.turning) turned = true
    const stands = turned && !unfed && (Number.isNaN(v) || v < TACH.standing)
    if (stands && from < 0) from = i
    else if (!stands) close(i)
  }
  if (times.length) close(times.length - 1)
  return losses
}
