import type { FanKind } from '#core/fan'

/** A fan of the shelf: everything its sheet says and its bench has shown, in SI units. null is "not known". */

export type CurveBasis = 'curve' | 'measured' | 'claim' | 'estimated'
/** What is on the end of its leads: bare, keyed header of 2, 3 or 4 positions, small 4-position, peripheral 4-position, barrel, USB. */
export type Connector =
  'bare' | 'header-2' | 'header-3' | 'header-4' | 'small-4' | 'peripheral' | 'barrel' | 'usb' | 'other'

export interface FanPoint {
  flowM3s: number
  pressurePa: number
}

/** A further curve of the same fan, at another voltage than rated. */
export interface VoltageCurve {
  volts: number
  basis: Exclude<CurveBasis, 'estimated'>
  points: FanPoint[]
}

/** Figures whose source is kept one by one. */
export const sourcedFigures = [
  'thicknessM',
  'holeSpacingM',
  'massKg',
  'startV',
  'ratedA',
  'ratedW',
  'ratedRpm',
  'maxFlowM3s',
  'maxPressurePa',
  'noiseDbA',
  'lifeH',
  'price',
] as const
export type SourcedFigure = (typeof sourcedFigures)[number]
export interface FigureSource {
  figure: SourcedFigure
  basis: CurveBasis
}

/** One test of one specimen on one's own bench. Flow is free delivery, pressure is at shut-off. */
export interface FanTest {
  id: string
  /** which of several alike: "A", "the one with the dot" */
  specimen: string
  /** ISO date and time */
  takenAt: string
  volts: number
  ambientC: number | null
  currentA: number | null
  startA: number | null
  startV: number | null
  rpm: number | null
  flowM3s: number | null
  pressurePa: number | null
  /** fastest air on the axis, for comparing only */
  airSpeedMs: number | null
  levelDbA: number | null
  levelDistanceM: number | null
  backgroundDbA: number | null
  notes: string
}

export interface Fan {
  id: string
  maker: string
  model: string
  kind: FanKind
  frameM: number
  thicknessM: number
  /** with a calliper */
  thicknessMeasuredM: number | null
  /** mounting holes, centre to centre; null: the usual pattern of the frame */
  holeSpacingM: number | null
  ratedV: number
  minV: number | null
  maxV: number | null
  startV: number | null
  /** voltage at which the speed line meets zero, V */
  interceptV: number | null
  ratedA: number | null
  /** power as printed */
  ratedW: number | null
  ratedRpm: number | null
  maxFlowM3s: number | null
  maxPressurePa: number | null
  /** the same claims printed a second time in another unit, to be held against the first */
  alsoFlowM3s: number | null
  alsoPressurePa: number | null
  noiseDbA: number | null
  /** distance of the noise claim; null when the sheet does not say */
  noiseDistanceM: number | null
  /** where the sheet tells sone instead */
  noiseSone: number | null
  wires: number | null
  connector: Connector | null
  /** lowest duty that keeps it turning, that starts it, and the share of full speed at the lowest */
  pwmMinDuty: number | null
  pwmStartDuty: number | null
  pwmMinSpeed: number | null
  blades: number | null
  bearing: 'sleeve' | 'ball' | 'fluid' | null
  /** how the sheet lets its shaft lie */
  shaftAllowed: 'any' | 'horizontal' | 'vertical' | null
  lifeH: number | null
  /** temperature that the life is stated at */
  lifeC: number | null
  massKg: number | null
  ipSolid: number | null
  ipWater: number | null
  minAirC: number | null
  maxAirC: number | null
  price: number | null
  /** ISO date of the price */
  priceOn: string | null
  /** on the maker's own shelf */
  owned: boolean
  curveBasis: CurveBasis
  notes: string
  points: FanPoint[]
  curves: VoltageCurve[]
  sources: FigureSource[]
  tests: FanTest[]
  /** how its numbers were corrected for a plan; never stored */
  trusted?: Trusted
}

/** A corrected figure: what the number is multiplied by, and between what that may lie. */
export interface Correction {
  middle: number
  low: number
  high: number
  from: 'own' | 'shelf'
}
/** Flow, pressure, current and speed as factors; level as dB to add. */
export type TestFigure = 'flow' | 'pressure' | 'current' | 'rotation' | 'level'
export type Trusted = Partial<Record<TestFigure, Correction>>

/** What the tests of a shelf say about claims, figure by figure: median and range over fans, and how many fans were tested. */
export interface ShownFigure {
  median: number
  low: number
  high: number
  fans: number
}
export type ShelfShown = Partial<Record<TestFigure, ShownFigure>>
