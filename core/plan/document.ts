import type { EdgeKind } from '../airpath'
import type { FanKind } from '../fan'
import type { ConverterKind, SupplyKind } from '../power'
import type { Quantity } from '../units'

/** The plan document: everything a job holds, in SI units (temperatures in degC, shares 0..1). null is "not known". */

export type Goal = 'cool' | 'ventilate' | 'quieten'
export type HeatBasis = 'measured' | 'nameplate' | 'estimate'
export type KeepBasis = 'existing-fan' | 'temperature' | 'typed'
export type Arrangement = 'single' | 'parallel' | 'series'
export type CurveBasis = 'curve' | 'measured' | 'claim' | 'estimated'
export type Domain = 'general' | 'vehicle' | 'aircraft' | 'medical' | 'life-safety'

export interface FanPoint { flowM3s: number, pressurePa: number }

export interface Fan {
  id: string
  maker: string
  model: string
  kind: FanKind
  frameM: number
  thicknessM: number
  ratedV: number
  minV: number | null
  maxV: number | null
  startV: number | null
  /** voltage at which the speed line meets zero, V */
  interceptV: number | null
  ratedA: number | null
  ratedRpm: number | null
  maxFlowM3s: number | null
  maxPressurePa: number | null
  noiseDbA: number | null
  /** distance of the noise claim; null when the sheet does not say */
  noiseDistanceM: number | null
  wires: number | null
  bearing: 'sleeve' | 'ball' | 'fluid' | null
  massKg: number | null
  ipWater: number | null
  maxAirC: number | null
  price: number | null
  /** on the maker's own shelf */
  owned: boolean
  curveBasis: CurveBasis
  notes: string
  points: FanPoint[]
}

export type ElementKind = 'opening' | 'grille' | 'filter' | 'duct' | 'bend' | 'chamber' | 'custom' | 'fan'
export type ElementBasis = 'measured' | 'sheet' | 'good-guess' | 'rough-guess'

export interface PathElement {
  id: string
  kind: ElementKind
  name: string
  basis: ElementBasis
  /** opening, grille: gross area; filter: face; chamber: cross-section */
  areaM2: number | null
  freeAreaRatio: number | null
  edge: EdgeKind | null
  /** key of the filter table, or 'sheet' with c1 and c2 */
  medium: string | null
  c1: number | null
  c2: number | null
  /** 1 clean, 2 loaded */
  loadFactor: number | null
  diameterM: number | null
  lengthM: number | null
  /** key of the surface table */
  surface: string | null
  /** friction multiplier of a slack hose, 1 stretched */
  slack: number | null
  radiusRatio: number | null
  angleDeg: number | null
  count: number | null
  a: number | null
  b: number | null
}

export type TargetKind = 'temperature' | 'level' | 'flow' | 'money'
export interface Target { id: string, kind: TargetKind, limit: number, place: string, why: string }

export interface Pick { id: string, fanId: string, count: number, arrangement: Arrangement, driveV: number }

export interface Source {
  id: string
  kind: SupplyKind
  name: string
  nominalV: number | null
  lowV: number | null
  highV: number | null
  iMaxA: number | null
  iPeakA: number | null
  regulated: boolean | null
  output: 'dc' | 'ac'
  wireAwg: number | null
  wireLengthM: number | null
  fuseA: number | null
  fuseFitted: boolean | null
  polarityChecked: boolean | null
}

export interface Converter {
  id: string
  kind: Exclude<ConverterKind, 'none'>
  outV: number
  iMaxA: number | null
  efficiency: number | null
  dropoutV: number | null
  adjustable: boolean
  /** set and measured before the fan was connected */
  setFirst: boolean
  measuredV: number | null
}

export interface Load { id: string, name: string, count: number, currentA: number, startA: number | null, afterConverter: boolean }

export type ReadingQuantity = Extract<Quantity, 'temperature' | 'level' | 'flow' | 'pressure' | 'rotation' | 'voltage' | 'current' | 'power'>
export interface Reading { id: string, quantity: ReadingQuantity, place: string, value: number }

export type RunKind = 'baseline' | 'after'
export interface Run {
  id: string
  kind: RunKind
  name: string
  /** ISO date and time */
  takenAt: string
  fanV: number | null
  voltageAt: 'fan' | 'supply' | null
  ambientC: number | null
  heatW: number | null
  distanceM: number | null
  soakS: number | null
  steady: boolean | null
  lid: 'open' | 'closed' | null
  backgroundDbA: number | null
  instrument: 'phone' | 'class2' | 'class1' | null
  floorDbA: number | null
  changes: number | null
  notes: string
  readings: Reading[]
}

export interface Job {
  id: string
  name: string
  goal: Goal
  equipment: string
  complaint: string
  untouchable: string
  breathesIn: string
  breathesOut: string
  /** planned direction of the air through the fan's opening */
  direction: 'in' | 'out' | null
  ambientC: number
  ambientMaxC: number | null
  altitudeM: number
  humidity: number
  hoursPerDay: number
  listenerM: number
  roomDbA: number | null
  margin: number | null
  // cool a box
  heatW: number | null
  heatBasis: HeatBasis
  insideMaxC: number | null
  wallLossWK: number | null
  // ventilate
  volumeM3: number | null
  airChangesPerH: number | null
  // quieten
  keepBasis: KeepBasis
  existingFanId: string | null
  existingCount: number
  existingV: number | null
  measuredRiseK: number | null
  typedFlowM3s: number | null
  // space and surroundings
  fitDepthM: number | null
  fitWidthM: number | null
  inletClearM: number | null
  outletClearM: number | null
  openingGapM: number | null
  baffled: boolean | null
  hotPartInPath: boolean | null
  mustNotFail: boolean | null
  // what can hurt
  mains: boolean | null
  flammable: boolean | null
  openFlue: boolean | null
  wet: boolean | null
  domain: Domain
}

export interface PlanDocument {
  job: Job
  targets: Target[]
  path: PathElement[]
  pick: Pick | null
  source: Source | null
  converter: Converter | null
  loads: Load[]
  runs: Run[]
}

/** A plan with the fans it speaks of: what the report is computed from. */
export interface PlanInput { plan: PlanDocument, fans: readonly Fan[] }
