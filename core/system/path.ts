import type { AirState } from '#core/air'
import {
  commonDrop,
  commonSlope,
  flowsOfWays,
  lossTable,
  passageHead,
  passageResists,
  timesPassage,
  type Passage,
} from '#core/airpath'
import type { Resistance } from '#core/fan'
import { drawnPlaces, type Branch, type PathElement, type Place, type StreamPlan } from '#core/document'
import { modelElement } from './elements'
import type { BranchModel, ElementModel } from './elements/model'

export interface PathModel {
  /** every element in the document's order, those in branches too */
  elements: ElementModel[]
  /** the main row */
  main: ElementModel[]
  /** nothing lacks its size; a fan alone is a whole path (open air) */
  complete: boolean
  /** not a plain a Q + b Q^2: duct friction or branches bend it */
  nonlinear: boolean
  /** what the guess is multiplied by after calibrating; 1 without */
  factor: number
  /** doubt of the whole path once it is calibrated; null where the elements' own doubts rule */
  calibrated: CalibratedDoubt | null
}

/** What a calibrated path is doubted by. */
export interface CalibratedDoubt {
  /** of the readings: the path may resist more by this share, or less by the factor */
  uncertainty: number
  /** of the curve of the fan that ran, the same; it errs no second time when that fan is planned with */
  fanUncertainty: number
  fanId: string | null
}

/** The parts of a plan that make its path. */
export type PathPart = Pick<StreamPlan, 'path' | 'branches'>

/** The main row: what stands in no branch. */
export const mainRow = (part: PathPart): PathElement[] => part.path.filter((e) => e.branchId === null)
/** Ways of a split in their order. */
export const branchesOf = (part: PathPart, splitId: string): Branch[] =>
  part.branches.filter((b) => b.splitId === splitId)
/** Where fans can stand: the row, how many rows alike there are, and where in it. */
export interface FanPlace {
  element: PathElement
  place: Place | null
  row: PathElement[]
  index: number
  /** openings alike, each with its share of the fans */
  times: number
}
/** The places for fans from the intake on; those put aside are none. */
export function fanPlaces(part: PathPart & Pick<StreamPlan, 'places'>): FanPlace[] {
  const drawn = drawnPlaces(part)
  const at = (element: PathElement) => drawn.find((d) => d.element === element)?.place ?? null
  const inRow = (row: PathElement[], times: number) =>
    row.flatMap((element, index): FanPlace[] =>
      element.kind === 'fan' && !at(element)?.aside ? [{ element, place: at(element), row, index, times }] : [],
    )
  const main = mainRow(part)
  return main.flatMap((element, index): FanPlace[] =>
    element.kind === 'fan'
      ? at(element)?.aside
        ? []
        : [{ element, place: at(element), row: main, index, times: 1 }]
      : branchesOf(part, element.id).flatMap((b) => inRow(branchRow(part, b.id), b.times)),
  )
}
/** What stands in a way, in its order. */
export const branchRow = (part: PathPart, branchId: string): PathElement[] =>
  part.path.filter((e) => e.branchId === branchId)

const rowModels = (row: readonly PathElement[], air: AirState) =>
  row.map((element, index) => modelElement(element, { row, index, air }))

const counts = (e: ElementModel) => e.element.kind !== 'fan'

/** What a row of elements lets through. */
function passageOf(elements: readonly ElementModel[]): Passage {
  const sum = { a: 0, b: 0, staticHead: 0 }
  for (const e of elements) {
    sum.a += e.a
    sum.b += e.b
    sum.staticHead += e.staticHead
  }
  const nonlinear = elements.filter((e) => e.extra)
  const table = nonlinear.length
    ? lossTable(sum.staticHead, (q) => (sum.a + sum.b * q) * q + nonlinear.reduce((s, e) => s + e.extra!(q), 0))
    : null
  return { ...sum, table }
}

