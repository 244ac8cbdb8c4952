import { cyclesPerHour, quietInterval, runOnAir, runOnHeat } from '#core/control'
import { thermostatCycle, thermostatState, type SwitchedPart } from '#core/heat'
import type { StreamPlan } from '#core/document'
import { CLEAR_SHARE, MIXING } from '#core/requirement'
import { failuresOf, type Failure } from './failures'
import { contactYears } from './life'
import type { DayModel } from './model'
import { mostLoad, slowestDuty, thresholdsFor, type Thresholds } from './propose'
import { runDay } from './run'
import type { DayStream } from './streams'

/** What the formulas say of a thermostat, a boost and a run-on, beside the simulated day. */

export interface ThermostatAdvice {
  state: 'never-on' | 'always-on' | 'cycles'
  onS: number | null
  offS: number | null
  perHour: number | null
  /** a cycle as long as it would be with a sensor that is not late, s */
  promptS: number | null
  /** how far past its thresholds the sensor's lag lets the part go, up and down, K */
  overK: number
  underK: number
  /** band that keeps it to so many starts an hour, K */
  bandK: number | null
}

/** Starts an hour that are hardly heard. Handbook CT9 (common practice). */
export const FEW_STARTS = 6
const BAND_STEP_K = 0.5
const WIDEST_K = 40

/** The part that a group senses, as one lumped part with its load at its highest; null where none is sensed. */
function switchedPart(model: DayModel, index: number, airC: number): SwitchedPart | null {
  const group = model.groups[index]!
  const part = model.parts[group.sensed]
  const law = group.settings?.law
  if (!part || part.group !== index || law?.kind !== 'thermostat' || group.control.sense !== 'temperature')
    return null
  return {
    heat: mostLoad(model) * part.loadShare,
    capacity: part.capacityJK,
    gOn: part.movedWK,
    gOff: part.stillWK,
    ambientC: airC,
    onC: law.onC,
    offC: law.offC,
  }
}

/**
 * What a thermostat does at its busiest, in a given air.
 * @param index of the group that is meant @param airC air around it, degC
 * Reference: handbook CT8, CT9; lag: control 3
 */
export function thermostatAdvice(model: DayModel, index: number, airC: number): ThermostatAdvice | null {
  const part = switchedPart(model, index, airC)
  if (!part) return null
  const { heat, capacity, gOn, gOff, onC, offC } = part
  const lag = model.groups[index]!.sensorLagS
  const rateUp = (heat - gOff * (onC - airC)) / capacity
  const rateDown = (gOn * (offC - airC) - heat) / capacity
  const overK = Math.max(0, rateUp * lag)
  const underK = Math.max(0, rateDown * lag)
  const state = thermostatState(part)
  const cycle = state === 'cycles' ? { ...part, onC: onC + overK, offC: offC - underK } : null
  const perHour = cycle && cyclesPerHour(cycle)
  let bandK: number | null = null
  if (perHour !== null && perHour > FEW_STARTS)
    for (let band = onC - offC; band <= WIDEST_K; band += BAND_STEP_K) {
      const wide = cyclesPerHour({ ...part, onC: onC + overK, offC: onC - band - underK })
      if (wide === null) break
      if (wide <= FEW_STARTS) {
        bandK = band
        break
      }
    }
  const times = cycle && thermostatCycle(cycle)
  const prompt = thermostatCycle(part)
  return {
    state,
    onS: times?.onS ?? null,
    offS: times?.offS ?? null,
    perHour,
    promptS: prompt && prompt.onS + prompt.offS,
    overK,
    underK,
    bandK,
  }
}

/** A series RC across a contact, as many use it for small DC fans: values that fit, from common practice. */
export const SNUBBER = { ohm: 100, farad: 0.1e-6 } as const
export interface QuietAdvice {
  /** slowest duty that holds for ever with the most load; null: none does */
  foreverDuty: number | null
  /** where the nearest part would settle at the quiet level with the most load, degC; null without parts */
  settlesC: number | null
  /** how long the quiet level holds from a cool start; null: for ever */
  holdsS: number | null
  part: string
  limitC: number
}
/**
 * How long the quiet level of a boost holds at the most load, from where it stands at no load.
 * @param index of the group that is meant @param quietDuty 0..1
 * Reference: handbook control 7
 */
