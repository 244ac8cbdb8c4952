import type { AirState } from '#core/air'
import type { Passage } from '#core/airpath'
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
  /** what is still missing before it counts */
  missing: string | null
  formula: string
  inputs: FigureInput[]
  source: string
  /** doubt of the drop, 95 times in 100: it may be more by this share, or less by the factor 1/(1 + share) */
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
      /** of the coefficient itself, beside what its size rests on */
      doubt?: number
    }
export type Modeler = (element: PathElement, spot: Spot) => Made

/**
 * Doubt of an element's loss by what it rests on: sums of loss coefficients ±30 % until measured. Common practice, no
 * source. What the coefficient itself is doubted by (a filter medium, a piece with a band) comes on top, as squares.
 */
export const uncertaintyOf: Record<ElementBasis, number> = {
  measured: 0.1,
  sheet: 0.2,
  'good-guess': 0.3,
  'rough-guess': 0.5,
  // a size within a factor of about 1.4 either way
  assumed: 0.75,
}

/** An element that is not complete, and what it lacks. */
export const lacks = (missing: string): Made => ({ missing })
/** Density of the air of a spot, kg/m3. */
export const rho = ({ air }: Spot) => input('ρ', 'air density', air.density, 'density')
/** Viscosity that loss coefficients of media are stated at, Pa.s (20 degC). */
export const REFERENCE_VISCOSITY = 1.81e-5
