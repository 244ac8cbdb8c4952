/** Exponent of current over voltage where nothing was measured. Common practice, no source (1 to 2). */
export const DEFAULT_CURRENT_EXPONENT = 1.3

/**
 * Speed ratio n/n_rated of a fan at a voltage: (V - V0)/(V_r - V0) from the lowest running voltage on, else 0.
 * Not for fans with an internal speed regulator.
 * @param voltage V
 * @param ratedVoltage V, above the intercept
 * @param intercept voltage at which the straight line meets zero speed, V, 0 to 0.15 V_r (0 where unknown)
 * @param minimum lowest running voltage, V
 * Reference: common practice, no source
 */
export function speedRatio(voltage: number, ratedVoltage: number, intercept = 0, minimum = 0): number {
  return voltage < minimum || voltage <= intercept ? 0 : (voltage - intercept) / (ratedVoltage - intercept)
}

/**
 * The voltage that gives a speed ratio, V: inverse of `speedRatio` above the lowest running voltage.
 * @param ratio any ratio
 * @param ratedVoltage V, above 0
 * @param intercept voltage at which the speed line meets zero, V
 * Reference: docs/physics.md FP9
 */
export function voltageForSpeed(ratio: number, ratedVoltage: number, intercept = 0): number {
  return intercept + ratio * (ratedVoltage - intercept)
}

/**
 * Current at a voltage, A: I_r (V/V_r)^m.
 * @param exponent 1 to 2
 * @param voltage V
 * @param ratedVoltage V, above 0
 * @param ratedCurrent A, above 0
 * Reference: common practice, no source; m = 2 is the pure aerodynamic limit
 */
export function currentAtVoltage(
  voltage: number,
  ratedVoltage: number,
  ratedCurrent: number,
  exponent = DEFAULT_CURRENT_EXPONENT,
): number {
  return ratedCurrent * (voltage / ratedVoltage) ** exponent
}

/**
 * Speed at a PWM duty, linear between the lowest and full duty.
 * @param duty 0..1
 * @param minDuty below it the behaviour depends on the fan: null
 * @param minSpeed share of full speed, 0..1
 * @param maxSpeed share of full speed, 0..1
 * Reference: common practice, no source
 */
export function speedFromDuty(
  duty: number,
  minDuty: number,
  minSpeed: number,
  maxSpeed: number,
): number | null {
  return duty < minDuty ? null : minSpeed + ((maxSpeed - minSpeed) * (duty - minDuty)) / (1 - minDuty)
}
