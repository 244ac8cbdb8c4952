import { TACH_PULSES } from '#core/measure'

/** Below this share of the expected speed for this long, a fan counts as failed. Common practice, no source. */
export const TACH_ALARM = { fraction: 0.7, holdS: 5 } as const

/** How long a fan has been too slow, s. */
export interface AlarmState {
  lowS: number
}
/**
 * One step of the alarm: low for the hold time, counted from its first low sample, it tells; one good sample resets it.
 * @param rpm what the tach shows; 0: no pulse @param expected rpm @param dtS s since the sample before
 * @param fraction 0..1 @param holdS s
 * Reference: handbook CT13
 */
export function alarmStep(
  state: AlarmState | null,
  rpm: number,
  expected: number,
  dtS: number,
  fraction: number,
  holdS: number,
): { state: AlarmState | null; alarm: boolean } {
  if (rpm >= fraction * expected) return { state: null, alarm: false }
  const lowS = state ? state.lowS + dtS : 0
  return { state: { lowS }, alarm: lowS >= holdS - 1e-9 }
}

/**
 * Alarm step by step: on once the speed has been low for the hold time, counted from its first low sample; one good
 * sample resets.
 * @param rpm one reading a step
 * @param dt length of a step, s
 * @param expected rpm
 * @param fraction 0..1
 * Reference: docs/physics.md, control
 */
export function tachAlarms(
  rpm: readonly number[],
  expected: number,
  dt: number,
  fraction: number = TACH_ALARM.fraction,
  holdS: number = TACH_ALARM.holdS,
): boolean[] {
  let state: AlarmState | null = null
  return rpm.map((value) => {
    const step = alarmStep(state, value, expected, dt, fraction, holdS)
    state = step.state
    return step.alarm
  })
}
/**
 * Step of a speed reading by counting pulses in a gate, rpm.
 * Reference: docs/physics.md, control
 */
export const gateResolution = (gateS: number, pulses = TACH_PULSES) => 60 / (pulses * gateS)
/**
 * How long without a pulse means a stopped fan, s.
 * Reference: docs/physics.md, control
 */
export const noPulseTimeout = (lowestRpm: number, pulses = TACH_PULSES) =>
  Math.max(2, (3 * 60) / (pulses * lowestRpm))
/**
 * Speed a 4-wire fan should show at a duty, rpm (±10 % above its lowest duty, from memory).
 * @param duty 0..1
 */
export const expectedSpeed = (fullRpm: number, duty: number) => fullRpm * duty
