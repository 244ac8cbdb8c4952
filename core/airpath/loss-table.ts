import { pchipSlopes } from '#core/fan'
import { flowAtDrop } from './resistance'

/**
 * A loss that has no closed form (duct friction in a branch): flows and drops on a logarithmic
 * grid with a monotone cubic through their logarithms. Read both ways without a root-finder.
 */
export interface LossTable {
  staticHead: number
  logQ: Float64Array
  logDp: Float64Array
  slope: Float64Array
}

/**
 * Flows the grid spans, m3/s (0.0036 to 3600 m3/h), and points per decade: relative error about 1e-5 on smooth losses,
 * 1e-4 at the kinks of friction.
 */
const MIN_FLOW = 1e-6
const MAX_FLOW = 1
const PER_DECADE = 48

function tableOf(staticHead: number, q: readonly number[], dp: readonly number[]): LossTable | null {
  if (q.length < 2) return null
  const logQ = Float64Array.from(q, Math.log)
  const logDp = Float64Array.from(dp, Math.log)
  return { staticHead, logQ, logDp, slope: pchipSlopes(logQ, logDp) }
}

/**
 * A table from a rising loss without its head, Pa at m3/s.
 * @param staticHead Pa, 0 or more
 * @param loss loss coefficient, above 0
 * Reference: ways side by side share one pressure drop; monotone cubic in the logarithms (a choice of ours)
 */
export function lossTable(staticHead: number, loss: (flow: number) => number): LossTable | null {
  const q: number[] = []
  const dp: number[] = []
  const n = Math.round(Math.log10(MAX_FLOW / MIN_FLOW) * PER_DECADE)
  for (let i = 0; i <= n; i++) {
    const flow = MIN_FLOW * 10 ** (i / PER_DECADE)
    const drop = loss(flow)
    if (drop > 0 && (dp.length === 0 || drop > dp.at(-1)!)) {
      q.push(flow)
      dp.push(drop)
    }
  }
  return tableOf(staticHead, q, dp)
}

/** Index of the interval that holds x, ends included for what lies outside. */
function interval(x: Float64Array, at: number): number {
  let low = 0
  let high = x.length - 1
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (x[middle]! <= at) low = middle
    else high = middle
  }
  return low
}

/** log dp and its slope d log dp / d log Q; beyond the grid the power law of the end goes on. */
function read(table: LossTable, at: number): { y: number; d: number } {
  const { logQ, logDp, slope } = table
  const last = logQ.length - 1
  if (at <= logQ[0]!) return { y: logDp[0]! + slope[0]! * (at - logQ[0]!), d: slope[0]! }
  if (at >= logQ[last]!) return { y: logDp[last]! + slope[last]! * (at - logQ[last]!), d: slope[last]! }
  return readIn(table, interval(logQ, at), at)
}
/** The same within an interval that is known. */
function readIn({ logQ, logDp, slope }: LossTable, k: number, at: number): { y: number; d: number } {
  const h = logQ[k + 1]! - logQ[k]!
  const t = (at - logQ[k]!) / h
  const rise = logDp[k + 1]! - logDp[k]!
  const c2 = 3 * rise - h * (2 * slope[k]! + slope[k + 1]!)
  const c3 = h * (slope[k]! + slope[k + 1]!) - 2 * rise
  return {
    y: logDp[k]! + t * (h * slope[k]! + t * (c2 + t * c3)),
    d: (h * slope[k]! + t * (2 * c2 + 3 * t * c3)) / h,
  }
}

/**
 * Drop at a flow, Pa; the head stands at any flow above 0.
 * @param flow m3/s, 0 or more
 * Reference: ways side by side share one pressure drop; monotone cubic in the logarithms (a choice of ours)
 */
export const tableDrop = (table: LossTable, flow: number) =>
  flow > 0 ? table.staticHead + Math.exp(read(table, Math.log(flow)).y) : 0