/** A split with the ways that stand side by side in it. */
function modelSplit(part: PathPart, split: ElementModel, air: AirState): ElementModel {
  const branches = branchesOf(part, split.element.id).map((branch): BranchModel => {
    const elements = rowModels(branchRow(part, branch.id), air)
    return { branch, elements, passage: timesPassage(passageOf(elements), branch.times) }
  })
  const empty = branches.find((b) => !b.elements.some((e) => counts(e) && e.element.kind !== 'chamber'))
  const missing =
    branches.reduce((n, b) => n + b.branch.times, 0) < 2
      ? 'a second way, or how many stand alike'
      : empty
        ? `an element in “${empty.branch.name}”`
        : branches.some((b) => b.elements.some((e) => counts(e) && e.missing))
          ? 'the size of an element in it'
          : null
  return {
    ...split,
    branches,
    missing: missing ?? (branches.every((b) => passageResists(b.passage)) ? null : 'a way that resists'),
    formula: 'ΣQᵢ(Δp) = Q',
    source: 'ways side by side share one pressure drop',
  }
}

/** The whole path in the given air. */
export function modelPath(part: PathPart, air: AirState): PathModel {
  const main = rowModels(mainRow(part), air).map((e) =>
    e.element.kind === 'split' ? modelSplit(part, e, air) : e,
  )
  return pathOf(part, main)
}

function pathOf(
  part: PathPart,
  main: ElementModel[],
  factor = 1,
  calibrated: CalibratedDoubt | null = null,
): PathModel {
  const inside = new Map(
    main.flatMap((e) => [e, ...(e.branches ?? []).flatMap((b) => b.elements)]).map((e) => [e.element.id, e]),
  )
  const counted = main.filter(counts)
  return {
    main,
    factor,
    calibrated,
    elements: part.path.map((e) => inside.get(e.id)).filter((e) => e !== undefined),
    complete: main.length > 0 && counted.every((e) => !e.missing),
    nonlinear: main.some((e) => e.extra || e.branches),
  }
}

const scaleElement = (e: ElementModel, k: number): ElementModel => {
  const { extra } = e
  const branches =
    e.branches?.map((b) => ({
      ...b,
      elements: b.elements.map((x) => scaleElement(x, k)),
      passage: scalePassage(b.passage, k),
    })) ?? null
  return {
    ...e,
    a: e.a * k,
    b: e.b * k,
    staticHead: e.staticHead * k,
    extra: extra ? (q) => k * extra(q) : null,
    branches,
  }
}
const scaleTable = (t: NonNullable<Passage['table']>, k: number) => ({
  ...t,
  staticHead: t.staticHead * k,
  logDp: t.logDp.map((x) => x + Math.log(k)),
})
const scalePassage = (p: Passage, k: number): Passage => ({
  a: p.a * k,
  b: p.b * k,
  staticHead: p.staticHead * k,
  table: p.table && scaleTable(p.table, k),
})

/**
 * The path scaled by a measurement: every loss by the same factor.
 * @param factor multiplies the resistance, above 0
 * @param doubt of that measurement
 */
export function scalePath(
  part: PathPart,
  path: PathModel,
  factor: number,
  doubt: CalibratedDoubt | null,
): PathModel {
  return pathOf(
    part,
    path.main.map((e) => scaleElement(e, factor)),
    factor,
    doubt,
  )
}

/** How the ways of a split pass air. */
const waysOf = (split: ElementModel): Passage[] => (split.branches ?? []).map((b) => b.passage)

/**
 * Drop of one element at a flow through it, Pa.
 * @param q flow, m3/s, 0 or more
 */
export function elementDrop(e: ElementModel, q: number): number {
  if (!(q > 0)) return 0
  if (e.branches) return e.missing ? 0 : commonDrop(waysOf(e), q)
  return e.staticHead + (e.a + e.b * q) * q + (e.extra ? e.extra(q) : 0)
}

/**
 * Drop of the whole path at the fan's flow, Pa.
 * @param q flow, m3/s, 0 or more
 */
export const pathDrop = (path: PathModel, q: number): number =>
  path.main.reduce((s, e) => s + elementDrop(e, q), 0)

/**
 * Flow through each way of a split that carries a flow, m3/s; through openings alike all together.
 * @param q flow, m3/s, 0 or more
 */
