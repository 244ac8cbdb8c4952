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

/** Steps between two nodes, dense at both ends: members bend most where one of them begins to deliver or to turn back. */
const STEPS_BETWEEN = 10
/** Width of a kink, share of the value: on both of its sides stands a node, so that the cubic does not round it. */
const KINK = 1e-7

/** Values from `low` to `high` that hold every node inside, with steps between and both sides of each kink. */
function spread(nodes: readonly number[], low: number, high: number): number[] {
  const inside = nodes.filter((x) => x > low && x < high)
  const all = [low, ...inside, high].sort((a, b) => a - b)
  const values = all.flatMap((from, i) => {
    const to = all[i + 1]
    if (to === undefined) return [from]
    const between = Array.from({ length: STEPS_BETWEEN - 1 }, (_, k) => {
      const share = (1 - Math.cos((Math.PI * (k + 1)) / STEPS_BETWEEN)) / 2
      return from + (to - from) * share
    })
    return i === 0 ? [from, ...between] : [from * (1 - KINK), from, from * (1 + KINK), ...between]
  })
  return values.filter((x) => x >= low && x <= high)
}

/** Points of a curve whose flow rises, what falls back left out. */
function risingPoints(points: readonly CurvePoint[]): CurvePoint[] {
  const kept: CurvePoint[] = []
  for (const p of points) if (p.q > (kept.at(-1)?.q ?? -1)) kept.push(p)
  return kept
}

function seriesPoints(first: FanCurve, second: FanCurve): CurvePoint[] {
  const last = lastFlow(first) + lastFlow(second)
  // the pair ends where the braking member eats the other's pressure
  const end =
    bisectFalling((q) => seriesPressure(first, second, q) ?? -1, 0, last) ??
    Math.max(lastFlow(first), lastFlow(second))
  const start = Math.max(first.q[0]!, second.q[0]!)
  return spread([...first.q, ...second.q], start, end).map((q) => ({
    q,
    p: q === end ? 0 : Math.max(0, seriesPressure(first, second, q) ?? 0),
  }))
}

function parallelPoints(first: FanCurve, second: FanCurve, flap: boolean): CurvePoint[] {
  const [weak, strong] = highestPressure(first) < highestPressure(second) ? [first, second] : [second, first]
  const total = (p: number) => parallelFlow(strong, weak, p, { flap }) ?? -1
  // where the weaker one takes back all that the stronger one gives
  const shutOff = bisectFalling(total, 0, highestPressure(strong))
  const top = shutOff ?? highestPressure(strong)
  const nodes = [weak, strong].flatMap((c) => [...c.p])
  return spread(nodes, 0, top)
    .reverse()
    .map((p) => ({ q: p === top && shutOff !== null ? 0 : Math.max(0, total(p)), p }))
}

/**
 * Curve of two unlike fans together, as driven: side by side their flows add at each common pressure (from the pressure
 * at which the stronger one only feeds the weaker one back), one behind the other their pressures at each common flow.
 * Its nodes are the members' own and their kinks, so that the cubic between them follows both to about 1e-4.
 * @param how side by side or one behind the other
 * @param flap a flap shuts the one that is overpowered
 * @returns null where they have no common curve
 * Reference: flows add side by side, pressures one behind the other; docs/physics.md, fans and air path
 */
export function combinedCurve(
  first: FanCurve,
  second: FanCurve,
  how: 'series' | 'parallel',
  flap = false,
): FanCurve | null {
  const points = how === 'series' ? seriesPoints(first, second) : parallelPoints(first, second, flap)
  const made = makeCurve(risingPoints(points))
  return made.ok ? made.curve : null
}

/**
 * How two unlike fans side by side share a common pressure, m3/s each; a negative flow goes back through the fan.
 * @param pressure common pressure, Pa, 0 or more
 * Reference: docs/physics.md, combinations
 */
export function sharesAt(first: FanCurve, second: FanCurve, pressure: number): [number, number] | null {
  const shares = [first, second].map((c) => memberFlow(c, pressure, { flap: false }))
  return shares[0] === null || shares[1] === null ? null : [shares[0]!, shares[1]!]
}

/**
 * Whether fans side by side may share a pressure unevenly and change over: it lies between a curve's dip and its peak,
 * where one and the same pressure belongs to several flows.
 * @param pressure of one fan, Pa
 * Reference: docs/physics.md, combinations ("unstable sharing")
 */
export function sharesUnstably(curve: FanCurve, pressure: number): boolean {
  const { p } = curve
  let rising = false
  for (let k = 1; k < p.length; k++)
    if (p[k]! > p[k - 1]! && pressure > p[k - 1]! && pressure < p[k]!) rising = true
  return rising
}
