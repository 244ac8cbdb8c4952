import { lastFlow, pressureAt, slopeAt, type FanCurve } from './curve'
import { bisectFalling } from './combine'
import { asSheet, operatingPoint, type Resistance } from './operating-point'
import { speedRatio } from './voltage'

/**
 * Exhaust fan on a box whose intake and leaks work side by side (all quadratic, Pa.s2/m6).
 * @param bIntake of the intake, Pa.s2/m6, above 0
 * @param bOutlet of the outlet, Pa.s2/m6
 * @param bLeak of the leak, Pa.s2/m6, above 0
 * @returns flow through the wanted intake (m3/s) and box pressure (Pa, negative); null without operating point
 * Reference: docs/physics.md, several fans and boxes
 */
export function leakyBox(
  curve: FanCurve,
  bIntake: number,
  bOutlet: number,
  bLeak: number | null,
): { wanted: number; boxPressure: number } | null {
  const bIn = bLeak === null ? bIntake : (1 / Math.sqrt(bIntake) + 1 / Math.sqrt(bLeak)) ** -2
  const { flow } = operatingPoint(curve, { a: 0, b: bIn + bOutlet })
  return flow === null ? null : { wanted: Math.sqrt(bIn / bIntake) * flow, boxPressure: -bIn * flow * flow }
}

/** Flow of a fan with a quadratic duct against a box pressure u, m3/s: p(Q) - b Q^2 = u, the fan continued with its end slope. */
function flowAgainst(curve: FanCurve, b: number, u: number): number {
  const at = (q: number) => {
    const p = pressureAt(curve, q)
    const n = curve.q.length - 1
    return (p ?? curve.p[n]! + curve.m[n]! * (q - curve.q[n]!)) - b * q * q - u
  }
  let top = lastFlow(curve)
  while (at(top) > 0 && top < 1e3) top *= 2
  return bisectFalling(at, curve.q[0]!, top) ?? curve.q[0]!
}

/**
 * Supply and exhaust fan on one box with a leak.
 * @param bSupply of the supply side, Pa.s2/m6
 * @param bExhaust of the exhaust side, Pa.s2/m6
 * @param bLeak of the leak, Pa.s2/m6, above 0
 * @returns box pressure (Pa, positive: air leaks out) and the exhaust fan's flow (m3/s)
 * Reference: docs/physics.md, several fans and boxes: Q1(u) falls, Q2(u) rises, the leak takes the difference
 */
export function pushPullBox(
  supply: FanCurve,
  bSupply: number,
  exhaust: FanCurve,
  bExhaust: number,
  bLeak: number,
): { boxPressure: number; exhaust: number } | null {
  const leak = (u: number) => Math.sign(u) * Math.sqrt(Math.abs(u) / bLeak)
  const top = supply.p[0]! + exhaust.p[0]!
  const u = bisectFalling(
    (x) => flowAgainst(supply, bSupply, x) - flowAgainst(exhaust, bExhaust, -x) - leak(x),
    -top,
    top,
  )
  return u === null ? null : { boxPressure: u, exhaust: flowAgainst(exhaust, bExhaust, -u) }
}

/**
 * Quadratic path coefficient from one delivered flow of a known fan, Pa.s2/m6; null where the flow lies beyond the
 * curve (a contradiction).
 * @param flow m3/s, 0 or more
 * Reference: docs/physics.md, several fans and boxes
 */
export function pathFromDelivered(curve: FanCurve, flow: number): number | null {
  const p = pressureAt(curve, flow)
  return p === null || !(flow > 0) ? null : p / flow ** 2
}

/**
 * How much flow one more volt brings, m3/s per V.
 * @param voltage V
 * @param ratedVoltage V, above 0
 * @param intercept voltage at which the speed line meets zero, V
 * @returns null without operating point or where the slope vanishes ("very sensitive")
 * Reference: docs/physics.md, sensitivity: implicit derivative of s^2 p(Q/s) = a Q + b Q^2
 */
export function flowPerVolt(
  curve: FanCurve,
  path: Resistance,
  voltage: number,
  ratedVoltage: number,
  intercept: number,
): number | null {
  const s = speedRatio(voltage, ratedVoltage, intercept)
  const { flow } = operatingPoint(curve, path, { ...asSheet, speed: s })
  if (flow === null) return null
  const x = flow / s
  const p = pressureAt(curve, x)
  const slope = slopeAt(curve, x)
  if (p === null || slope === null) return null
  const perSpeed = -(2 * s * p - flow * slope) / (s * slope - path.a - 2 * path.b * flow)
  return Number.isFinite(perSpeed) ? perSpeed / (ratedVoltage - intercept) : null
}
