import type { AirState } from '#core/air'
import {
  operatingPoint,
  stableFlow,
  type Drive,
  type FanCurve,
  type OperatingPoint,
  type Resistance,
} from '#core/fan'
import { localResistance, pathUncertainty, pathDrop, type PathModel } from './path'

/** Flow that a first local fit is made at when nothing better is known, m3/s. */
const FIRST_GUESS = 0.01
const ROUNDS = 8

/** The path in a form a ranking can use thousands of times: re-fits only where duct friction bends it. */
export interface PathSolver {
  path: PathModel
  fixed: Required<Resistance> | null
  guess: number
}

/**
 * A path made ready for a search.
 * @param guess flow to begin with, m3/s
 */
export function pathSolver(path: PathModel, guess: number | null): PathSolver {
  const at = guess && guess > 0 ? guess : FIRST_GUESS
  return { path, fixed: path.nonlinear ? null : localResistance(path, at), guess: at }
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
  let at = quickIndex(solver.guess)
  let flow = -1
  for (let i = 0; i < ROUNDS; i++) {
    const fit = (fits[at] ??= localResistance(solver.path, QUICK.from * Math.exp(at * QUICK.step)))
    flow = stableFlow(curve, fit, drive)
    if (!(flow > 0)) break
    const next = quickIndex(flow)
    if (Math.abs(next - at) <= 1) break
    at = next
  }
  return flow
}

const scaled = (r: Required<Resistance>, factor: number): Resistance =>
  factor === 1 ? r : { a: r.a * factor, b: r.b * factor, staticHead: r.staticHead * factor }

/** Path coefficients at the operating point of a driven curve: the local fit is repeated until its flow stands. */
function resistanceAtOperation(solver: PathSolver, curve: FanCurve, drive: Drive, factor: number): Resistance {
  if (solver.fixed) return scaled(solver.fixed, factor)
  let at = solver.guess
  let resistance = scaled(localResistance(solver.path, at), factor)
  for (let i = 0; i < ROUNDS; i++) {
    const flow = stableFlow(curve, resistance, drive)
    if (!(flow > 0) || Math.abs(flow - at) < 1e-7 * flow) break
    at = flow
    resistance = scaled(localResistance(solver.path, at), factor)
  }
  return resistance
}

/** Lowest stable flow of a driven curve on the path, m3/s, or -1. @param factor multiplies the path's resistance (for its band) */
export function operatingFlow(solver: PathSolver, curve: FanCurve, drive: Drive, factor = 1): number {
  return stableFlow(curve, resistanceAtOperation(solver, curve, drive, factor), drive)
}

/** Operating point of a driven curve on the path. */
export function operateOnPath(solver: PathSolver, curve: FanCurve, drive: Drive): OperatingPoint {
  return operatingPoint(curve, resistanceAtOperation(solver, curve, drive, 1), drive)
}

/**
 * Driven fans as the solver wants them.
 * @param speed share of rated speed
 * @param count fans, 1 or more
 */
export const driveOf = (
  air: AirState,
  speed: number,
  count: number,
  arrangement: 'single' | 'parallel' | 'series',
): Drive => ({
  speed,
  densityRatio: air.densityRatio,
  parallel: arrangement === 'series' ? 1 : count,
  series: arrangement === 'series' ? count : 1,
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

const weightedBand = (path: PathModel) => (flow: number, drop: number) => {
  const uncertainty = pathUncertainty(path, flow)
  return { low: drop * (1 - uncertainty), high: drop * (1 + uncertainty) }
}