export function branchFlows(split: ElementModel, q: number): number[] {
  return split.missing ? (split.branches ?? []).map(() => 0) : flowsOfWays(waysOf(split), q)
}

/**
 * Flow through every element when the fan moves a flow, m3/s, by the element's id; of openings alike through one of
 * them.
 * @param q flow, m3/s, 0 or more
 */
export function elementFlows(path: PathModel, q: number): Map<string, number> {
  const flows = new Map<string, number>()
  for (const e of path.main) {
    flows.set(e.element.id, q)
    const ways = branchFlows(e, q)
    e.branches?.forEach((b, i) => b.elements.forEach((x) => flows.set(x.element.id, ways[i]! / b.branch.times)))
  }
  return flows
}

/**
 * Share of the fan's flow that does the job: what leaks past is taken off at each split.
 * @param q flow, m3/s, 0 or more
 */
export function usefulShare(path: PathModel, q: number): number {
  let share = 1
  for (const e of path.main) {
    if (!e.branches?.some((b) => b.branch.leak)) continue
    const ways = branchFlows(e, q)
    const total = ways.reduce((s, x) => s + x, 0)
    if (total > 0) share *= 1 - e.branches.reduce((s, b, i) => s + (b.branch.leak ? ways[i]! : 0), 0) / total
  }
  return share
}

/**
 * Flow the fan must move so that a flow does the job, m3/s.
 * @param jobFlow m3/s
 */
export function fanFlowFor(path: PathModel, jobFlow: number): number {
  if (!path.complete || !path.main.some((e) => e.branches?.some((b) => b.branch.leak))) return jobFlow
  let q = jobFlow
  for (let i = 0; i < 60; i++) {
    const next = jobFlow / Math.max(usefulShare(path, q), 1e-3)
    if (Math.abs(next - q) < 1e-10 * q) return next
    q = next
  }
  return q
}

/** Steps in which a flow is halved in: to a share of 1e-12. */
const HALVINGS = 60
/** Most air that is looked for, m3/s. */
const MOST_FLOW = 10
/**
 * Flow through the whole path under a pressure, m3/s; 0 where it does not open at that pressure.
 * @param pressure Pa, 0 or more
 * Reference: the path's drop rises with the flow, so that it is met once
 */
export function flowUnder(path: PathModel, pressure: number): number {
  if (!(pressure > pathHead(path))) return 0
  let [low, high] = [0, MOST_FLOW]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2
    if (pathDrop(path, middle) < pressure) low = middle
    else high = middle
  }
  return low
}

/** Drop above its head and slope of an element's bent part, Pa and Pa.s/m3. */
function bentPart(e: ElementModel, q: number): { drop: number; slope: number } {
  if (e.branches) {
    const ways = waysOf(e)
    const drop = commonDrop(ways, q)
    return { drop: drop - headOf(e), slope: commonSlope(ways, drop) }
  }
  const step = 1e-4 * q
  return { drop: e.extra!(q), slope: (e.extra!(q + step) - e.extra!(q - step)) / (2 * step) }
}

/** Pressure that an element asks before any air moves, Pa: of a split that of the way which opens first. */
const headOf = (e: ElementModel): number =>
  e.branches?.length && !e.missing ? Math.min(...waysOf(e).map(passageHead)) : e.staticHead

/** Pressure that the path asks before any air moves, Pa. */
export const pathHead = (path: PathModel): number => path.main.reduce((s, e) => s + headOf(e), 0)

/**
 * Coefficients a, b (and head) that meet the path's drop and slope at a flow. Exact for a Q + b Q^2; for friction and
 * branches it is the local fit, so that a solver which re-fits at its answer ends on the true curve.
 * @param q m3/s, > 0
 */
export function localResistance(path: PathModel, q: number): Required<Resistance> {
  const sum = { a: 0, b: 0, staticHead: 0 }
  for (const e of path.main) {
    sum.a += e.a
    sum.b += e.b
    sum.staticHead += headOf(e)
    if (e.missing || (!e.extra && !e.branches)) continue
    const { drop, slope } = bentPart(e, q)
    sum.a += (2 * drop) / q - slope
    sum.b += (slope * q - drop) / q ** 2
  }
  return sum
}
