import type { AirState } from '#core/air'
import type { UncertainInput, Fan, HeatBasis, Job, StreamPlan } from '#core/document'
import { input, type Figure, type FigureBasis, type FigureInput } from '#core/figure'
import type { PathModel } from '#core/system'

/** What a need may rest on besides the job's own inputs. */
export interface NeedEnv {
  plan: StreamPlan
  air: AirState
  path: PathModel
  fans: readonly Fan[]
  /** bore the air leaves the fan by, m; null before one is known */
  outletBoreM: number | null
}

/** What the picked fan really gives. */
export interface Delivered {
  /** doing the job, m3/s */
  flow: number | null
  low: number | null
  high: number | null
  /** all fans together, W */
  powerW: number | null
}

export interface Working {
  label: string
  formula: string
  source: string
  inputs: FigureInput[]
  basis: FigureBasis
  note: string
}

/** One kind of goal: from its inputs to the airflow, and what that means. */
export interface GoalNeed {
  /** what is still missing, in words */
  missing: (job: Job, env: NeedEnv) => string | null
  /** airflow needed, m3/s; null where it does not exist */
  flow: (job: Job, env: NeedEnv) => number | null
  working: (job: Job, env: NeedEnv) => Working
  /** what else the maker wants to know, at the flow the plan gets */
  extras: (job: Job, env: NeedEnv, delivered: Delivered) => Figure[]
  /** inputs whose doubt is carried through */
  uncertainties: readonly UncertainInput[]
}

/**
 * Doubt of the heat where nobody graded it: measured ±5 %; a guess ±30 %; a label is the most it can be, often 2 to 4
 * times the real heat. Common practice, no source.
 */
export const heatUncertainty: Record<HeatBasis, [number, number]> = {
  measured: [0.95, 1.05],
  nameplate: [0.4, 1],
  estimate: [0.7, 1.3],
}

/** The heat as an input of a working. */
export const heatInput = (job: Job) => input('P', 'heat released inside', job.heatW, 'power')
/** The air density as an input of a working. */
export const densityInput = (air: AirState) => input('ρ', 'air density', air.density, 'density')
/** What the heat rests on, in words. */
export const heatNote = (job: Job) =>
  `Heat is ${job.heatBasis === 'measured' ? 'measured' : job.heatBasis === 'nameplate' ? 'a label’s most' : 'a guess'}.`
/** What a figure rests on that comes from the heat. */
export const heatFigureBasis = (job: Job): FigureBasis =>
  job.heatBasis === 'measured' ? 'computed' : 'estimated'
/** First of the named inputs that is not known. */
export const firstMissing = (job: Job, wanted: [keyof Job, string][]): string | null =>
  wanted.find(([key]) => job[key] === null)?.[1] ?? null

/**
 * Largest of the flows that exist; null where none does.
 * @param flows m3/s
 */
export function largest(flows: readonly (number | null)[]): number | null {
  const known = flows.filter((x) => x !== null)
  return known.length ? Math.max(...known) : null
}
