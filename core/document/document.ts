import type { EdgeKind, HolePattern } from '#core/airpath'
import type { Fan, ShelfShown } from './fan'
import type { Battery, Converter, FeedPart, Source, Sun, Wiring } from './feed'
import type { Uncertainty, Job, Port, SinkPoint } from './job'
import type { Run } from './run'

export * from './fan'
export * from './feed'
export * from './job'
export type * from './run'

/** The plan document: everything a job holds, in SI units (temperatures in degC, shares 0..1). null is "not known". */

/** Side by side, one behind the other at one place, or one at each of two places of the path (pressures add, no stage disturbs the other). */
export type Arrangement = 'single' | 'parallel' | 'series' | 'places'

export type ElementKind =
  | 'opening'
  | 'slot'
  | 'grille'
  | 'hood'
  | 'filter'
  | 'duct'
  | 'bend'
  | 'reducer'
  | 'wye'
  | 'damper'
  | 'flap'
  | 'fins'
  | 'adapter'
  | 'chamber'
  | 'outlet'
  | 'custom'
  | 'split'
  | 'fan'
export type ElementBasis = 'measured' | 'sheet' | 'good-guess' | 'rough-guess'

/** A measured or data-sheet point of a loss. */
export interface LossPoint {
  flowM3s: number
  pressurePa: number
}

export interface PathElement {
  id: string
  kind: ElementKind
  name: string
  /** the branch it stands in; null in the main row */
  branchId: string | null
  basis: ElementBasis
  /** which of a kind: round or mitre bend, plate or mesh, blade or slide, ... */
  style: string | null
  /** opening, grille: gross area; filter: face; chamber: cross-section */
  areaM2: number | null
  freeAreaRatio: number | null
  pattern: HolePattern | null
  holeM: number | null
  pitchM: number | null
  edge: EdgeKind | null
  /** key of the filter table, or 'sheet' with c1 and c2 */
  medium: string | null
  c1: number | null
  c2: number | null
  /** 1 clean, 2 loaded */
  loadFactor: number | null
  diameterM: number | null
  /** the other end of a reducer or adapter */
  diameter2M: number | null
  /** rectangular duct, slot length, fins across */
  widthM: number | null
  heightM: number | null
  lengthM: number | null
  /** between fins */
  gapM: number | null
  finM: number | null
  grainM: number | null
  /** key of the surface table */
  surface: string | null
  /** friction multiplier of a slack hose, 1 stretched */
  slack: number | null
  radiusRatio: number | null
  angleDeg: number | null
  count: number | null
  a: number | null
  b: number | null
  points: LossPoint[]
}

/** One way of a split: its elements stand in the path with its id. */
export interface Branch {
  id: string
  /** the split element it belongs to */
  splitId: string
  name: string
  /** air that passes here does not do the job */
  leak: boolean
}

export type CalibrationKind = 'flow' | 'pairs' | 'rise'
/** What was measured on the real path, to scale it by. */
export interface Calibration {
  id: string
  kind: CalibrationKind
  /** the plan uses it; the guess stays to compare */
  used: boolean
  /** the fan that ran, and how */
  fanId: string | null
  count: number
  volts: number | null
  /** one delivered flow */
  flowM3s: number | null
  /** rise of the air at a known heat */
  heatW: number | null
  riseK: number | null
  /** flow and pressure pairs over the whole path */
  points: LossPoint[]
}

export type TargetKind = 'temperature' | 'level' | 'flow' | 'runtime' | 'money' | 'thickness'
export interface Target {
  id: string
  kind: TargetKind
  limit: number
  place: string
  setBy: string
  why: string
}

/** The chosen group. `secondFanId` is the other one of an unlike pair; `duty` drives the PWM wire, null without. */
export interface FanSelection {
  id: string
  fanId: string
  secondFanId: string | null
  count: number
  arrangement: Arrangement
  driveV: number
  duty: number | null
}

export interface PlanDocument {
  job: Job
  targets: Target[]
  ports: Port[]
  uncertainties: Uncertainty[]
  /** resistance of the part over airflow, rising in flow */
  sink: SinkPoint[]
  path: PathElement[]
  branches: Branch[]
  calibration: Calibration | null
  selection: FanSelection | null
  source: Source | null
  converter: Converter | null
  /** what else the source feeds */
  feed: FeedPart[]
  wiring: Wiring
  battery: Battery | null
  sun: Sun | null
  runs: Run[]
}

/** A plan with the fans it speaks of: what the report is computed from. */
export interface PlanInput {
  plan: PlanDocument
  fans: readonly Fan[]
  /** how claims held on this shelf, for plans that discount them */ shown?: ShelfShown | null
}

/** Ids of the fans a plan speaks of. */
export const fanIdsOf = (plan: PlanDocument): string[] =>
  [
    plan.selection?.fanId,
    plan.selection?.secondFanId,
    plan.job.existingFanId,
    plan.calibration?.fanId,
    ...plan.feed.map((f) => f.fanId),
  ].filter((id) => typeof id === 'string')
