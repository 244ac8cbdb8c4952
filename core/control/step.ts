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
  | { kind: 'thermostat'; onC: number; offC: number; onDuty: number }
  | { kind: 'curve'; points: readonly CurvePoint[]; hysteresisK: number }
  | { kind: 'timer'; onS: number; everyS: number; onDuty: number }

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

/** The law's answer, and what it remembers. */
function asked(
  law: ControlLaw,
  state: ControlState,
  temperatureC: number,
): Pick<ControlState, 'heldC' | 'on'> & { target: number } {
  const { heldC, on } = state
  if (law.kind === 'fixed') return { heldC, on: true, target: law.duty }
  if (law.kind === 'timer') {
    const runs = state.timeS % law.everyS < law.onS
    return { heldC, on: runs, target: runs ? law.onDuty : 0 }
  }
  if (law.kind === 'thermostat') {
    const runs = onOff(on, temperatureC, law.onC, law.offC)
    return { heldC, on: runs, target: runs ? law.onDuty : 0 }
  }
  const held = heldTemperature(heldC, temperatureC, law.hysteresisK)
  const target = curveDuty(law.points, held)
  return { heldC: held, on: target > 0, target }
}

/**
 * One step.
 * @param readingC what the sensor shows, degC; null: none came @param dtS s, above 0
 * Reference: handbook control 2
 */
export function controlStep(
  settings: ControlSettings,
  state: ControlState,
  readingC: number | null,
  dtS: number,
): ControlStep {
  const { law, sensorLowC, sensorHighC } = settings
  const blind = law.kind === 'fixed' || law.kind === 'timer'
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
      start: next.state,
      bypassed: next.bypass,
      duty,
    },
    duty,
    fault,
  }
}
