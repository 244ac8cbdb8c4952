import type { Chemistry, ConverterKind, SupplyKind, UsbKind } from '#core/power'

/** The feed of a plan: one source, the converter that drives the picked fans, and everything else that hangs on either. SI units. */

export type WireConnector =
  | 'header'
  | 'pin-housing'
  | 'wire-to-board'
  | 'small-1.25'
  | 'barrel'
  | 'peripheral'
  | 'xt30'
  | 'spade'
  | 'screw'
  | 'usb-a'
  | 'usb-c'
  | 'splice'

/** A lead: both conductors of one run. */
export interface Lead {
  wireAwg: number | null
  wireLengthM: number | null
}

export interface Source extends Lead {
  id: string
  kind: SupplyKind
  name: string
  nominalV: number | null
  lowV: number | null
  highV: number | null
  /** measured without load */
  openV: number | null
  iMaxA: number | null
  iPeakA: number | null
  regulated: boolean | null
  output: 'dc' | 'ac'
  fuseA: number | null
  fuseFitted: boolean | null
  /** from the battery's terminal */
  fuseDistanceM: number | null
  polarityChecked: boolean | null
  usbKind: UsbKind | null
  /** a Type-C source whose lead shows its pull-downs; null: no Type-C */
  typeCPullDown: boolean | null
  /** which tap of a peripheral plug */
  tap: '12V' | '5V' | '7V' | null
  /** load on the 5 V rail, for the 7 V trick */
  fiveLoadA: number | null
  transientProtected: boolean | null
  /** its plug can go in the wrong way */
  reversible: boolean | null
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
  /** resistor, or the upper one of a divider; ohm2 the lower */
  ohm: number | null
  ohm2: number | null
  ratingW: number | null
  diodes: number | null
  /** chopped supply: share on, frequency, which side, diode across the fan */
  duty: number | null
  pwmHz: number | null
  switchSide: 'high' | 'low' | null
  flyback: boolean | null
  /** linear: junction to air, K/W, and its capacitors */
  junctionToAirKPerW: number | null
  capsFitted: boolean | null
  /** capacitor across the fan */
  capV: number | null
}

export type LoadKind = 'fan' | 'led' | 'module' | 'board' | 'pump' | 'other'

/** A further converter, a branch point, or a load, on its own lead below the source, a converter or a branch. */
export interface FeedPart extends Lead {
  id: string
  /** null: straight on the source; else the id of the plan's converter or of another part */
  parentId: string | null
  kind: 'converter' | 'branch' | 'load'
  name: string
  fuseA: number | null
  /** converter */
  converterKind: 'buck' | 'boost' | 'linear' | 'resistor' | null
  outV: number | null
  iMaxA: number | null
  efficiency: number | null
  ohm: number | null
  setFirst: boolean | null
  /** load */
  loadKind: LoadKind | null
  count: number
  /** running current of one at its rated voltage */
  currentA: number | null
  startA: number | null
  ratedV: number | null
  fanId: string | null
  /** LEDs of one string, and the drop of each */
  ledString: number | null
  ledV: number | null
}

/** How the picked fans are wired. */
export interface Wiring {
  plusColour: string
  minusColour: string
  identifiedBy: 'position' | 'measurement' | 'colour' | null
  connector: WireConnector | null
  join: 'adapter' | 'cut' | null
  strainRelief: boolean | null
  reverseProtected: boolean | null
  routeM: number | null
  /** loaded conductors in the bundle, rating of the insulation, air beside it */
  bundle: number | null
  insulationC: number | null
  wireAirC: number | null
  /** tach and PWM */
  tachUsed: boolean | null
  tachJoined: number | null
  hub: 'none' | 'passive' | 'powered' | null
  headerMode: 'pwm' | 'voltage' | null
  pwmSinkA: number | null
  pwmPinV: number | null
  electricalSeries: boolean | null
  barrelPlugM: number | null
  barrelJackM: number | null
  crimpPullN: number | null
  /** heat-shrink over a splice: bore as supplied and ratio */
  shrinkBoreM: number | null
  shrinkRatio: number | null
  switchDcV: number | null
  switchDcA: number | null
}

export interface Battery {
  id: string
  chemistry: Chemistry
  cells: number | null
  /** capacity at cell voltage, C */
  chargeCoulomb: number | null
  cellV: number | null
  depth: number | null
  maxA: number | null
  autoOffA: number | null
  idleW: number | null
  protectedPack: boolean | null
  coldC: number | null
  chargedCold: boolean | null
  airTravel: boolean | null
  /** whose voltage the printed capacity was multiplied with */
  energyBasis: 'cell-voltage' | 'output-voltage'
  wishedS: number | null
  /** of the time on, 0..1; null: the job's hours */
  dutyShare: number | null
}

export interface Sun {
  id: string
  panelW: number | null
  panelVoc: number | null
  panelVmp: number | null
  controller: 'tracking' | 'series' | 'none'
  /** peak-sun hours of the months, January first */
  sunHours: number[]
  wishedDays: number | null
}