/**
 * dDp/dQ at a flow above 0, Pa.s/m3.
 * @param flow m3/s, 0 or more
 * Reference: ways side by side share one pressure drop; monotone cubic in the logarithms (a choice of ours)
 */
export function tableSlope(table: LossTable, flow: number): number {
  const { y, d } = read(table, Math.log(flow))
  return (Math.exp(y) * d) / flow
}

/** A Newton step in the logarithm after which the next one would be below what a double holds: steps shrink as squares. */
const LAST_STEP = 1e-8

/**
 * Flow at a drop, m3/s; 0 up to the head.
 * @param drop pressure drop, Pa, 0 or more
 * Reference: ways side by side share one pressure drop; monotone cubic in the logarithms (a choice of ours)
 */
export function tableFlow(table: LossTable, drop: number): number {
  if (!(drop > table.staticHead)) return 0
  const y = Math.log(drop - table.staticHead)
  const { logQ, logDp, slope } = table
  const last = logDp.length - 1
  if (y <= logDp[0]!) return Math.exp(logQ[0]! + (y - logDp[0]!) / slope[0]!)
  if (y >= logDp[last]!) return Math.exp(logQ[last]! + (y - logDp[last]!) / slope[last]!)
  const k = interval(logDp, y)
  // Newton from the chord, kept inside the interval; the curve rises, so that a few steps suffice
  const low = logQ[k]!
  const high = logQ[k + 1]!
  let at = low + ((high - low) * (y - logDp[k]!)) / (logDp[k + 1]! - logDp[k]!)
  for (let i = 0; i < 12; i++) {
    const { y: here, d } = readIn(table, k, at)
    if (!(d > 0)) break
    const next = Math.max(low, Math.min(high, at - (here - y) / d))
    const step = Math.abs(next - at)
    at = next
    if (step < LAST_STEP) break
  }
  return Math.exp(at)
}

/** What passes air under a drop: coefficients, or a table where there is no closed form. */
export interface Passage {
  a: number
  b: number
  staticHead: number
  table: LossTable | null
}

/** Pressure that a passage asks before any air moves, Pa. Reference: definition of the head of a flap */
export const passageHead = ({ staticHead, table }: Passage): number => (table ? table.staticHead : staticHead)

/** Whether a passage resists at all: one that does not would take any flow. Reference: definition */
export const passageResists = ({ a, b, table }: Passage): boolean => table !== null || a > 0 || b > 0

/**
 * Drop of a passage that carries a flow, Pa; its head at no flow.
 * @param flow m3/s, 0 or more
 * Reference: head and a·Q + b·Q², or the table
 */
export function passageDrop(w: Passage, flow: number): number {
  return w.table && flow > 0 ? tableDrop(w.table, flow) : passageHead(w) + (w.a + w.b * flow) * flow
}

/**
 * Flow through a passage at a drop, m3/s; null where nothing resists.
 * @param drop pressure drop, Pa, 0 or more
 * Reference: inverse of the drop
 */
export function passageFlow({ a, b, staticHead, table }: Passage, drop: number): number | null {
  if (table) return tableFlow(table, drop)
  return drop <= staticHead ? 0 : flowAtDrop(a, b, drop - staticHead)
}

/**
 * dDp/dQ of a passage at a flow above 0, Pa.s/m3.
 * @param flow m3/s, above 0
 * Reference: derivative of the drop
 */
export const passageSlope = ({ a, b, table }: Passage, flow: number): number =>
  table ? tableSlope(table, flow) : a + 2 * b * flow

/**
 * Passages alike side by side as one: each carries its share of the flow.
 * @param times how many, 1 or more
 * Reference: ways side by side share one pressure drop and their flows add
 */
export const timesPassage = ({ a, b, staticHead, table }: Passage, times: number): Passage => ({
  a: a / times,
  b: b / times ** 2,
  staticHead,
  table: table && { ...table, logQ: table.logQ.map((x) => x + Math.log(times)) },
})
