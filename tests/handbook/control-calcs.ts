import * as control from '#core/control'
import { thermostatCycle, type SwitchedPart } from '#core/heat'

/** The calculations of the chapter on control, from a case's inputs in SI. */
interface Reader {
  has: (name: string) => boolean
  n: (name: string, otherwise?: number) => number
  list: (name: string) => number[]
  text: (name: string) => string
  raw: Record<string, { value: unknown }>
}

const pointsOf = (i: Reader): control.CurvePoint[] => {
  const duties = i.list('points_d')
  return i.list('points_t').map((temperatureC, k) => ({ temperatureC, duty: duties[k]! }))
}
/** A sequence, each value from the one before. */
function sequence<S, T>(inputs: readonly S[], first: T, next: (was: T, input: S) => T): T[] {
  const out: T[] = []
  for (const input of inputs) out.push(next(out.at(-1) ?? first, input))
  return out
}
const KICK_STEP_S = 1
const switched = (i: Reader): SwitchedPart => ({
  heat: i.n('heat'),
  capacity: i.n('capacity'),
  gOn: i.n('g_on'),
  gOff: i.n('g_off'),
  ambientC: i.n('t_ambient'),
  onC: i.n('switch_on'),
  offC: i.n('switch_off'),
})

export const controlCalcs: Record<string, (i: Reader) => unknown> = {
  'control.timerFrequency': (i) =>
    control.timerFrequency(i.n('clock'), i.n('prescaler'), i.n('top'), i.text('mode') as 'up'),
  'control.pwmWindowOk': (i) =>
    control.pwmWindowOk(i.n('clock'), i.n('prescaler'), i.n('top'), i.text('mode') as 'up'),
  'control.timerTopFor': (i) => control.timerTopFor(i.n('clock'), i.n('target'), i.text('mode') as 'up'),
  'control.pwmSinkCurrent': (i) => control.pwmSinkCurrent(i.n('fans'), i.n('per_fan')),
  'control.tachAlarmSequence': (i) =>
    control.tachAlarms(i.list('rpm'), i.n('expected'), i.n('dt'), i.n('fraction'), i.n('hold')).map(Number),
  'control.gateResolution': (i) => control.gateResolution(i.n('gate'), i.n('pulses')),
  'control.noPulseTimeout': (i) => control.noPulseTimeout(i.n('rpm_min'), i.n('pulses')),
  'control.expectedSpeed': (i) => control.expectedSpeed(i.n('rpm_max'), i.n('duty')),
  'control.linearCurve': (i) =>
    control.curveDuty(
      [
        { temperatureC: i.n('t1'), duty: i.n('d1') },
        { temperatureC: i.n('t2'), duty: i.n('d2') },
      ],
      i.n('temperature'),
    ),
  'control.pointCurve': (i) => control.curveDuty(pointsOf(i), i.n('temperature')),
  'control.curveIsValid': (i) => control.curveProblem(pointsOf(i)) === '',
  'control.onOffSequence': (i) =>
    sequence(i.list('temperatures'), false, (was, t) => control.onOff(was, t, i.n('on'), i.n('off'))).map(
      Number,
    ),
  'control.backlashSequence': (i) =>
    sequence<number, number | null>(i.list('temperatures'), null, (held, t) =>
      control.heldTemperature(held, t, i.n('hysteresis')),
    ),
  'control.filterSequence': (i) =>
    sequence<number, number | null>(i.list('values'), null, (was, x) =>
      control.filtered(was, x, i.n('tau'), i.n('dt')),
    ),
  'control.rampSequence': (i) =>
    sequence(i.list('targets'), i.n('start'), (was, target) =>
      control.ramped(was, target, i.n('up'), i.n('down'), i.n('dt')),
    ),
  'control.rampTime': (i) => control.rampTime(i.n('from'), i.n('to'), i.n('rate')),
  'control.stopKickSequence': (i) => {
    const limits: control.StartLimits = {
      minDuty: i.n('min_duty'),
      startDuty: i.n('start_duty'),
      kickDuty: i.n('kick_duty'),
      kickS: i.n('kick_steps') * KICK_STEP_S,
      capDuty: i.n('cap'),
      fanStop: i.raw.fan_stop!.value === true,
    }
    let state = control.atRest
    return i.list('targets').map((target) => {
      const step = control.startStep(state, target, limits, KICK_STEP_S)
      state = step.state
      return step.duty
    })
  },
  'control.sensorFault': (i) =>
    control.sensorFault(i.raw.reading!.value === null ? null : i.n('reading'), i.n('lowest'), i.n('highest')),
  'control.scheduleAverage': (i) => control.scheduleAverage(i.list('values'), i.list('durations')),
  'control.scheduleEnergy': (i) => control.scheduleEnergy(i.list('powers'), i.list('durations')),
  'control.quietInterval': (i) =>
    control.quietInterval(i.n('tau'), i.n('from'), i.n('limit'), i.n('settles_at')),
  'control.cycleOnTime': (i) => thermostatCycle(switched(i))?.onS ?? null,
  'control.cycleOffTime': (i) => thermostatCycle(switched(i))?.offS ?? null,
  'control.cyclesPerHour': (i) => control.cyclesPerHour(switched(i)),
  'control.relayYears': (i) =>
    control.contactYears(i.n('operations'), i.n('cycles_per_hour'), i.n('hours_per_day')),
  'control.equalSlopeCycles': (i) =>
    control.equalSlopeCycles(i.n('heating_slope'), i.n('cooling_slope'), i.n('differential')),
  'control.runOnHeat': (i) => control.runOnHeat(i.n('tau'), i.n('from'), i.n('to'), i.n('settles_at')),
  'control.runOnAir': (i) => control.runOnAir(i.n('volume'), i.n('flow'), i.n('mixing'), i.n('reduction')),
}
