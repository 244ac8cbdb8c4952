import { schoolKinds, type Control, type StreamPlan, type School, blowsOf } from '#core/document'
import { fanAirC } from '#core/system'
import { failuresOf, type Failure } from './failures'
import { bearingYears, contactYears } from './life'
import { groupOf, type DayModel } from './model'
import { possible, proposed } from './propose'
import { runDay, type DaySummary } from './run'
import type { DayStream } from './streams'

/** The schools of control side by side, each set as it would be for this job and run through its days. */

export interface SchoolRow {
  school: School
  /** the one that the plan has */
  taken: boolean
  control: Control
  /** why it cannot be run; '' where it can */
  problem: string
  hot: DaySummary | null
  usual: DaySummary | null
  /** parts that pass their limit on the hottest day */
  tooHot: string[]
  contact: { years: number; assumed: boolean } | null
  bearing: { low: number; high: number } | null
  failures: Failure[]
}

/**
 * The model with one of its groups under another control.
 * @param index of the group that is meant
 */
export function withControl(
  model: DayModel,
  index: number,
  control: Control,
  streams: readonly DayStream[],
): DayModel {
  const groups = model.groups.map((g, i) =>
    i === index ? groupOf(control, streams, model.parts, sameDrive(g.control, control) ? g.table : null) : g,
  )
  return { ...model, groups }
}
const sameDrive = (a: Control, b: Control) => a.actuator === b.actuator

/** Names of the parts that pass their limit. */
export const hotParts = ({ parts }: DayModel, { peakC }: DaySummary): string[] =>
  parts.filter((p, i) => p.limitC !== null && peakC[i]! > p.limitC).map((p) => p.name)

/** Steps in which a proposal is made to bring more air, until no part is too hot. */
const DUTY_STEP = 0.05
const TIMER_STEP_S = 600
/** The same with a little more air; null where it brings all that it can. */
function moreAir(c: Control, planned: number): Control | null {
  if (c.school === 'slow') {
    const quietDuty = Math.min(planned, Math.round(100 * (c.quietDuty! + DUTY_STEP)) / 100)
    return c.quietDuty! < planned ? { ...c, quietDuty } : null
  }
  const timerOnS = Math.min(c.timerEveryS!, c.timerOnS! + TIMER_STEP_S)
  return c.timerOnS! < c.timerEveryS! ? { ...c, timerOnS } : null
}
/** A proposal that lets a part get too hot brings more air, where it can: slower ones faster, timers longer. */
function tuned(control: Control, model: DayModel, index: number, streams: readonly DayStream[]): Control {
  const own = model.groups[index]!
  if (control === own.control || (control.school !== 'slow' && control.school !== 'timer')) return control
  let at = control
  for (;;) {
    const made = withControl(model, index, at, streams)
    const next = moreAir(at, own.planned)
    if (!next || made.groups[index]!.problem || !hotParts(made, runDay(made, 'hot').summary).length) return at
    at = next
  }
}

/**
 * A row of one school.
 * @param index of the group that is meant
 */
export function schoolRow(
  school: School,
  plan: StreamPlan,
  model: DayModel,
  index: number,
  streams: readonly DayStream[],
): SchoolRow {
  const group = model.groups[index]!
  const mine = streams.filter((s) => group.streams.includes(s.plan.stream))
  const control = tuned(proposed(school, model, index, mine), model, index, streams)
  const made = withControl(model, index, control, streams)
  const { problem } = made.groups[index]!
  const base = { school, taken: group.control.school === school, control, failures: failuresOf(control, plan) }
  if (problem)
    return {
      ...base,
      problem: problem.message,
      hot: null,
      usual: null,
      tooHot: [],
      contact: null,
      bearing: null,
    }
  const hot = runDay(made, 'hot').summary
  const usual = runDay(made, 'usual').summary
  const { onS, starts } = usual.groups[index]!
  const [home] = mine
  const airC = home
    ? (fanAirC(home.plan.job, blowsOf(home.plan), null, home.operation.delivered.flow, home.system.air) ??
      model.weather.hot.highC)
    : model.weather.hot.highC
  return {
    ...base,
    problem: '',
    hot,
    usual,
    tooHot: hotParts(made, hot),
    contact: contactYears(control, starts),
    bearing: bearingYears(mine, onS, airC),
  }
}

/**
 * All schools that can be had, in their usual order.
 * @param onRow called with each row as it is ready
 * @param index of the group that is meant
 */
export function compareSchools(
  plan: StreamPlan,
  model: DayModel,
  index: number,
  streams: readonly DayStream[],
  onRow?: (row: SchoolRow) => void,
): SchoolRow[] {
  const { control } = model.groups[index]!
  const rows = schoolKinds
    .filter((s) => possible(s, streams, control))
    .map((s) => {
      const row = schoolRow(s, plan, model, index, streams)
      onRow?.(row)
      return row
    })
  return rows
}
