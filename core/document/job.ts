import type { CaptureOpening } from '#core/need'
import type { ReadingQuantity } from './run'

/**
 * A job's own inputs, in SI units (temperatures in degC, shares 0..1). null is "not known". Each goal has a part of its
 * own; some inputs (heat, volume, wall loss) serve several goals.
 */

export type Goal = 'cool' | 'part' | 'ventilate' | 'fume' | 'stir' | 'chill' | 'quieten'
export type HeatBasis = 'measured' | 'nameplate' | 'estimate'
export type KeepBasis = 'existing-fan' | 'temperature' | 'typed'
export type FumeWay = 'capture' | 'slot' | 'enclosure'
export type Lid = 'open' | 'mesh' | 'still'
export type Domain = 'general' | 'vehicle' | 'aircraft' | 'medical' | 'life-safety'
export type Side = 'front' | 'back' | 'left' | 'right' | 'top' | 'bottom'
export type AirOutlet = 'outdoors' | 'same-room' | 'other-room'

interface AboutInputs {
  id: string
  name: string
  /** the job this one is a variant of */
  variantOf: string | null
  goal: Goal
  equipment: string
  complaint: string
  untouchable: string
}

/** Where the planned openings are and where the air goes. */
interface BreathingInputs {
  breathesIn: string
  breathesOut: string
  /** planned direction of the air through the fan's opening, and as it is mounted */
  direction: 'in' | 'out' | null
  mountedDirection: 'in' | 'out' | null
  intakeSide: Side | null
  outletSide: Side | null
  intakeHeightM: number | null
  outletHeightM: number | null
  airOutlet: AirOutlet | null
  /** outlet to the nearest window, door or intake */
  outletToOpeningM: number | null
  /** joints and frame sealed */
  gasketed: boolean | null
  /** a flap closes the way outdoors when the fan is off */
  backflowFlap: boolean | null
  /** measured at the running fan's intake */
  intakeAirC: number | null
}

interface PlaceInputs {
  ambientC: number
  ambientMaxC: number | null
  altitudeM: number
  humidity: number
  hoursPerDay: number
  listenerM: number
  roomDbA: number | null
  margin: number | null
}

/** Cool a box or a part. */
interface HeatInputs {
  heatW: number | null
  heatBasis: HeatBasis
  insideMaxC: number | null
  wallLossWK: number | null
  /** refrigeration, thermoelectric or evaporation takes part */
  activeCooling: boolean | null
  partMaxC: number | null
  /** from the part to the surface that the air washes, K/W */
  partInnerKPerW: number | null
}

/** Change the air of a space. */
interface SpaceInputs {
  volumeM3: number | null
  airChangesPerH: number | null
  mixing: number | null
  clearS: number | null
  /** share of the first level that is clean enough */
  clearShare: number | null
  waterKgS: number | null
  insideC: number | null
  insideRhMax: number | null
  surfaceC: number | null
  co2M3s: number | null
  co2Max: number | null
  co2Fresh: number | null
}

/** Carry off fumes or dust. */
interface FumeInputs {
  fumeWay: FumeWay
  captureSpeedMs: number | null
  captureDistanceM: number | null
  nozzleAreaM2: number | null
  nozzleOpening: CaptureOpening
  slotLengthM: number | null
  slotFlanged: boolean
  leakAreaM2: number | null
  boxPressurePa: number | null
  workOpeningM2: number | null
  faceSpeedMs: number | null
  roomVolumeM3: number | null
  roomChangesPerH: number | null
  fumeRated: boolean | null
  carbonHours: number | null
  carbonLifeH: number | null
}

/** Stir a cold or drying box. */
interface StirInputs {
  turnoversPerH: number | null
  jetReachM: number | null
  jetSpeedMs: number | null
  cop: number | null
  dutyShare: number | null
  /** cooling (or heating) power of the box, W */
  boxPowerW: number | null
  contentsJK: number | null
  /** how much warmer than wanted after the door was open, and how near is near enough */
  warmedK: number | null
  nearK: number | null
}

/** Chill a water surface. */
interface WaterInputs {
  waterAreaM2: number | null
  waterC: number | null
  lid: Lid
  surfaceSpeedMs: number | null
  /** cross-section that the air crosses over the water */
  crossAreaM2: number | null
  coolingW: number | null
  reserveM3: number | null
  daysUnattended: number | null
}

