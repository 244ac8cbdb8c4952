import {
  curveProblem,
  timerFrequency,
  type ControlLaw,
  type ControlSettings,
  type CurvePoint,
} from '#core/control'
import { newControlOf, type Actuator, type Control, type StreamPlan, dutyOf } from '#core/document'
import { drivenV, membersOf, type FanArray } from '#core/system'
import type { DayStream } from './streams'

/** What a plan says of its controls, as the control step takes it. */

/** Usual where nobody said: common practice, no source (handbook control 2). */
export const USUAL = {
  filterTauS: 5,
  rampUpPerS: 0.2,
  rampDownPerS: 0.05,
  hysteresisK: 3,
  kickS: 0.5,
  /** a thermistor or digital sensor on a part; in moving air it is later */
  sensorLagS: 20,
  /** of a contact at its rated load, and of its mechanics alone (handbook CT9) */
  operations: 1e5,
  mechanical: 1e7,
} as const
/** What a temperature sensor shows at most. */
const SENSOR = { low: -40, high: 150 } as const

const switching: Actuator[] = ['contact', 'relay', 'thermal-switch']
/** Whether it can only open and close. */
export const onlySwitches = ({ actuator }: Pick<Control, 'actuator'>): boolean =>
  actuator !== null && switching.includes(actuator)
/**
 * Whether its duty goes on the fans' PWM wire; else it changes the voltage, or only opens and closes. A header does as it
 * is set, a board as the plan drives the fans.
 */
export const usesWire = ({ actuator }: Pick<Control, 'actuator'>, plan: StreamPlan): boolean => {
  const { wiring } = plan
  const planned = dutyOf(plan) !== null
  if (actuator === 'pwm-wire') return true
  if (actuator === 'header') return wiring.headerMode === null ? planned : wiring.headerMode === 'pwm'
  return (actuator === null || actuator === 'board') && planned
}

/** Every control of a plan, and one that is always on for streams that nobody said anything of. */
export function controlsOf(plan: StreamPlan, streams: readonly DayStream[]): Control[] {
  const steered = new Set(plan.controls.flatMap((c) => c.streamIds))
  const rest = streams
    .filter((s) => s.system.fanArray !== null)
    .map((s) => s.plan.stream)
    .filter((id) => !steered.has(id))
  return [...plan.controls, ...rest.map((id) => newControlOf(`always-${id}`.slice(0, 64), 'always', [id]))]
}

/** Lowest duties that keep turning and that start, of all fans together; null where no sheet tells. */
export function fanDuties(fanArray: FanArray): { min: number | null; start: number | null } {
  const most = (list: (number | null)[]) => {
    const known = list.filter((x) => x !== null)
    return known.length ? Math.max(...known) : null
  }
  const fans = membersOf(fanArray).map((m) => m.fan)
  return { min: most(fans.map((f) => f.pwmMinDuty)), start: most(fans.map((f) => f.pwmStartDuty)) }
}
/** Voltage control: lowest voltages that keep the fans turning and start them, as a share of the drive. */
function voltageDuties(fanArray: FanArray, driveV: number): { min: number; start: number } {
  const models = membersOf(fanArray)
  const share = (v: number) => Math.min(1, v / driveV)
  return {
    min: share(Math.max(...models.map((m) => m.minV))),
    start: share(Math.max(...models.map((m) => m.fan.startV ?? m.minV))),
  }
}

/** What starts and keeps the fans of a group, where the control does not say it. */
export function usualLimits(streams: readonly DayStream[], control: Control): { min: number; start: number } {
  const each = streams.flatMap(({ plan, system: { fanArray }, operation: { candidate } }) => {
    if (!fanArray) return []
    if (!usesWire(control, plan)) return [voltageDuties(fanArray, candidate?.driveV ?? drivenV(plan, fanArray))]
    const { min, start } = fanDuties(fanArray)
    return [{ min: min ?? USUAL_MIN, start: start ?? min ?? USUAL_MIN }]
  })
  return {
    min: Math.max(0, ...each.map((d) => d.min)),
    start: Math.max(0, ...each.map((d) => Math.max(d.min, d.start))),
  }
}
/** Duty that keeps a 4-wire fan turning, where its sheet does not tell. 4-wire specification, from memory. */
const USUAL_MIN = 0.3

/** What it puts out while its sensor cannot be believed; null: stays as it is. */
const faultDutyOf = (onFault: Control['onFault'], capDuty: number): number | null =>
  onFault === 'off' ? 0 : onFault === 'cap' ? capDuty : onFault === 'hold' ? null : 1

/** A control that can be stepped, or what keeps it from it, by the field that holds it. */
export type Settled =
  { ok: true; settings: ControlSettings } | { ok: false; key: keyof Control; message: string }

const wants = (key: keyof Control, message: string): Settled => ({ ok: false, key, message })

