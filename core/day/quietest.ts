import type { CurvePoint } from '#core/control'
import { withControl } from './schools'
import type { DayModel } from './model'
import { mostLoad } from './propose'
import { runDay } from './run'
import type { DayStream } from './streams'

/** The quietest curve that keeps every part below its limit on the hottest day, found by search. */

export type Quietest =
  | {
      ok: true
      points: CurvePoint[]
      /** how far the nearest part stays below its limit on the hottest day, K */
      marginK: number
      /** the level of that day and of the usual one, dB(A) */
      hotDbA: number
      usualDbA: number
      tried: number
    }
  | { ok: false; reason: string; tried: number }

/** Kept free below every limit, K: what nobody measured may be off. */
const MARGIN_K = 2
/** Starts and ends of the curve that are tried, K below the limit, and lowest duties. */
const STARTS_K = [30, 25, 20, 16, 12, 9, 7]
const ENDS_K = [12, 9, 6, 4, 2]
const LOWEST = 6

/**
 * @param onTry called with how many were tried of how many; returning true ends the search
 * @returns the reason where there is none: no part with a limit, a sensed part that has none, or no curve that holds
 * @param index of the group that is meant
 */
export function quietestCurve(
  model: DayModel,
  index: number,
  streams: readonly DayStream[],
  onTry?: (done: number, of: number) => boolean,
): Quietest {
  const group = model.groups[index]!
  const sensed = model.parts[group.sensed]
  if (!sensed || sensed.limitC === null)
    return {
      ok: false,
      tried: 0,
      reason: 'The part that is sensed has no limit: tell the one it must stay below.',
    }
  const limit = sensed.limitC
  const min = group.settings?.minDuty ?? 0
  const cap = group.settings?.capDuty ?? 1
  const judged = (points: CurvePoint[]) => {
    const control = { ...group.control, school: 'curve' as const, points }
    const made = withControl(model, index, control, streams)
    if (made.groups[index]!.problem) return null
    const hot = runDay(made, 'hot').summary
    const margins = model.parts.flatMap((p, i) => (p.limitC === null ? [] : [p.limitC - hot.peakC[i]!]))
    return { made, hot, marginK: Math.min(...margins) }
  }
  const full = judged([
    { temperatureC: limit - 60, duty: cap },
    { temperatureC: limit, duty: cap },
  ])
  if (!full || full.marginK < 0) {
    const over = full ? -full.marginK : 0
    const day = `${mostLoad(model).toFixed(0)} W, up to ${model.weather.hot.highC.toFixed(0)} °C`
    const reason =
      `No curve can: even at ${(100 * cap).toFixed(0)} % all day a part passes its limit by ${over.toFixed(1)} K ` +
      `on the hottest day (${day}). More air, less heat, or a cooler place.`
    return { ok: false, tried: 1, reason }
  }
  const lowest = Array.from({ length: LOWEST }, (_, i) => min + ((cap - min) * i) / LOWEST)
  const tries = STARTS_K.flatMap((start) =>
    ENDS_K.filter((end) => end < start).flatMap((end) => lowest.map((low) => ({ start, end, low }))),
  )
  let best: { points: CurvePoint[]; marginK: number; hotDbA: number; made: DayModel } | null = null
  let tried = 1
  for (const { start, end, low } of tries) {
    const points = [
      { temperatureC: limit - start, duty: low },
      { temperatureC: limit - end, duty: cap },
    ]
    const row = judged(points)
    tried++
    if (onTry?.(tried, tries.length + 1)) return { ok: false, tried, reason: 'Stopped.' }
    if (!row || row.marginK < MARGIN_K) continue
    if (!best || row.hot.leqDbA < best.hotDbA)
      best = { points, marginK: row.marginK, hotDbA: row.hot.leqDbA, made: row.made }
  }
  if (!best) {
    const reason =
      `Full speed all day stays ${full.marginK.toFixed(1)} K below the limit, but no curve keeps the ${MARGIN_K} K ` +
      'that are left for doubt: drive them at full speed, or find more air.'
    return { ok: false, tried, reason }
  }
  return {
    ok: true,
    points: best.points,
    marginK: best.marginK,
    hotDbA: best.hotDbA,
    usualDbA: runDay(best.made, 'usual').summary.leqDbA,
    tried,
  }
}
/** Steps of a curve that will be heard: a jump of so many dB between two neighbouring points at most a few kelvin apart. */
const HEARD_DB = 3
const NEAR_K = 3
/**
 * Points at which the sound jumps: 3 dB within 3 K are heard as a step.
 * @param levelAt dB(A) at a duty 0..1
 * Reference: just noticeable level change in everyday sound, common practice
 */
export function heardSteps(points: readonly CurvePoint[], levelAt: (duty: number) => number): number[] {
  return points.flatMap((p, i) => {
    const before = points[i - 1]
    if (!before || p.temperatureC - before.temperatureC > NEAR_K) return []
    const [a, b] = [levelAt(before.duty), levelAt(p.duty)]
    return b - (Number.isFinite(a) ? a : 0) >= HEARD_DB ? [i] : []
  })
}
