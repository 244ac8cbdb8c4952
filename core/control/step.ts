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
  /** duty while it cannot be believed, 0..1; null: stays as it is */
  faultDuty: number | null
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
  on: boolean,
  timeS: number,
  askedS: number,
  unaskedS: number,
  temperatureC: number,
): boolean {
  if (law.kind === 'timer') return ((timeS % law.everyS) + law.everyS) % law.everyS < law.onS
  if (law.kind === 'thermostat') return onOff(on, temperatureC, law.onC, law.offC)
  return askedS > 0 ? law.mostS === null || askedS <= law.mostS : unaskedS <= law.runOnS
}
/** Laws that need no sensor. */
const isBlind = ({ kind }: ControlLaw) => kind === 'fixed' || kind === 'timer' || kind === 'demand'

/** As fast as it likes where no ramp is set. */
const free = (rate: number) => (rate > 0 ? rate : Infinity)

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
  const { law } = settings
  const blind = isBlind(law)
  const timeS = was.timeS + dtS
  const askedS = demand ? was.askedS + dtS : 0
  const unaskedS = demand ? 0 : was.unaskedS + dtS
  // a change is held against the time since the last good reading: a real one is believed soon
  const fault =
    !blind && sensorFault(readingC, settings.sensorLowC, settings.sensorHighC, was.readC, timeS - was.readAtS)
  const filteredC =
    fault || readingC === null ? was.filteredC : filtered(was.filteredC, readingC, settings.filterTauS, dtS)
  let { heldC, on } = was
  let target: number
  if (fault || (!blind && filteredC === null)) target = settings.faultDuty ?? was.duty
  else if (law.kind === 'fixed') {
    on = true
    target = law.duty
  } else if (law.kind === 'curve') {
    heldC = heldTemperature(heldC, filteredC!, law.hysteresisK)
    target = curveDuty(law.points, heldC)
    on = target > 0
  } else {
    on = runsBy(law, on, was.timeS, askedS, unaskedS, filteredC ?? 0)
    target = on ? law.onDuty : law.restDuty
  }
  const next = startStep(was.start, target, settings, dtS)
  // from rest, and after a kick, the ramp begins at what starts the fan
  const duty = next.bypass
    ? next.duty
    : ramped(
        was.bypassed ? settings.startDuty : was.duty,
        next.duty,
        free(settings.rampUpPerS),
        free(settings.rampDownPerS),
        dtS,
      )
  const state: ControlState = {
    timeS,
    readC: fault ? was.readC : readingC,
    readAtS: fault ? was.readAtS : timeS,
    filteredC,
    heldC,
    on,
    askedS,
    unaskedS,
    start: next.state,
    bypassed: next.bypass,
    duty,
  }
  return { state, duty, fault }
}
