import type { ControlSettings, ThermalLink } from '#core/control'
import {
  dayKinds,
  streamName,
  type Control,
  type Day,
  type DayKind,
  type Job,
  type LoadStep,
  type StreamPlan,
} from '#core/document'
import { atOnce } from '#core/numeric'
import { controlsOf, settled, USUAL } from './controls'
import { heatOf, type DayPart } from './heat'
import { storeOf, type DayStore } from './store'
import type { DayStream } from './streams'
import { plannedDuty, tableSteps, type DutyTable } from './tables'
import { weatherOf, weekOf, type DayWeather } from './weather'

/**
 * The machine as its days are simulated: parts, fans over their duty, controls, weather, load. Plain data, so that a
 * worker can be handed it.
 */
export interface DayModel {
  /** nobody told the load over the day: that of the Need stands in, all day */
  loadAssumed: boolean
  parts: DayPart[]
  links: ThermalLink[]
  exponent: number
  groups: ModelGroup[]
  weather: Record<DayKind, DayWeather>
  loads: LoadStep[]
  idleW: number
  light: { fromS: number; toS: number }
  night: { fromS: number; toS: number }
  job: Job
  pressurePa: number
  store: DayStore | null
  week: { kind: DayKind; works: boolean }[]
  /** parts that cannot be counted yet */
  incomplete: { id: string; name: string; wants: string }[]
}

/** Fans that one control steers. */
export interface ModelGroup {
  control: Control
  name: string
  streams: string[]
  table: DutyTable
  /** duty and flow as the plan drives them */
  planned: number
  referenceM3s: number
  /** the control as it is stepped; null: it cannot be yet */
  settings: ControlSettings | null
  problem: { key: keyof Control; message: string } | null
  /** part that is sensed; −1: the air around */
  sensed: number
  sensorLagS: number
  lagAssumed: boolean
}

/** Night where nobody said. Common practice, no source. */
const NIGHT = { fromS: 22 * 3600, toS: 6 * 3600 }
const LIGHT = { fromS: 7 * 3600, toS: 19 * 3600 }
/** Flow exponent of a part's conductance: turbulent air along it. Handbook heat 1 (common practice). */
const EXPONENT = 0.8

const named = (control: Control, streams: readonly DayStream[], several: boolean) =>
  control.name || (several ? streams.map((s) => streamName(s.plan)).join(', ') : 'Fans')

/** The air streams that a control steers. */
const steered = (control: Control, all: readonly DayStream[]) =>
  all.filter((s) => control.streamIds.includes(s.plan.stream))

/** A control with what it steers and looks at. @param table of these streams, where it is known */
export function groupOf(
  control: Control,
  all: readonly DayStream[],
  parts: readonly DayPart[],
  table: DutyTable | null = null,
): ModelGroup {
  const streams = steered(control, all)
  const planned = plannedDuty(streams, control)
  const made = table ?? atOnce(tableSteps(streams, control))
  const set = settled(control, streams, planned)
  const own = parts.findIndex((p) => p.id === control.sensedId)
  const lag = control.sensorLagS
  return {
    control,
    name: named(control, streams, all.length > 1),
    streams: streams.map((s) => s.plan.stream),
    table: made,
    planned,
    referenceM3s: made.flowM3s[Math.round(planned * (made.flowM3s.length - 1))] ?? 0,
    settings: set.ok ? set.settings : null,
    problem: set.ok ? null : { key: set.key, message: set.message },
    sensed: own >= 0 ? own : parts.length ? 0 : -1,
    sensorLagS: lag ?? USUAL.sensorLagS,
    lagAssumed: lag === null,
  }
}

/** The load that the plan itself speaks of, all day: what stands in until somebody tells the day. */
const ownLoad = (job: Job): number => job.heatW ?? 0

/** The model of a plan. @param streams one entry an air stream, the first one first */
export const dayModel = (plan: StreamPlan, streams: readonly DayStream[]): DayModel =>
  atOnce(modelSteps(plan, streams))

/** The same in steps. */
export function* modelSteps(plan: StreamPlan, streams: readonly DayStream[]): Generator<void, DayModel> {
  const day: Day | null = plan.day
  const { job } = plan
  const exponent = day?.exponent ?? EXPONENT
  const controls = controlsOf(plan, streams)
  const bare: ModelGroup[] = []
  for (const c of controls) bare.push(groupOf(c, streams, [], yield* tableSteps(steered(c, streams), c)))
  const index = (streamId: string) => bare.findIndex((g) => g.streams.includes(streamId))
  const heat = heatOf(
    plan,
    day,
    streams,
    index,
    bare.map((g) => g.referenceM3s),
    exponent,
  )
  const groups = controls.map((c, i) => groupOf(c, streams, heat.parts, bare[i]!.table))
  const range = (fromS: number | null, toS: number | null, usual: typeof NIGHT) => ({
    fromS: fromS ?? usual.fromS,
    toS: toS ?? usual.toS,
  })
  return {
    loadAssumed: !day?.loads.length && (day?.idleW ?? null) === null,
    parts: heat.parts,
    links: heat.links,
    exponent,
    groups,
    weather: Object.fromEntries(dayKinds.map((k) => [k, weatherOf(job, day, k)])) as DayModel['weather'],
    loads: day?.loads ?? [],
    idleW: day?.idleW ?? (day?.loads.length ? 0 : ownLoad(job)),
    light: range(day?.lightFromS ?? null, day?.lightToS ?? null, LIGHT),
    night: range(day?.nightFromS ?? null, day?.nightToS ?? null, NIGHT),
    job,
    pressurePa: streams[0]!.system.air.pressurePa,
    store: storeOf(plan, streams[0] ?? null),
    week: weekOf(day),
    incomplete: heat.incomplete,
  }
}
