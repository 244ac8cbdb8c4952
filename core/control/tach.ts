import { TACH_PULSES } from '#core/measure'

/** Below this share of the expected speed for this long, a fan counts as failed. Common practice, no source. */
export const TACH_ALARM = { fraction: 0.7, holdS: 5 } as const

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
  let low = -1
  return rpm.map((value, i) => {
    if (value >= fraction * expected) {
      low = -1
      return false
    }
    if (low < 0) low = i
    return (i - low) * dt >= holdS - 1e-9
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
