import type { AirState } from '#core/air'
import { kExpansion, type GrillePlace, type LossTable, type Passage } from '#core/airpath'
import { input, type FigureInput } from '#core/figure'
import type { Branch, ElementBasis, PathElement } from '#core/document'

/** One way of a split with its elements and how it passes air. */
export interface BranchModel {
  branch: Branch
  elements: ElementModel[]
  passage: Passage
}

/** One element in the air of the place: dp = head + a Q + b Q^2 + extra(Q). */
export interface ElementModel {
  element: PathElement
  a: number
  b: number
  /** pressure before any air moves, Pa (a flap) */
  staticHead: number
  /** a loss that is no a Q + b Q^2, Pa at m3/s (friction) */
  extra: ((flow: number) => number) | null
  /** ways side by side, where the element is a split */
  branches: BranchModel[] | null
  table: LossTable | null
  /** what is still missing before it counts */
  missing: string | null
  formula: string
  inputs: FigureInput[]
  source: string
  /** relative doubt of the drop */
  uncertainty: number
}

/** Where an element stands: its row (the main one or a branch) and the air. */
export interface Spot {
  row: readonly PathElement[]
  index: number
  air: AirState
}

/** What an element's kind makes of it: what it lacks, or its loss with its working. */
export type Made =
  | { missing: string }
  | {
      a?: number
      b?: number
      staticHead?: number
      extra?: (flow: number) => number
      formula: string
      source: string
      inputs: FigureInput[]
      uncertainty?: number
    }
export type Modeler = (element: PathElement, spot: Spot) => Made

/**
 * Doubt of an element's loss by what it rests on: sums of loss coefficients ±30 %, filters ±50 % until measured.
 * Common practice, no source.
 */
export const uncertaintyOf: Record<ElementBasis, number> = {
  measured: 0.1,
  sheet: 0.2,
  'good-guess': 0.3,
  'rough-guess': 0.5,
}

/** An element that is not complete, and what it lacks. */
export const lacks = (missing: string): Made => ({ missing })
/**
 * Area of a bore, m2.
 * @param diameter m, above 0
 */
export const circle = (diameter: number) => (Math.PI / 4) * diameter ** 2
/** Density of the air of a spot, kg/m3. */
export const rho = ({ air }: Spot) => input('ρ', 'air density', air.density, 'density')
/** Viscosity that loss coefficients of media are stated at, Pa.s (20 degC). */
export const REFERENCE_VISCOSITY = 1.81e-5

/** A room inside the path: air comes to rest there. */
export const isRoom = (e: PathElement | undefined) => e?.kind === 'chamber' || e?.kind === 'split'
const isDuct = (e: PathElement | undefined) => e?.kind === 'duct' || e?.kind === 'bend'
/** Pieces that bring the entrance or exit loss of the duct beside them. */
const hasEntrance = (e: PathElement | undefined) =>
  e?.kind === 'hood' || e?.kind === 'reducer' || e?.kind === 'wye' || e?.kind === 'fan'
const hasExit = (e: PathElement | undefined) =>
  e?.kind === 'outlet' || e?.kind === 'reducer' || e?.kind === 'wye' || e?.kind === 'fan'

/** Entrance loss of a duct that begins flush in a wall, on the duct's velocity. Published. */
const K_ENTRANCE = 0.5

/** The neighbour in the row that shapes the flow: the fan's place counts as a neighbour of its own. */
export function placeOf({ row, index }: Spot): GrillePlace {
  const solid = (e: PathElement) => !isRoom(e)
  const before = row.slice(0, index).some(solid)
  const after = row.slice(index + 1).some(solid)
  const fromOpen = !before || isRoom(row[index - 1])
  const toOpen = !after || isRoom(row[index + 1])
  if (fromOpen && !toOpen) return 'intake'
  return toOpen ? 'exhaust' : 'in-duct'
}

/** Cross-section of a duct-like element, m2. */
export function boreArea(e: PathElement): number | null {
  if (e.widthM && e.heightM) return e.widthM * e.heightM
  return e.diameterM ? circle(e.diameterM) : null
}

/**
 * Loss coefficients of a duct's two ends: into and out of rooms and chambers.
 * @param area m2, above 0
 */
export function endLosses({ row, index }: Spot, area: number): number {
  const before = row[index - 1]
  const after = row[index + 1]
  const other = (e: PathElement | undefined) => (isDuct(e) ? boreArea(e!) : null)
  let k = 0
  const wide = other(before)
  if (!before || isRoom(before)) k += K_ENTRANCE
  else if (!hasEntrance(before) && wide && wide > area) k += 0.5 * (1 - area / wide)
  const next = other(after)
  if (!after || after.kind === 'split') k += 1
  else if (after.kind === 'chamber') k += kExpansion(area, Math.max(after.areaM2 ?? Infinity, area))
  else if (!hasExit(after) && next && next > area) k += kExpansion(area, next)
  return k
}
