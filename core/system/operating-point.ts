import type { AirState } from '#core/air'
import { lossTable, passageHead, tableDrop, tableSlope, type LossTable } from '#core/airpath'
import {
  lastFlow,
  operatingPoint,
  operationAt,
  pressureAt,
  stableFlow,
  type Crossing,
  type Drive,
  type FanCurve,
  type OperatingPoint,
  type Resistance,
} from '#core/fan'
import { localResistance, pathDrop, pathHead, type PathModel } from './path'
import { dropRange, pathUncertainty } from './path-uncertainty'

/** Flow that a first local fit is made at when nothing better is known, m3/s. */
const FIRST_GUESS = 0.01
const ROUNDS = 8

/** The path in a form a ranking can use thousands of times: re-fits only where duct friction bends it. */
export interface PathSolver {
  path: PathModel
  fixed: Required<Resistance> | null
  /** ways of a split open at pressures of their own */
  kinked: boolean
  guess: number
  /** drop over flow of a bent path, made once for a whole search; null: every flow is worked out on the path itself */
  table: LossTable | null
}

/** A bent path as crossings are sought on it. */
interface BentPath {
  /** Pa at a flow, m3/s; the head at none */
  drop: (q: number) => number
  /** a·Q + b·Q² with a head that meets drop and slope at a flow */
  fit: (q: number) => Required<Resistance>
}
/** On its elements themselves. */
const exactly = (path: PathModel): BentPath => ({
  drop: (q) => (q > 0 ? pathDrop(path, q) : pathHead(path)),
  fit: (q) => localResistance(path, q),
})
/** Read off a table, within about 1e-4 of the drop. */
const offTable = (table: LossTable): BentPath => ({
  drop: (q) => (q > 0 ? tableDrop(table, q) : table.staticHead),
  fit: (q) => {
    const drop = tableDrop(table, q) - table.staticHead
    const slope = tableSlope(table, q)
    return { a: (2 * drop) / q - slope, b: (slope * q - drop) / q ** 2, staticHead: table.staticHead }
  },
})
const bentPath = ({ path, table }: PathSolver): BentPath => (table ? offTable(table) : exactly(path))

/**
 * A path made ready for a search.
 * @param guess flow to begin with, m3/s
 */
export function pathSolver(path: PathModel, guess: number | null): PathSolver {
  const at = guess && guess > 0 ? guess : FIRST_GUESS
  const kinked = path.main.some((e) => new Set(e.branches?.map((b) => passageHead(b.passage))).size > 1)
  return { path, fixed: path.nonlinear ? null : localResistance(path, at), kinked, guess: at, table: null }
}

/**
 * The same path for a search: where it is bent, ranges and the places where curves may cross it are read off a table of
 * its drop; operating points stay exact. A path with a kink has none, which no table follows.
 */
export function tabled(solver: PathSolver): PathSolver {
  const { path, fixed, kinked } = solver
  if (fixed || kinked) return solver
  const head = pathHead(path)
  return { ...solver, table: lossTable(head, (q) => pathDrop(path, q) - head) }
}

/** Flows of the quick table: one step is 6 % more air, within which a local fit of duct friction is as good as exact. */
const QUICK = { from: 1e-5, step: Math.log(1.06), size: 200 }

/** Local fits of a bent path at many flows, made once for a whole search. */
export interface QuickPath {
  solver: PathSolver
  fits: (Required<Resistance> | undefined)[]
}
/** A solver with room for its local fits. */
export const quickPath = (solver: PathSolver): QuickPath => ({
  solver,
  fits: new Array<Required<Resistance> | undefined>(QUICK.size),
})

const quickIndex = (flow: number) =>
  Math.max(0, Math.min(QUICK.size - 1, Math.round(Math.log(flow / QUICK.from) / QUICK.step)))

