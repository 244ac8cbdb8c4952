import type { Resistance } from '#core/fan'

/**
 * Flow at a drop through a Q + b Q^2, m3/s, without cancellation; works for a = 0 or b = 0; both 0 gives null.
 * @param a of the flow, Pa.s/m3
 * @param b of the flow squared, Pa.s2/m6
 * @param drop pressure drop, Pa, 0 or more
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function flowAtDrop(a: number, b: number, drop: number): number | null {
  if (drop === 0) return 0
  const root = a + Math.sqrt(a * a + 4 * b * drop)
  return root > 0 ? (2 * drop) / root : null
}

/**
 * Elements one behind the other: the coefficients add.
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function seriesResistance(parts: readonly Resistance[]): Resistance {
  return parts.reduce<Resistance>((sum, r) => ({ a: sum.a + r.a, b: sum.b + r.b }), { a: 0, b: 0 })
}

/**
 * Total flow of branches side by side at a common drop, m3/s.
 * @param drop pressure drop, Pa, 0 or more
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function parallelFlowAtDrop(branches: readonly Resistance[], drop: number): number | null {
  let total = 0
  for (const { a, b } of branches) {
    const flow = flowAtDrop(a, b, drop)
    if (flow === null) return null
    total += flow
  }
  return total
}

/**
 * Common drop of branches side by side that carry a total flow, Pa, by bisection under the easiest branch's drop.
 * @param flow m3/s, 0 or more
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function parallelDrop(branches: readonly Resistance[], flow: number): number | null {
  let low = 0
  let high = Math.min(...branches.map(({ a, b }) => a * flow + b * flow * flow))
  if (!Number.isFinite(high)) return null
  for (let i = 0; i < 100; i++) {
    const middle = (low + high) / 2
    const total = parallelFlowAtDrop(branches, middle)
    if (total === null) return null
    if (total < flow) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/**
 * Purely quadratic branches side by side: 1/sqrt(b) adds.
 * @param b of the flow squared, Pa.s2/m6
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function quadraticParallel(b: readonly number[]): number {
  return b.reduce((sum, x) => sum + 1 / Math.sqrt(x), 0) ** -2
}

/**
 * Drop in other air, Pa: the viscous part scales with viscosity, the inertial one with density.
 * @param flow m3/s, 0 or more
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function dropOtherAir(
  { a, b }: Resistance,
  flow: number,
  densityRatio: number,
  viscosityRatio: number,
): number {
  return a * viscosityRatio * flow + b * densityRatio * flow * flow
}

/**
 * Path coefficients from measured flows (m3/s) and drops (Pa): least squares of dp on Q and Q^2 through the origin, neither negative.
 * One point gives a purely quadratic path. Never an intercept: that would be a zero error of the gauge.
 * @param flows m3/s
 * @param drops pressure drops, Pa
 * @returns null for no points or flows that are not above zero
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function fitResistance(flows: readonly number[], drops: readonly number[]): Resistance | null {
  if (flows.length === 0 || flows.length !== drops.length || flows.some((q) => !(q > 0))) return null
  if (flows.length === 1) return { a: 0, b: drops[0]! / flows[0]! ** 2 }
  const sum = (f: (q: number, p: number) => number) => flows.reduce((s, q, i) => s + f(q, drops[i]!), 0)
  const s2 = sum((q) => q ** 2)
  const s3 = sum((q) => q ** 3)
  const s4 = sum((q) => q ** 4)
  const y1 = sum((q, p) => q * p)
  const y2 = sum((q, p) => q * q * p)
  const det = s2 * s4 - s3 ** 2
  if (!(Math.abs(det) > 1e-12 * s2 * s4)) return { a: 0, b: y2 / s4 }
  const a = (y1 * s4 - y2 * s3) / det
  const b = (y2 * s2 - y1 * s3) / det
  if (a < 0) return { a: 0, b: Math.max(0, y2 / s4) }
  return b < 0 ? { a: y1 / s2, b: 0 } : { a, b }
}

/**
 * Exponent of dp ~ Q^n between two measured points; expect 1 to 2.
 * @param q1 flow, m3/s, above 0
 * @param p1 pressure at q1, Pa
 * @param q2 flow, m3/s, above q1
 * @param p2 pressure at q2, Pa
 * Reference: algebra of a·Q + b·Q²; docs/physics.md, fans and air path
 */
export function pathExponent(q1: number, p1: number, q2: number, p2: number): number | null {
  const n = Math.log(p2 / p1) / Math.log(q2 / q1)
  return Number.isFinite(n) ? n : null
}
