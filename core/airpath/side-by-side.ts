import { passageDrop, passageFlow, passageHead, passageSlope, type Passage } from './loss-table'

/** Steps of the bracketed search; a Newton step is taken where it stays inside, and every third step halves the bracket. */
const ROUNDS = 200

/**
 * Common drop of ways side by side that carry a total flow, Pa. Solved on the true ways, so that a way which opens at a
 * pressure of its own (a flap) has its kink where it is. The root of the drop is sought, in which a quadratic flow is
 * straight.
 * @param ways what lets air through; every one of them resists
 * @param flow total, m3/s, 0 or more
 * @param tolerance share of the root of the highest drop that is left open
 * @returns Pa; where only shut ways are there, the head that opens the first
 * Reference: ways side by side share one pressure drop and their flows add (docs/physics.md FP38)
 */
export function commonDrop(ways: readonly Passage[], flow: number, tolerance = 1e-13): number {
  if (!(flow > 0)) return 0
  let head = Infinity
  let most = Infinity
  for (const w of ways) {
    head = Math.min(head, passageHead(w))
    most = Math.min(most, passageDrop(w, flow))
  }
  let low = 0
  let high = Math.sqrt(Math.max(0, most - head))
  let u = high / ways.length
  for (let i = 0; i < ROUNDS && high - low > tolerance * high; i++) {
    const drop = head + u * u
    let total = 0
    let perU = 0
    for (const w of ways) {
      const q = passageFlow(w, drop)
      if (!q) continue
      total += q
      perU += (2 * u) / passageSlope(w, q)
    }
    if (total < flow) low = u
    else high = u
    const next = u + (flow - total) / perU
    if (Math.abs(next - u) <= tolerance * high) return head + next * next
    u = i % 3 < 2 && next > low && next < high ? next : (low + high) / 2
  }
  return head + u * u
}

/**
 * Flow through each way when they carry a total, m3/s. What rounding leaves is put on the widest way, so that the flows
 * add up to the total.
 * @param flow total, m3/s, 0 or more
 * Reference: ways side by side share one pressure drop and their flows add
 */
export function flowsOfWays(ways: readonly Passage[], flow: number): number[] {
  if (!(flow > 0)) return ways.map(() => 0)
  const drop = commonDrop(ways, flow)
  const flows = ways.map((w) => passageFlow(w, drop) ?? 0)
  const rest = flow - flows.reduce((s, q) => s + q, 0)
  const widest = flows.indexOf(Math.max(...flows))
  flows[widest]! += rest
  return flows
}

/**
 * How the common drop grows with the total flow, Pa.s/m3: the ways' conductances add.
 * @param drop common drop, Pa
 * Reference: derivative of the sum of flows
 */
export function commonSlope(ways: readonly Passage[], drop: number): number {
  let perDrop = 0
  for (const w of ways) {
    const q = passageFlow(w, drop)
    if (q) perDrop += 1 / passageSlope(w, q)
  }
  return perDrop > 0 ? 1 / perDrop : Infinity
}
