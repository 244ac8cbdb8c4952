import {
  flowAt,
  highestPressure,
  lastFlow,
  makeCurve,
  pressureAt,
  type CurvePoint,
  type FanCurve,
} from './curve'
import { dropOf, type Resistance } from './operating-point'

/**
 * Pressure of a curve at any flow >= its first: beyond the last point it goes on with its end slope (an assumption: the fan brakes).
 * @param flow m3/s, 0 or more
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function continuedPressure(curve: FanCurve, flow: number): number | null {
  const n = curve.q.length - 1
  return flow > curve.q[n]! ? curve.p[n]! + curve.m[n]! * (flow - curve.q[n]!) : pressureAt(curve, flow)
}

/**
 * Flow of a curve at any pressure below its highest, continued with the end slope below its last pressure.
 * @param pressure Pa
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function continuedFlow(curve: FanCurve, pressure: number): number | null {
  const n = curve.q.length - 1
  if (pressure >= curve.p[n]!) return flowAt(curve, pressure)
  const slope = curve.m[n]!
  return slope < 0 ? curve.q[n]! + (pressure - curve.p[n]!) / slope : null
}

/**
 * Pressure of two fans one behind the other, Pa, at a common flow.
 * @param flow m3/s, 0 or more
 * Reference: docs/physics.md, combinations.
 */
export function seriesPressure(first: FanCurve, second: FanCurve, flow: number): number | null {
  const p1 = continuedPressure(first, flow)
  const p2 = continuedPressure(second, flow)
  return p1 === null || p2 === null ? null : p1 + p2
}

export interface Backflow {
  /** a flap shuts a fan that is overpowered */
  flap: boolean
  /** resistance of a fan driven backwards, Pa.s2/m6; default shut-off pressure / free flow^2 (an assumption) */
  reverse?: number
}

/**
 * Flow of one member at the group's common pressure, m3/s; negative when it is driven backwards.
 * @param pressure Pa
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function memberFlow(curve: FanCurve, pressure: number, { flap, reverse }: Backflow): number | null {
  const shutOff = curve.p[0]!
  const flow = flowAt(curve, pressure)
  if (flow !== null) return flow
  if (pressure < shutOff) return continuedFlow(curve, pressure)
  if (flap) return 0
  const k = reverse ?? shutOff / lastFlow(curve) ** 2
  return -Math.sqrt((pressure - shutOff) / k)
}

/**
 * Flow of two fans side by side at a common pressure, m3/s. The back-flow settings belong to the second, weaker fan.
 * @param pressure Pa
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function parallelFlow(
  first: FanCurve,
  second: FanCurve,
  pressure: number,
  backflow: Backflow,
): number | null {
  const q1 = memberFlow(first, pressure, { flap: backflow.flap })
  const q2 = memberFlow(second, pressure, backflow)
  return q1 === null || q2 === null ? null : q1 + q2
}

/**
 * Root of a falling function by bisection on a bracket; null without a change of sign.
 * @param f falling function of the flow
 * @param low flow, m3/s
 * @param high flow, m3/s
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function bisectFalling(f: (x: number) => number, low: number, high: number): number | null {
  if (!(f(low) >= 0 && f(high) <= 0)) return null
  for (let i = 0; i < 200 && high - low > 1e-14 * Math.abs(high); i++) {
    const middle = (low + high) / 2
    if (f(middle) >= 0) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/**
 * Flow of two fans in series through a path, m3/s.
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function seriesOperatingFlow(first: FanCurve, second: FanCurve, path: Resistance): number | null {
  return bisectFalling(
    (q) => (seriesPressure(first, second, q) ?? -Infinity) - dropOf(path, q),
    0,
    lastFlow(first) + lastFlow(second),
  )
}

/**
 * Two unlike fans side by side on one path: total flow, the second fan's share and the common pressure.
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function parallelOperatingPoint(
  first: FanCurve,
  second: FanCurve,
  path: Resistance,
  backflow: Backflow,
): { total: number; second: number; pressure: number } | null {
  const top = Math.max(first.p[0]!, second.p[0]!)
  const pressure = bisectFalling(
    (p) => {
      const total = parallelFlow(first, second, p, backflow)
      return total === null ? -1 : total < 0 ? total : dropOf(path, total) - p
    },
    0,
    top,
  )
  if (pressure === null) return null
  const total = parallelFlow(first, second, pressure, backflow)
  const share = memberFlow(second, pressure, backflow)
  return total === null || share === null ? null : { total, second: share, pressure }
}

/** Points of a combined curve: enough that the cubic follows both members to about 0.1 %. */
const COMBINED_POINTS = 41

/**
 * One curve for two unlike fans, both already as driven: one behind the other (pressures add at one flow, a member beyond
 * its free delivery brakes) or side by side (flows add at one pressure; a member overpowered is driven backwards unless a
 * flap shuts it). Only the falling right-hand branches of members that dip are used side by side.
 * @returns null where the two have no common curve
 * Reference: docs/physics.md, combinations (FP12, FP13)
 */
export function combinedCurve(
  first: FanCurve,
  second: FanCurve,
  how: 'series' | 'parallel',
  flap = false,
): FanCurve | null {
  const points: CurvePoint[] = []
  const add = (q: number, p: number) => {
    if (q >= 0 && p >= 0 && q > (points.at(-1)?.q ?? -1)) points.push({ q, p })
  }
  if (how === 'series') {
    const last = lastFlow(first) + lastFlow(second)
    // the pair ends where the braking member eats the other's pressure
    const end =
      bisectFalling((q) => seriesPressure(first, second, q) ?? -1, 0, last) ??
      Math.max(lastFlow(first), lastFlow(second))
    for (let i = 0; i < COMBINED_POINTS; i++) {
      const q = (end * i) / (COMBINED_POINTS - 1)
      add(q, Math.max(0, seriesPressure(first, second, q) ?? -1))
    }
  } else {
    const top = Math.max(highestPressure(first), highestPressure(second))
    const [weak, strong] = highestPressure(first) < highestPressure(second) ? [first, second] : [second, first]
    for (let i = 0; i < COMBINED_POINTS; i++) {
      // denser near no pressure, where the curve is flat in pressure
      const p = top * (1 - (i / (COMBINED_POINTS - 1)) ** 1.5)
      const total = parallelFlow(strong, weak, p, { flap })
      if (total !== null) add(total, p)
    }
  }
  const made = makeCurve(points)
  return made.ok ? made.curve : null
}