/** Quieten what is there. */
interface KeepInputs {
  keepBasis: KeepBasis
  existingFanId: string | null
  existingCount: number
  existingV: number | null
  measuredRiseK: number | null
  typedFlowM3s: number | null
}

/** Whose numbers the plan believes: the sheet's, one's own where there are some, or claims less what this shelf has shown. */
export type Trust = 'claims' | 'own' | 'discounted'

interface ChoiceInputs {
  trust: Trust
  /** how the shaft will lie */
  shaft: 'horizontal' | 'vertical' | null
  /** guards, gasket, filter frame and screw heads together */
  stackExtraM: number | null
  /** screw pattern that is there already, centre to centre */
  existingHolesM: number | null
  /** hole that is there or will be cut, and the screw holes */
  holeM: number | null
  screwHoleM: number | null
  mountKind: 'screws' | 'clips' | 'adhesive' | 'ties' | null
  mountCapacityKg: number | null
  mountIsolated: boolean | null
  thinPanel: boolean | null
  panelHz: number | null
  /** impeller to the next grille, strut or guard on its intake side */
  upstreamGapM: number | null
}

interface SurroundingInputs {
  fitDepthM: number | null
  fitWidthM: number | null
  inletClearM: number | null
  outletClearM: number | null
  openingGapM: number | null
  baffled: boolean | null
  hotPartInPath: boolean | null
  mustNotFail: boolean | null
  mains: boolean | null
  flammable: boolean | null
  openFlue: boolean | null
  wet: boolean | null
  domain: Domain
  /** the plan opens a mains supply unit */
  opensSupply: boolean | null
  /** highest voltage that may be stored in it, and whether it was discharged and measured */
  storedV: number | null
  discharged: boolean | null
  earthRefitted: boolean | null
  /** combustion air confirmed by a competent person */
  supplyOpening: boolean | null
  laser: boolean | null
  lightBaffle: boolean | null
  /** an over-temperature cut-out that does not hang on the fan's control */
  thermalCutout: boolean | null
  adapterInWet: boolean | null
  /** hottest surface that can be touched */
  touchC: number | null
}

/** What the verdict is told: the change a person would report, how candidates were ranked, and when the care began. */
interface VerdictInputs {
  /** change that would be reported, as a share, and of which reading */
  statedChange: number | null
  statedOf: ReadingQuantity | null
  rankedBy: 'flow-per-loudness' | 'flow-per-money' | 'flow-per-decibel' | null
  /** ISO date that care is counted from; days between cleanings and filter changes, null for the usual */
  maintenanceFrom: string | null
  bladesDays: number | null
  filterDays: number | null
  /** €/kWh */
  tariff: number | null
}

export interface Job
  extends
    AboutInputs,
    BreathingInputs,
    PlaceInputs,
    HeatInputs,
    SpaceInputs,
    FumeInputs,
    StirInputs,
    WaterInputs,
    KeepInputs,
    SurroundingInputs,
    ChoiceInputs,
    VerdictInputs {}

/** The inputs that may be doubted: numbers the need is computed from. */
export const uncertainInputs = [
  'heatW',
  'wallLossWK',
  'insideMaxC',
  'ambientC',
  'partMaxC',
  'partInnerKPerW',
  'volumeM3',
  'airChangesPerH',
  'mixing',
  'waterKgS',
  'co2M3s',
  'captureSpeedMs',
  'captureDistanceM',
  'nozzleAreaM2',
  'slotLengthM',
  'leakAreaM2',
  'workOpeningM2',
  'turnoversPerH',
  'waterAreaM2',
  'waterC',
  'surfaceSpeedMs',
  'crossAreaM2',
  'measuredRiseK',
  'typedFlowM3s',
] as const satisfies (keyof Job)[]
export type UncertainInput = (typeof uncertainInputs)[number]

/** An equipment's own opening. */
export interface Port {
  id: string
  role: 'in' | 'out'
  name: string
  side: Side
  areaM2: number | null
  /** of its own fan, m3/s */ flowM3s: number | null
}

/** How sure a number is: a grade, or the range that was typed. */
export type UncertaintyGrade = 'measured' | 'good-guess' | 'rough-guess' | 'range'
export interface Uncertainty {
  id: UncertainInput
  grade: UncertaintyGrade
  low: number | null
  high: number | null
}

/** Resistance of a heatsink or part at an airflow, K/W. */
export interface SinkPoint {
  flowM3s: number
  kPerW: number
}
