import { curveDuty, type CurvePoint } from './curve'
import {
  atRest,
  filtered,
  heldTemperature,
  onOff,
  ramped,
  sensorFault,
  startStep,
  type StartLimits,
  type StartState,
} from './parts'

/**
 * One step of a control, in the handbook's order: read, validate, filter, hysteresis, curve or thresholds, limits, stop and
 * kick, ramp. A pure function of its state, so that the same one steers a simulated day and replays a log.
 */

/** What asks for air. */
export type ControlLaw =
  | { kind: 'fixed'; duty: number }
  | { kind: 'thermostat'; onC: number; offC: number; onDuty: number; restDuty: number }
  | { kind: 'curve'; points: readonly CurvePoint[]; hysteresisK: number }
  | { kind: 'timer'; onS: number; everyS: number; onDuty: number; restDuty: number }
  /** on demand: a load, a button, light; so long at most (null: as long as it is asked for), and a while after it */
  | { kind: 'demand'; mostS: number | null; runOnS: number; onDuty: number; restDuty: number }

export interface ControlSettings extends StartLimits {
  law: ControlLaw
  filterTauS: number
  /** a second; 0: at once */
  rampUpPerS: number
  rampDownPerS: number
  /** what the sensor can show, degC */
  sensorLowC: number
  sensorHighC: number
  /** duty while it cannot be believed, 0..1 */
  faultDuty: number
}

export interface ControlState {
  /** time since it began, s */
  timeS: number
  /** the last reading that was believed, degC, and when, s */
  readC: number | null
  readAtS: number
  filteredC: number | null
  heldC: number | null
  on: boolean
  /** how long it has been asked for, and since when it was not, s; before the first time Infinity */
  askedS: number
  unaskedS: number
  start: StartState
  /** it stood still or was kicked: the ramp begins anew */
  bypassed: boolean
  /** put out last, 0..1 */
  duty: number
}
export const newControl: ControlState = {
  timeS: 0,
  readC: null,
  readAtS: 0,
  filteredC: null,
  heldC: null,
  on: false,
  askedS: 0,
  unaskedS: Infinity,
  start: atRest,
  bypassed: true,
  duty: 0,
}

export interface ControlStep {
  state: ControlState
  /** 0..1 */
  duty: number
  /** the sensor could not be believed */
  fault: boolean
}

/** Whether a law of two states is in its upper one. */
function runsBy(
  law: Exclude<ControlLaw, { kind: 'fixed' | 'curve' }>,
  { on, timeS, askedS, unaskedS }: ControlState,
  temperatureC: number,
): boolean {
  if (law.kind === 'timer') return ((timeS % law.everyS) + law.everyS) % law.everyS < law.onS
  if (law.kind === 'thermostat') return onOff(on, temperatureC, law.onC, law.offC)
  return askedS > 0 ? law.mostS === null || askedS <= law.mostS : unaskedS <= law.runOnS
}
const blindLaws: ControlLaw['kind'][] = ['fixed', 'timer', 'demand']

/** The law's answer, and what it remembers. */
function asked(
  law: ControlLaw,
  state: ControlState,
  temperatureC: number,
): Pick<ControlState, 'heldC' | 'on'> & { target: number } {
  const { heldC } = state
  if (law.kind === 'fixed') return { heldC, on: true, target: law.duty }
  if (law.kind !== 'curve') {
    const runs = runsBy(law, state, temperatureC)
    return { heldC, on: runs, target: runs ? law.onDuty : law.restDuty }
  }
  const held = heldTemperature(heldC, temperatureC, law.hysteresisK)
  const target = curveDuty(law.points, held)
  return { heldC: held, on: target > 0, target }
}

/**
 * One step.
 * @param readingC what the sensor shows, degC; null: none came @param dtS s, above 0
 * @param demand whether air is asked for, where the law is one of demand
 * Reference: handbook control 2
 */
export function controlStep(
  settings: ControlSettings,
  was: ControlState,
  readingC: number | null,
  dtS: number,
  demand = false,
): ControlStep {
  const state = {
    ...was,
    askedS: demand ? was.askedS + dtS : 0,
    unaskedS: demand ? 0 : was.unaskedS + dtS,
  }
  const { law, sensorLowC, sensorHighC } = settings
  const blind = blindLaws.includes(law.kind)
  // a change is held against the time since the last good reading: a real one is believed soon
  const sinceS = state.timeS + dtS - state.readAtS
  const fault = !blind && sensorFault(readingC, sensorLowC, sensorHighC, state.readC, sinceS)
  const filteredC =
    fault || readingC === null ? state.filteredC : filtered(state.filteredC, readingC, settings.filterTauS, dtS)
  const wish =
    fault || (!blind && filteredC === null)
      ? { heldC: state.heldC, on: state.on, target: settings.faultDuty }
      : asked(law, state, filteredC ?? 0)
  const next = startStep(state.start, wish.target, settings, dtS)
  // from rest, and after a kick, the ramp begins at what starts the fan
  const from = state.bypassed ? settings.startDuty : state.duty
  const free = (rate: number) => (rate > 0 ? rate : Infinity)
  const duty = next.bypass
    ? next.duty
    : ramped(from, next.duty, free(settings.rampUpPerS), free(settings.rampDownPerS), dtS)
  return {
    state: {
      timeS: state.timeS + dtS,
      readC: fault ? state.readC : readingC,
      readAtS: fault ? state.readAtS : state.timeS + dtS,
      filteredC,
      heldC: wish.heldC,
      on: wish.on,
      askedS: state.askedS,
      unaskedS: state.unaskedS,
      start: next.state,
      bypassed: next.bypass,
      duty,
    },
    duty,
    fault,
  }
}
