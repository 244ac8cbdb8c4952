/**
 * PWM frequency that the 4-wire specification allows, Hz.
 * Reference: 4-Wire PWM Controlled Fans Specification rev. 1.3 (2005), from memory.
 */
export const PWM_WINDOW = { low: 21000, high: 28000, target: 25000 } as const
/** Most that one PWM input sources when it is held low, A. Same source. */
export const PWM_INPUT_A = 0.005
/** Highest voltage on a PWM pin, V. Same source. */
export const PWM_PIN_V = 5.25

export type TimerMode = 'up' | 'up-down'
/**
 * Frequency of a hardware timer, Hz. @param top compare value @param prescaler whole number
 * @param clock Hz
 * Reference: 4-Wire PWM Controlled Fans Specification rev. 1.3 (from memory)
 */
export const timerFrequency = (clock: number, prescaler: number, top: number, mode: TimerMode) =>
  mode === 'up' ? clock / (prescaler * (top + 1)) : clock / (2 * prescaler * top)
/**
 * Whether that lies in the window of 4-wire fans.
 * @param clock Hz
 * @param prescaler whole number, 1 or more
 * @param top compare value, whole number
 * Reference: 4-Wire PWM Controlled Fans Specification rev. 1.3 (from memory)
 */
export function pwmWindowOk(clock: number, prescaler: number, top: number, mode: TimerMode): boolean {
  const f = timerFrequency(clock, prescaler, top, mode)
  return f >= PWM_WINDOW.low && f <= PWM_WINDOW.high
}
/**
 * Compare value for a frequency without prescaler.
 * @param clock Hz
 * @param target Hz
 * Reference: 4-Wire PWM Controlled Fans Specification rev. 1.3 (from memory)
 */
export const timerTopFor = (clock: number, target: number, mode: TimerMode) =>
  Math.round(mode === 'up' ? clock / target - 1 : clock / (2 * target))
/**
 * Current that a driver must sink for several inputs, A.
 * @param fans how many
 * Reference: 4-Wire PWM Controlled Fans Specification rev. 1.3 (from memory)
 */
export const pwmSinkCurrent = (fans: number, perFan = PWM_INPUT_A) => fans * perFan
