export interface Motor {
  /** winding, ohm */
  resistance: number
  /** V.s/rad */
  motorConstant: number
  /** friction, N.m */
  frictionTorque: number
  /** air load, N.m.s2/rad2 */
  loadCoefficient: number
}

/** Angular speed of the motor model, rad/s; 0 where the voltage cannot overcome friction. */
function angularSpeed(
  voltage: number,
  { resistance: r, motorConstant: k, frictionTorque: t0, loadCoefficient: load }: Motor,
): number {
  const drive = (k * voltage) / r - t0
  if (drive <= 0) return 0
  const b = (k * k) / r
  return (2 * drive) / (b + Math.sqrt(b * b + 4 * load * drive))
}

/**
 * Speed of a motor with constant friction and an air load that grows with the square of speed, rpm.
 * @param voltage V
 * Reference: derived in the handbook: k w^2 + (Ke^2/R) w + (T0 - Ke V/R) = 0
 */
export function motorSpeed(voltage: number, motor: Motor): number {
  return (30 * angularSpeed(voltage, motor)) / Math.PI
}

/**
 * Current of the same motor, A; at standstill V/R.
 * @param voltage V
 * Reference: brushless motor balance
 */
export function motorCurrent(voltage: number, motor: Motor): number {
  return (voltage - motor.motorConstant * angularSpeed(voltage, motor)) / motor.resistance
}
