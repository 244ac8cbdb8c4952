/** Platinum sensors. Coefficients: IEC 60751. */
const A = 3.9083e-3
const B = -5.775e-7
const C = -4.183e-12
/**
 * Resistance of a platinum sensor, ohm. @param r0 at 0 degC: 100 or 1000 ohm
 * @param celsius degC
 * Reference: IEC 60751
 */
export function ptResistance(celsius: number, r0: number): number {
  return r0 * (1 + A * celsius + B * celsius ** 2 + (celsius < 0 ? C * (celsius - 100) * celsius ** 3 : 0))
}
/**
 * Temperature of a platinum sensor, degC: closed form above 0, Newton below; null outside -200 to 850 degC.
 * @param resistance ohm, above 0
 * @param r0 resistance at 0 degC, ohm
 * Reference: IEC 60751
 */
export function ptTemperature(resistance: number, r0: number): number | null {
  const disc = A * A - 4 * B * (1 - resistance / r0)
  if (disc < 0) return null
  let t = (-A + Math.sqrt(disc)) / (2 * B)
  if (t < 0) {
    for (let i = 0; i < 20; i++) {
      const slope = r0 * (A + 2 * B * t + C * (4 * t ** 3 - 300 * t ** 2))
      t -= (ptResistance(t, r0) - resistance) / slope
    }
  }
  return t >= -200 && t <= 850 ? t : null
}
export type PtClass = 'AA' | 'A' | 'B' | 'C'
const tolerances: Record<PtClass, [number, number]> = {
  AA: [0.1, 0.0017],
  A: [0.15, 0.002],
  B: [0.3, 0.005],
  C: [0.6, 0.01],
}
/**
 * Limit of error of a class, K.
 * @param celsius degC
 * Reference: IEC 60751
 */
export const ptTolerance = (kind: PtClass, celsius: number) =>
  tolerances[kind][0] + tolerances[kind][1] * Math.abs(celsius)
/**
 * What the two wires of a sensor add, K near 0 degC: their resistance over its slope.
 * @param r0 resistance at 0 degC, ohm
 * Reference: IEC 60751 and docs/physics.md ME10 to ME12
 */
export const ptLeadError = (leadOhm: number, r0: number) => leadOhm / (A * r0)

const KELVIN = 273.15
const NTC_REFERENCE = 25
/**
 * Temperature of an NTC by its Beta, degC; error beyond 0 to 50 degC reaches 1 K and more. @param r25 at 25 degC, ohm
 * @param resistance ohm, above 0
 * @param beta K
 * Reference: IEC 60751 and docs/physics.md ME10 to ME12
 */
export const ntcTemperature = (resistance: number, r25: number, beta: number) =>
  1 / (1 / (NTC_REFERENCE + KELVIN) + Math.log(resistance / r25) / beta) - KELVIN
/**
 * Beta of two points, K.
 * @param t1 first of three equally spaced values
 * @param r1 ohm, above 0
 * @param t2 second of them
 * @param r2 ohm, above 0
 * Reference: IEC 60751 and docs/physics.md ME10 to ME12
 */
export const ntcBeta = (t1: number, r1: number, t2: number, r2: number) =>
  Math.log(r1 / r2) / (1 / (t1 + KELVIN) - 1 / (t2 + KELVIN))
/**
 * Temperature by three points (degC, ohm), degC.
 * @param points how many
 * @param resistance ohm, above 0
 * Reference: Steinhart and Hart, 1968
 */
export function steinhartHart(points: readonly { t: number; r: number }[], resistance: number): number | null {
  if (points.length !== 3) return null
  const l = points.map((p) => Math.log(p.r))
  const y = points.map((p) => 1 / (p.t + KELVIN))
  const g2 = (y[1]! - y[0]!) / (l[1]! - l[0]!)
  const g3 = (y[2]! - y[0]!) / (l[2]! - l[0]!)
  const c = (g3 - g2) / (l[2]! - l[1]!) / (l[0]! + l[1]! + l[2]!)
  const b = g2 - c * (l[0]! ** 2 + l[0]! * l[1]! + l[1]! ** 2)
  const a = y[0]! - (b + l[0]! ** 2 * c) * l[0]!
  const x = Math.log(resistance)
  return 1 / (a + b * x + c * x ** 3) - KELVIN
}
/**
 * NTC to ground under a fixed resistor, ohm; the supply cancels. @param fraction of the converter's full scale, 0..1
 * Reference: IEC 60751 and docs/physics.md ME10 to ME12
 */
export const dividerResistance = (fraction: number, fixedOhm: number): number | null =>
  fraction > 0 && fraction < 1 ? (fixedOhm * fraction) / (1 - fraction) : null

/** Type K, V at degC with its reference at 0 degC. Reference: IEC 60584-1 / ITS-90 (from memory). */
const TYPE_K: readonly [number, number][] = [
  [0, 0],
  [10, 0.397e-3],
  [20, 0.798e-3],
  [25, 1e-3],
  [30, 1.203e-3],
  [40, 1.612e-3],
  [50, 2.023e-3],
  [60, 2.436e-3],
  [70, 2.851e-3],
  [80, 3.267e-3],
  [90, 3.682e-3],
  [100, 4.096e-3],
  [150, 6.138e-3],
  [200, 8.138e-3],
]
function between(x: number, from: 0 | 1, to: 0 | 1): number | null {
  const k = TYPE_K.findIndex((p, i) => i > 0 && x <= p[from])
  const [a, b] = [TYPE_K[k - 1], TYPE_K[k]]
  return !a || !b || x < a[from] ? null : a[to] + ((b[to] - a[to]) * (x - a[from])) / (b[from] - a[from])
}
/**
 * Voltage of a type K couple against 0 degC, V; null outside 0 to 200 degC.
 * @param celsius degC
 * Reference: IEC 60751 and docs/physics.md ME10 to ME12
 */
export const typeKVoltage = (celsius: number) => between(celsius, 0, 1)
/** Its temperature with a warm reference, degC: voltages add, degrees do not. */
export function typeKTemperature(measuredV: number, coldJunctionC: number): number | null {
  const cold = typeKVoltage(coldJunctionC)
  return cold === null ? null : between(measuredV + cold, 1, 0)
}
