import { newControlOf, sourceOf, type Control, type School } from '#core/document'
import type { DayModel, ModelGroup } from './model'
import { loadOf } from './weather'
import { settled, usesWire, usualLimits } from './controls'
import type { DayStream } from './streams'

/** How each school would be set for this job: what the comparison is made with where nobody set it yet. */

/** Kept below a limit, K; between on and off at least; above the warmest air that the fan can bring it to. Common practice. */
const BELOW_LIMIT_K = 5
const LEAST_BAND_K = 5
const ABOVE_FLOOR_K = 2
/** A part without a limit is let get so much warmer than the hottest air, K. Common practice, no source. */
const USUAL_RISE_K = 20
const HOUR_S = 3600
const TIMER_STEP_S = 300
/** Share of the flow at full drive that a quiet level is taken at where nothing says how low it may go. */
const QUIET_SHARE = 0.5

export interface Thresholds {
  onC: number
  offC: number
  /** why there is none, in words; '' where there is room */
  problem: string
}

/** The most load of a day, W. */
export const mostLoad = ({ loads, idleW }: DayModel): number => Math.max(idleW, ...loads.map((l) => l.watts))

/**
 * Where a thermostat may switch: on below the limit less what the sensor's lag lets through, off above what the fan can
 * bring the part to on the hottest day.
 * Reference: handbook control 3
 */
export function thresholdsFor(model: DayModel, group: ModelGroup): Thresholds {
  const part = model.parts[group.sensed]
  const hottest = hottestOf(model)
  if (!part) return { onC: hottest - 2, offC: hottest - 2 - LEAST_BAND_K, problem: '' }
  const heat = mostLoad(model) * part.loadShare
  const limit = part.limitC ?? hottest + USUAL_RISE_K
  const overshoot = (heat / part.capacityJK) * group.sensorLagS
  const onC = Math.floor(limit - overshoot - BELOW_LIMIT_K)
  const floor = hottest + heat / part.movedWK + ABOVE_FLOOR_K
  const offC = Math.max(Math.ceil(floor), onC - 2 * LEAST_BAND_K)
  const problem =
    onC - offC >= LEAST_BAND_K
      ? ''
      : 'On the hottest day the fans bring it hardly below its limit: between on and off there is no room.'
  return { onC, offC: problem ? onC - LEAST_BAND_K : offC, problem }
}
const hottestOf = ({ weather }: DayModel) => Math.max(weather.hot.highC, weather.usual.highC)

/** Duty that gives a share of the planned flow. */
function dutyForFlow(group: ModelGroup, share: number): number {
  const { flowM3s } = group.table
  const wanted = share * group.referenceM3s
  const at = flowM3s.findIndex((q) => q >= wanted)
  return at <= 0 ? group.planned : at / (flowM3s.length - 1)
}

/**
 * Slowest duty at which every part of the group settles below its limit in a given air, with a given load.
 * @param index of the group that is meant
 */
export function slowestDuty(model: DayModel, index: number, loadW: number, airC: number): number | null {
  const group = model.groups[index]!
  const { flowM3s } = group.table
  const parts = model.parts.filter((p) => p.group === index)
  for (let i = 1; i < flowM3s.length; i++) {
    const moved = group.referenceM3s > 0 ? (flowM3s[i]! / group.referenceM3s) ** model.exponent : 0
    const holds = parts.every((p) => {
      const g = p.stillWK + (p.movedWK - p.stillWK) * moved
      return p.limitC === null || airC + (loadW * p.loadShare) / g <= p.limitC
    })
    if (flowM3s[i]! > 0 && holds) return i / (flowM3s.length - 1)
  }
  return null
}

/** Whether a part of the group has a limit: else the need's airflow is what is to be kept. */
const limited = (model: DayModel, index: number) =>
  model.parts.some((p) => p.group === index && p.limitC !== null)

/** What the need is of what they move, 0..1: share of the time that a timer runs. */
function needShare(streams: readonly DayStream[]): number {
  const shares = streams.flatMap(({ requirement, operation: { delivered } }) =>
    requirement.flow !== null && delivered.flow ? [requirement.flow / delivered.flow] : [],
  )
  return shares.length ? Math.min(1, Math.max(...shares)) : 0.25
}

/**
 * A control of a school as it would be set for this job. What the person set of that school already stays.
 * @param streams those that it steers
 * @param index of the group that is meant
 */
export function proposed(
  school: School,
  model: DayModel,
  index: number,
  streams: readonly DayStream[],
): Control {
  const group = model.groups[index]!
  const own = group.control
  if (own.school === school && settled(own, streams, group.planned).ok) return own
  const base: Control = {
    ...newControlOf(own.id, school, own.streamIds),
    name: own.name,
    actuator: own.actuator,
    sensedId: own.sensedId,
    sensorLagS: own.sensorLagS,
    sense: own.sense === 'temperature' || school === 'thermostat' ? own.sense : 'temperature',
    minDuty: own.minDuty,
    startDuty: own.startDuty,
    onFault: own.onFault,
  }
  const usual = usualLimits(streams, own)
  const least = own.minDuty ?? usual.min
  const starts = Math.max(least, own.startDuty ?? usual.start)
  const hot = hottestOf(model)
  const quiet = Math.max(
    least,
    slowestDuty(model, index, loadOf(model.loads, model.idleW)(0), hot) ?? dutyForFlow(group, QUIET_SHARE),
  )
  switch (school) {
    case 'always':
      return base
    case 'slow': {
      const held = slowestDuty(model, index, mostLoad(model), hot) ?? group.planned
      const needed = limited(model, index) ? 0 : dutyForFlow(group, needShare(streams))
      return { ...base, quietDuty: Math.min(group.planned, Math.max(starts, held, needed)) }
    }
    case 'timer': {
      const on = Math.ceil((needShare(streams) * HOUR_S) / TIMER_STEP_S) * TIMER_STEP_S
      return { ...base, timerOnS: on, timerEveryS: HOUR_S }
    }
    case 'thermostat': {
      if (base.sense === 'humidity') return { ...base, onRh: 0.65, offRh: 0.55 }
      const { onC, offC } = thresholdsFor(model, group)
      return { ...base, onC, offC }
    }
    case 'curve':
    case 'host':
      return { ...base, ...proposedCurve(model, group, quiet) }
    case 'boost':
      return { ...base, quietDuty: quiet, runOnS: 600 }
    case 'tool':
      return { ...base, runOnS: 600 }
  }
}

/** A curve from quiet where it is cool to full below the limit. */
function proposedCurve(model: DayModel, group: ModelGroup, quiet: number): Partial<Control> {
  const { onC, offC } = thresholdsFor(model, group)
  const full = group.planned
  const low = Math.min(quiet, full)
  return {
    points: [
      { temperatureC: offC, duty: low },
      { temperatureC: Math.max(onC, offC + 1), duty: Math.max(low, full) },
    ],
    fanStop: false,
  }
}
/** Whether a school can be had with these fans: a host's header only where there is one. */
export const possible = (school: School, streams: readonly DayStream[], control: Control): boolean =>
  school !== 'host' ||
  control.school === 'host' ||
  streams.some(({ plan }) => sourceOf(plan)?.kind === 'header' || usesWire(control, plan))