/** Temperatures at which a curve may be read, sorted as they are typed: nothing is repaired. */
const lawOf = (control: Control, plannedDuty: number): ControlLaw | Settled => {
  const on = control.onDuty ?? plannedDuty
  const rest = control.quietDuty ?? 0
  switch (control.school) {
    case 'always':
      return { kind: 'fixed', duty: control.onDuty ?? plannedDuty }
    case 'slow':
      return control.quietDuty === null
        ? wants('quietDuty', 'How slow? Tell the share of the full drive.')
        : { kind: 'fixed', duty: control.quietDuty }
    case 'timer':
      if (control.timerOnS === null || control.timerEveryS === null)
        return wants('timerOnS', 'How long does it run, and how often?')
      if (control.timerOnS > control.timerEveryS)
        return wants('timerOnS', 'It cannot run longer than the time after which it begins again.')
      return { kind: 'timer', onS: control.timerOnS, everyS: control.timerEveryS, onDuty: on, restDuty: rest }
    case 'thermostat':
      return thresholdLaw(control, on, rest)
    case 'curve':
    case 'host':
      return curveLaw(control.points, control.hysteresisK ?? USUAL.hysteresisK)
    case 'boost':
    case 'tool':
      return {
        kind: 'demand',
        mostS: control.school === 'boost' ? control.boostS : null,
        runOnS: control.runOnS ?? 0,
        onDuty: on,
        restDuty: rest,
      }
  }
}
function curveLaw(points: readonly CurvePoint[], hysteresisK: number): ControlLaw | Settled {
  const problem = curveProblem(points)
  return problem ? wants('points', problem) : { kind: 'curve', points, hysteresisK }
}
function thresholdLaw(control: Control, onDuty: number, restDuty: number): ControlLaw | Settled {
  if (control.sense === 'light') return { kind: 'demand', mostS: null, runOnS: 0, onDuty, restDuty }
  const humid = control.sense === 'humidity'
  const [on, off] = humid ? [control.onRh, control.offRh] : [control.onC, control.offC]
  const [onKey, offKey] = humid ? (['onRh', 'offRh'] as const) : (['onC', 'offC'] as const)
  if (on === null) return wants(onKey, 'From where on does it run?')
  if (off === null) return wants(offKey, 'Where does it stop again?')
  if (off >= on)
    return wants(offKey, 'It stops at or above where it starts: it would never switch. Swap the two.')
  return { kind: 'thermostat', onC: on, offC: off, onDuty, restDuty }
}

/**
 * A control as it is stepped.
 * @param streams those that it steers
 * @param plannedDuty the duty that the plan drives them with, 0..1
 */
export function settled(control: Control, streams: readonly DayStream[], plannedDuty: number): Settled {
  const law = lawOf(control, plannedDuty)
  if ('ok' in law) return law
  const usual = usualLimits(streams, control)
  const minDuty = control.minDuty ?? usual.min
  const startDuty = control.startDuty ?? Math.max(minDuty, usual.start)
  const capDuty = control.capDuty ?? 1
  if (startDuty < minDuty) return wants('startDuty', 'What starts the fan is not below what keeps it turning.')
  if (capDuty < minDuty) return wants('capDuty', 'The cap is not below what keeps the fan turning.')
  const humid = control.sense === 'humidity'
  const smooth = law.kind === 'curve'
  return {
    ok: true,
    settings: {
      law,
      minDuty,
      startDuty,
      capDuty,
      kickDuty: control.kickDuty ?? 1,
      kickS: control.kickS ?? 0,
      // what only opens and closes stops the fan by its nature
      fanStop: control.fanStop ?? !smooth,
      filterTauS: control.filterTauS ?? (smooth ? USUAL.filterTauS : 0),
      rampUpPerS: control.rampUpPerS ?? (smooth ? USUAL.rampUpPerS : 0),
      rampDownPerS: control.rampDownPerS ?? (smooth ? USUAL.rampDownPerS : 0),
      sensorLowC: humid ? -1 : (control.sensorLowC ?? SENSOR.low),
      sensorHighC: humid ? 2 : (control.sensorHighC ?? SENSOR.high),
      faultDuty: faultDutyOf(control.onFault, capDuty),
    },
  }
}

/** Frequency on the PWM wire or of the chopper, Hz: typed, else that of the timer; null where neither is told. */
export function pwmOf({ pwmHz, clockHz, prescaler, timerTop, counting }: Control): {
  hz: number | null
  steps: number | null
} {
  const told = clockHz !== null && timerTop !== null
  const hz = pwmHz ?? (told ? timerFrequency(clockHz, prescaler ?? 1, timerTop, counting) : null)
  return { hz, steps: timerTop === null ? null : counting === 'up' ? timerTop + 1 : timerTop }
}