/**
 * Lowest stable flow for a search: as `operatingFlow`, with the local fits of a bent path taken from a table.
 * @returns m3/s, or -1; within about 0.1 % of the exact one
 */
export function quickFlow({ solver, fits }: QuickPath, curve: FanCurve, drive: Drive): number {
  if (solver.fixed) return stableFlow(curve, solver.fixed, drive)
  // where a way opens at a pressure of its own the path has a kink, which no fit from a table follows
  if (solver.kinked) return operatingFlow(solver, curve, drive)
  let at = quickIndex(solver.guess)
  for (let i = 0; i < ROUNDS; i++) {
    const fit = (fits[at] ??= localResistance(solver.path, QUICK.from * Math.exp(at * QUICK.step)))
    const flow = stableFlow(curve, fit, drive)
    if (!(flow > 0)) break
    const next = quickIndex(flow)
    if (Math.abs(next - at) <= 1) return flow
    at = next
  }
  return operatingFlow(solver, curve, drive)
}

const scaled = (r: Required<Resistance>, factor: number): Resistance =>
  factor === 1 ? r : { a: r.a * factor, b: r.b * factor, staticHead: r.staticHead * factor }

/** Whether pressure never rises with flow: then a path that rises meets it at most once. */
const falls = new WeakMap<FanCurve, boolean>()
function fallsThroughout(curve: FanCurve): boolean {
  let known = falls.get(curve)
  if (known === undefined) falls.set(curve, (known = curve.p.every((p, i) => i === 0 || p <= curve.p[i - 1]!)))
  return known
}

/** Fan less path at a flow, Pa. */
const gap = (path: BentPath, curve: FanCurve, drive: Drive, factor: number) => (q: number) =>
  (pressureAt(curve, Math.min(q / (drive.speed * drive.parallel), lastFlow(curve))) ?? 0) *
    drive.speed ** 2 *
    drive.densityRatio *
    drive.series -
  factor * path.drop(q)

/** Steps of the bracketed search. */
const STEPS = 100
/** Where the search stands still, share of the flow. */
const SETTLED = 1e-10

/**
 * The one crossing inside a bracket whose ends have different signs, m3/s. The path's local fit proposes where to look;
 * where that does not help, the bracket is halved.
 */
function crossingBetween(
  path: BentPath,
  curve: FanCurve,
  drive: Drive,
  factor: number,
  [from, to]: [number, number],
  start: number,
): number {
  const f = gap(path, curve, drive, factor)
  const rises = f(from) < 0
  let [low, high] = [from, to]
  let q = start > low && start < high ? start : (low + high) / 2
  for (let i = 0; i < STEPS && high - low > SETTLED * high; i++) {
    const here = f(q)
    if (here === 0) return q
    if (here > 0 !== rises) low = q
    else high = q
    const next = rises ? -1 : stableFlow(curve, scaled(path.fit(q), factor), drive)
    if (next > low && next < high && Math.abs(next - q) <= SETTLED * q) return next
    q = i % 4 < 3 && next > low && next < high ? next : (low + high) / 2
  }
  return q
}

/** Parts that an interval between two data points is looked at in, where a curve may be met several times. */
const PARTS = 12

/** A table tells the sign of fan less path where the gap is this much larger than its error, as a share of the drop. */
const CERTAIN = 1e-3
/** The sign of fan less path: off the table where that is certain, else on the path itself. */
function signs({ path, table }: PathSolver, curve: FanCurve, drive: Drive): (q: number) => number {
  const exact = gap(exactly(path), curve, drive, 1)
  if (!table) return (q) => Math.sign(exact(q))
  const bent = offTable(table)
  const near = gap(bent, curve, drive, 1)
  return (q) => {
    const f = near(q)
    return Math.sign(Math.abs(f) > CERTAIN * bent.drop(q) ? f : exact(q))
  }
}

/**
 * Every crossing of a driven curve and a bent path.
 * @param path what the crossings are solved on
 * @param f sign of fan less path
 */
