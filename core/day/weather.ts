import { humidityRatio, saturationPressure } from '#core/air'
import { DAY_S, dayAmbient } from '#core/control'
import type { Day, DayKind, Job, LoadStep } from '#core/document'

/** The air, the load and the light of a day, as plain data: it is handed to workers. */

export interface DayWeather {
  lowC: number
  highC: number
  /** seconds after midnight */
  highestAtS: number
  /** point by point; a sine where there are fewer than two */
  points: { atS: number; temperatureC: number }[]
  /** nobody said it */
  assumed: boolean
}

/** Two hours after noon. Common practice, no source. */
const HIGHEST_AT_S = 14 * 3600
/** How far the room of an equipment swings over a day where nobody said, K to each side: a guess to be replaced. */
const SWING_K = 2
/** How much colder and hotter the coldest and hottest days are then, K: guesses to be replaced. */
const COLDER_K = 5
const HOTTER_K = 6

/** A day of a kind: typed, else around what the Brief knows. */
export function weatherOf(job: Job, day: Day | null, kind: DayKind): DayWeather {
  const middle = {
    cold: job.ambientC - COLDER_K,
    usual: job.ambientC,
    // the hottest of the Brief is a highest, not a mean; a hottest day is no cooler than a usual one
    hot: Math.max(job.ambientMaxC ?? job.ambientC + HOTTER_K, job.ambientC + SWING_K) - SWING_K,
  }[kind]
  const low = day?.[`${kind}LowC`] ?? null
  const high = day?.[`${kind}HighC`] ?? null
  const usual = { low: middle - SWING_K, high: middle + SWING_K }
  const lowC = low ?? Math.min(usual.low, high ?? usual.low)
  const notUnder = kind === 'hot' ? (day?.usualHighC ?? lowC) : lowC
  const highC = high ?? Math.max(usual.high, lowC, notUnder)
  const points = kind === 'usual' ? (day?.ambient ?? []) : []
  return {
    lowC,
    highC,
    highestAtS: day?.hottestAtS ?? HIGHEST_AT_S,
    points,
    assumed: points.length < 2 && (low === null || high === null),
  }
}

/** Temperature over a day, degC: straight between points and from the last to the first of the next day, else a sine. */
export function ambientOf({ points, lowC, highC, highestAtS }: DayWeather): (timeS: number) => number {
  if (points.length < 2) return dayAmbient(lowC, highC, highestAtS)
  const first = points[0]!
  const last = points.at(-1)!
  const round = [{ ...last, atS: last.atS - DAY_S }, ...points, { ...first, atS: first.atS + DAY_S }]
  let k = 0
  return (timeS) => {
    const t = ((timeS % DAY_S) + DAY_S) % DAY_S
    if (round[k]!.atS > t) k = 0
    while (k < round.length - 2 && round[k + 1]!.atS <= t) k++
    const [a, b] = [round[k]!, round[k + 1]!]
    return a.temperatureC + ((b.temperatureC - a.temperatureC) * (t - a.atS)) / (b.atS - a.atS)
  }
}

/**
 * Relative humidity over a day in which the air keeps its moisture, 0..1. Reference: psychrometrics (docs/physics.md)
 * @param ambient degC at a time, s @param pressurePa of the air, Pa
 */
export function humidityOf(
  ambient: (timeS: number) => number,
  job: Job,
  pressurePa: number,
): (timeS: number) => number {
  const w = humidityRatio(job.ambientC, job.humidity, pressurePa) ?? 0
  const vapour = (w * pressurePa) / (0.621945 + w)
  return (timeS) => Math.min(1, vapour / (saturationPressure(ambient(timeS)) ?? vapour))
}

const within = (t: number, from: number, to: number) => (from <= to ? t >= from && t < to : t >= from || t < to)
const ofDay = (timeS: number) => ((timeS % DAY_S) + DAY_S) % DAY_S

/** Load over a day, W: the steps that are on, the last one counting; between them what idles. */
export function loadOf(
  loads: readonly Pick<LoadStep, 'fromS' | 'toS' | 'watts'>[],
  idleW: number,
): (timeS: number) => number {
  return (timeS) => {
    const t = ofDay(timeS)
    for (let i = loads.length - 1; i >= 0; i--) {
      const { fromS, toS, watts } = loads[i]!
      if (within(t, fromS, toS)) return watts
    }
    return idleW
  }
}
/** Whether it is light. */
export const lightOf =
  (fromS: number, toS: number) =>
  (timeS: number): boolean =>
    within(ofDay(timeS), fromS, toS)

/** Sun over a day, a half sine between dawn and dusk whose whole is 1 day of it, per second. */
export function sunShape(fromS: number, toS: number): (timeS: number) => number {
  const length = toS - fromS
  return (timeS) => {
    const t = ofDay(timeS)
    if (!(length > 0) || t < fromS || t > toS) return 0
    return (Math.PI / (2 * length)) * Math.sin((Math.PI * (t - fromS)) / length)
  }
}

/** The kinds of the days that follow each other in a week, and whether each is worked. */
export const weekOf = (day: Day | null): { kind: DayKind; works: boolean }[] =>
  Array.from({ length: 7 }, (_, i) => ({
    kind: day?.week[i] ?? 'usual',
    works: !day?.restDays.includes(i),
  }))

/** A day of air from what was logged. */
export interface AmbientDay {
  points: { atS: number; temperatureC: number }[]
  /** half hours of which nothing was logged, and the longest time without, s: straight lines stand in */
  missing: number
  longestGapS: number
}
const HALF_HOUR_S = 1800
const HALF_HOURS = DAY_S / HALF_HOUR_S
/** Less than this of a day is no day. */
const LEAST_HALF_HOURS = 12

/**
 * Means of every half hour of a day from a log, which may be longer or shorter than one.
 * @param times s since it began @param values degC; NaN: none @param beganS s after midnight
 * @returns null where less than a quarter of the day was logged
 */
export function ambientDay(
  times: ArrayLike<number>,
  values: ArrayLike<number>,
  beganS: number,
): AmbientDay | null {
  const sums = new Float64Array(HALF_HOURS)
  const counts = new Float64Array(HALF_HOURS)
  for (let i = 0; i < times.length; i++) {
    const value = values[i]!
    if (!Number.isFinite(value)) continue
    const at = Math.floor(ofDay(beganS + times[i]!) / HALF_HOUR_S)
    sums[at] = sums[at]! + value
    counts[at] = counts[at]! + 1
  }
  const points = Array.from(sums, (sum, i) => ({
    atS: (i + 0.5) * HALF_HOUR_S,
    temperatureC: Math.round((100 * sum) / counts[i]!) / 100,
  })).filter((_, i) => counts[i]! > 0)
  if (points.length < LEAST_HALF_HOURS) return null
  const gaps = points.map((p, i) => {
    const next = points[(i + 1) % points.length]!
    return ofDay(next.atS - p.atS) - HALF_HOUR_S
  })
  return { points, missing: HALF_HOURS - points.length, longestGapS: Math.max(0, ...gaps) }
}