export function quietAdvice(
  model: DayModel,
  index: number,
  quietDuty: number,
  airC: number,
): QuietAdvice | null {
  const group = model.groups[index]!
  const { flowM3s } = group.table
  const flow = flowM3s[Math.round(quietDuty * (flowM3s.length - 1))] ?? 0
  const moved = group.referenceM3s > 0 ? (flow / group.referenceM3s) ** model.exponent : 0
  const foreverDuty = slowestDuty(model, index, mostLoad(model), airC)
  const rows = model.parts.flatMap((p) => {
    if (p.group !== index || p.limitC === null) return []
    const g = p.stillWK + (p.movedWK - p.stillWK) * moved
    const settlesC = airC + (mostLoad(model) * p.loadShare) / g
    const fromC = airC + (model.idleW * p.loadShare) / g
    const tau = p.capacityJK / g
    const holdsS = quietInterval(tau, fromC, p.limitC, settlesC)
    return [{ settlesC, part: p.name, limitC: p.limitC, holdsS, foreverDuty }]
  })
  return rows.toSorted((a, b) => (a.holdsS ?? Infinity) - (b.holdsS ?? Infinity))[0] ?? null
}

export interface RunOnAdvice {
  seconds: number
  why: 'heat' | 'air'
}
const HARMLESS_K = 5
/**
 * How long the fans should run on after the work: until the hottest part has cooled to 5 K above the air, or until the
 * air has been thinned. null where neither can be told.
 * @param index of the group that is meant
 * Reference: handbook CT14
 */
export function runOnAdvice(model: DayModel, index: number, stream: DayStream | undefined): RunOnAdvice | null {
  const air = stream?.plan.job
  const flow = stream?.operation.delivered.flow
  if (air && flow && air.volumeM3 !== null && (air.goal === 'fume' || air.goal === 'ventilate'))
    return {
      seconds: runOnAir(air.volumeM3, flow, 1 / (air.mixing ?? MIXING), 1 / (air.clearShare ?? CLEAR_SHARE)),
      why: 'air',
    }
  const airC = model.weather.usual.highC
  const times = model.parts.flatMap((p) => {
    if (p.group !== index) return []
    const from = airC + (mostLoad(model) * p.loadShare) / p.movedWK
    const end = airC + (model.idleW * p.loadShare) / p.movedWK
    const time = runOnHeat(p.capacityJK / p.movedWK, from, Math.max(end + 0.1, airC + HARMLESS_K), end)
    return time === null ? [] : [time]
  })
  return times.length ? { seconds: Math.max(...times), why: 'heat' } : null
}

/** All that the formulas say of one control. */
export interface Advice {
  thermostat: ThermostatAdvice | null
  quiet: QuietAdvice | null
  runOn: RunOnAdvice | null
  /** where a thermostat may switch */
  thresholds: Thresholds
  /** contact life with what the usual day switches, years; null where nothing switches */
  contact: { years: number; assumed: boolean } | null
  failures: Failure[]
}
/** @param index of the group that is meant */
export function adviceOf(
  plan: StreamPlan,
  model: DayModel,
  index: number,
  streams: readonly DayStream[],
): Advice | null {
  const group = model.groups[index]
  if (!group) return null
  const { control } = group
  const airC = model.weather.usual.highC
  const stream = streams.find((s) => group.streams.includes(s.plan.stream))
  return {
    thermostat: thermostatAdvice(model, index, airC),
    quiet: control.school === 'boost' ? quietAdvice(model, index, control.quietDuty ?? 0, airC) : null,
    runOn: control.school === 'boost' || control.school === 'tool' ? runOnAdvice(model, index, stream) : null,
    thresholds: thresholdsFor(model, group),
    contact: contactYears(control, runDay(model, 'usual').summary.groups[index]!.starts),
    failures: failuresOf(control, plan),
  }
}