function bentCrossings(
  path: BentPath,
  guess: number,
  curve: FanCurve,
  drive: Drive,
  factor: number,
  f: (q: number) => number,
): Crossing[] {
  const width = drive.speed * drive.parallel
  const first = curve.q[0]! * width
  const last = lastFlow(curve) * width
  if (fallsThroughout(curve)) {
    if (!(f(first) > 0) || f(last) > 0) return []
    return [{ flow: crossingBetween(path, curve, drive, factor, [first, last], guess), stable: true }]
  }
  const found: Crossing[] = []
  let before = first
  let sign = f(first)
  for (let k = 1; k < curve.q.length; k++)
    for (let part = 1; part <= PARTS; part++) {
      const [a, b] = [curve.q[k - 1]! * width, curve.q[k]! * width]
      const q = a + ((b - a) * part) / PARTS
      const now = f(q)
      if (now !== 0 && sign !== 0 && now !== sign)
        found.push({
          flow: crossingBetween(path, curve, drive, factor, [before, q], guess),
          stable: sign > 0,
        })
      if (now !== 0) {
        before = q
        sign = now
      } else if (q === last && sign > 0) found.push({ flow: q, stable: true })
    }
  return found
}

/**
 * Lowest stable flow of a driven curve on the path, m3/s, or -1.
 * @param factor multiplies the path's resistance (for its band), above 0
 */
export function operatingFlow(solver: PathSolver, curve: FanCurve, drive: Drive, factor = 1): number {
  if (solver.fixed) return stableFlow(curve, scaled(solver.fixed, factor), drive)
  if (!(drive.speed > 0)) return -1
  const path = bentPath(solver)
  const f = gap(path, curve, drive, factor)
  const found = bentCrossings(path, solver.guess, curve, drive, factor, (q) => Math.sign(f(q)))
  return found.find((c) => c.stable)?.flow ?? -1
}

/** Operating point of a driven curve on the path, with every crossing. */
export function operateOnPath(solver: PathSolver, curve: FanCurve, drive: Drive): OperatingPoint {
  if (solver.fixed) return operatingPoint(curve, solver.fixed, drive)
  const path = exactly(solver.path)
  const crossings =
    drive.speed > 0 ? bentCrossings(path, solver.guess, curve, drive, 1, signs(solver, curve, drive)) : []
  return operationAt(curve, drive, crossings, {
    first: gap(path, curve, drive, 1)(curve.q[0]! * drive.speed * drive.parallel),
    head: pathHead(solver.path),
    dropAt: path.drop,
  })
}

/**
 * Driven fans as the solver wants them.
 * @param speed share of rated speed
 * @param parallel fans side by side, 1 or more
 * @param series fans behind one another, 1 or more
 */
export const driveOf = (air: AirState, speed: number, parallel: number, series: number): Drive => ({
  speed,
  densityRatio: air.densityRatio,
  parallel,
  series,
})

export interface PathCurvePoint {
  flow: number
  drop: number
  low: number
  high: number
}

/**
 * Points of the path's curve with its band, for a chart.
 * @param bandOf the band at a flow and its drop; the elements' weighted doubts unless given
 * @param maxFlow free delivery, m3/s, above 0
 * @param samples points of the curve, 2 or more
 */
export function pathCurve(
  path: PathModel,
  maxFlow: number,
  bandOf: (flow: number, drop: number) => { low: number; high: number } = weightedBand(path),
  samples = 33,
): PathCurvePoint[] {
  return Array.from({ length: samples }, (_, i) => {
    const flow = (maxFlow * i) / (samples - 1)
    const drop = pathDrop(path, flow)
    return { flow, drop, ...(flow > 0 ? bandOf(flow, drop) : { low: drop, high: drop }) }
  })
}

const weightedBand = (path: PathModel) => (flow: number, drop: number) =>
  dropRange(drop, pathUncertainty(path, flow))
