import { converterOf, sourceOf, type FansAt, type StreamPlan } from '#core/document'
import { noFilter, type ShelfFilter } from './shelf-filter'

export type Objective =
  'quietest' | 'margin' | 'cheapest' | 'power' | 'thinnest' | 'loudness' | 'value' | 'weights'
/**
 * How the fans may be driven: any voltage a converter can be set to, only the voltages that are there, the label's, or
 * the duty on the PWM wire.
 */
export type DriveMode = 'any' | 'rails' | 'rated' | 'pwm'
/** How much each wish counts, 0..1. */
export interface Weights {
  quiet: number
  margin: number
  power: number
  cheap: number
  thin: number
}

/** The place that fans are sought for, and who stays at the other one. */
export interface PlaceSought {
  placeId: string
  others: FansAt[]
}

export interface RankOptions {
  objective: Objective
  weights: Weights
  /**
   * fans side by side to try (in each of openings alike, and at each of two places), whether to try two in series, fans
   * at two places, and unlike pairs
   */
  counts: readonly number[]
  series: boolean
  places: boolean
  pairs: boolean
  /** only the fans of one place are sought, those at others stay; null: for all places */
  place: PlaceSought | null
  drive: DriveMode
  /** voltages that are there, V, for the drive 'rails' and as what PWM fans are fed */
  rails: readonly number[]
  /** how many levels to try between the safe start and rated, or of duty */
  levels: number
  /** only this voltage, where the drive cannot be chosen */
  fixedV: number | null
  filter: ShelfFilter
  /** groups computed in full: all of a usual shelf, the best of a huge one */
  rows: number
}

export const evenWeights: Weights = { quiet: 1, margin: 0.5, power: 0.25, cheap: 0.25, thin: 0 }
/** Taps that equipment and peripheral plugs commonly have, V. */
export const COMMON_TAPS = [5, 12, 24] as const

export const defaultRank: RankOptions = {
  objective: 'quietest',
  weights: evenWeights,
  counts: [1, 2, 3, 4],
  series: true,
  places: false,
  pairs: false,
  place: null,
  drive: 'any',
  rails: COMMON_TAPS,
  levels: 10,
  fixedV: null,
  filter: noFilter,
  rows: 600,
}

/** The voltages a plan has: its source and what its converter is set to, beside the common taps. */
export const railsOf = (plan: StreamPlan): number[] =>
  [
    ...new Set([
      ...COMMON_TAPS,
      ...([sourceOf(plan)?.nominalV, converterOf(plan)?.outV].filter(
        (v) => typeof v === 'number' && v > 0,
      ) as number[]),
    ]),
  ].sort((a, b) => a - b)
