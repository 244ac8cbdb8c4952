import { loadsOf, type FeedReport } from '#core/supply'
import { DAY_S } from '#core/control'
import { batterySource, type StreamPlan } from '#core/document'
import type { Figure } from '#core/figure'
import { usesWire } from './controls'
import { failuresOf, type Failure } from './failures'
import { dayFigures } from './figures'
import { modelSteps, type DayModel } from './model'
import { runDay, weekSteps, type DaySummary } from './run'
import { hotParts } from './schools'
import type { DayStream } from './streams'

/** What the day says of a plan: the model, its usual and its hottest day in figures. */
export interface DayReport {
  model: DayModel
  usual: DaySummary
  hot: DaySummary
  /** parts that pass their limit on the hottest day */
  tooHot: string[]
  /** lowest charge of the planned week, 0..1; null without a battery that tells its capacity */
  greyest: number | null
  failures: Failure[][]
  figures: Figure[]
}

/** Somebody planned a day or a control. */
export const planned = ({ controls, day }: StreamPlan): boolean => controls.length > 0 || day !== null

/** Days that were run, by what they were run from: typing elsewhere does not run them again. */
type Days = Pick<DayReport, 'usual' | 'hot' | 'greyest'>
const kept = new Map<string, Days>()
const MOST_KEPT = 8
function* daySteps(model: DayModel): Generator<void, Days> {
  const key = JSON.stringify(model)
  const known = kept.get(key)
  if (known) return known
  const usual = runDay(model, 'usual').summary
  yield
  const hot = runDay(model, 'hot').summary
  yield
  const made = { usual, hot, greyest: yield* greyestSteps(model) }
  if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!)
  kept.set(key, made)
  return made
}

function* greyestSteps(model: DayModel): Generator<void, number | null> {
  if (!model.store?.usableJ) return null
  const week = yield* weekSteps(model)
  return Math.min(...week.map((d) => d.summary.lowestCharge ?? 1))
}

/** The day of a plan, in steps; null where none was planned, or nothing runs. */
export function* dayReportSteps(
  plan: StreamPlan,
  streams: readonly DayStream[],
): Generator<void, DayReport | null> {
  if (!planned(plan) || !streams.some((s) => s.system.fanArray !== null)) return null
  const model = yield* modelSteps(plan, streams)
  const { usual, hot, greyest } = yield* daySteps(model)
  return {
    model,
    usual,
    hot,
    greyest,
    tooHot: hotParts(model, hot),
    failures: model.groups.map((g) => failuresOf(g.control, plan)),
    figures: dayFigures(model, usual, hot),
  }
}

/**
 * Share of the full load that a usual day draws in the mean, 0..1; null where no control was planned, or nothing is drawn.
 */
export function loadShare(
  { usual }: DayReport,
  feed: FeedReport,
  { controls, sources }: StreamPlan,
): number | null {
  const source = batterySource({ sources })
  const { loadRunA } = loadsOf(feed, source)
  const fullW = (loadRunA ?? 0) * (source?.nominalV ?? 0)
  if (!controls.length || usual.drawnJ === null || !(fullW > 0)) return null
  return Math.min(1, usual.drawnJ / (fullW * DAY_S))
}

/** What a control gives the fans of a stream over its usual and hottest day. */
export interface DriveRange {
  /** on the PWM wire; else it is the voltage that changes */
  byWire: boolean
  lowDuty: number
  highDuty: number
  /** at the fans, V; the same where the wire is steered */
  lowV: number
  highV: number
  /** a kick at start, duty 0..1; null without */
  kickDuty: number | null
}
/** The same of a stream; null without a planned control, or where its fans never run. @param driveV V */
export function driveRange(day: DayReport, plan: StreamPlan, driveV: number): DriveRange | null {
  const index = day.model.groups.findIndex((g) => g.streams.includes(plan.stream))
  const group = day.model.groups[index]
  if (!group || !plan.controls.includes(group.control)) return null
  const days = [day.usual, day.hot].map((d) => d.groups[index]!).filter((g) => g.highDuty > 0)
  if (!days.length) return null
  const lowDuty = Math.min(...days.map((d) => d.lowDuty))
  const highDuty = Math.max(...days.map((d) => d.highDuty))
  const byWire = usesWire(group.control, plan)
  const kicks = (group.control.kickS ?? 0) > 0
  return {
    byWire,
    lowDuty,
    highDuty,
    lowV: byWire ? driveV : lowDuty * driveV,
    highV: byWire ? driveV : highDuty * driveV,
    kickDuty: kicks ? (group.control.kickDuty ?? 1) : null,
  }
}

/** Hours a day that the fans of a stream run: of the planned usual day, else as the Brief says. */
export function hoursOnOf(day: DayReport | null, { controls, job, stream }: StreamPlan): number {
  const group = day?.model.groups.findIndex((g) => g.streams.includes(stream)) ?? -1
  return day && controls.length && group >= 0 ? day.usual.groups[group]!.onS / 3600 : job.hoursPerDay
}
