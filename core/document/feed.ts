import { z } from 'zod'
import { supplyDefaults, type SupplyKind } from '#core/power'
import { defaultsOf, idSchema, limits, line, maybe, share, shortText, whole, within, yesNo } from './fields'

/**
 * The feed of a plan: its sources, and what hangs on them as one list of parts, each naming what it hangs on: converters,
 * branches, switches, loads, and the leads of the streams' fans. SI units.
 */

const gauge = maybe(
  z.number().int().min(10, 'Not thicker than 10 AWG here.').max(30, 'Not thinner than 30 AWG.'),
)
const metric = maybe(within(0.05, 10))
const length = maybe(z.number().gt(0, 'A wire has a length above zero.').max(100, 'Not above 100 m.'))
const ohms = maybe(z.number().gt(0, 'Must be above zero.').max(1e6, 'Not above 1 MΩ.'))
const amps = maybe(within(0.0001, 200))
const fuse = maybe(within(0.01, 100))
const efficiency = maybe(within(0.05, 1))

const supplyKinds = [
  'adapter',
  'rail',
  'tap',
  'header',
  'usb',
  'power-bank',
  'pack',
  'house-battery',
  'vehicle',
  'solar',
  'none',
] as const
const usbKinds = [
  'usb2-unconfigured',
  'usb2-configured',
  'usb3-unconfigured',
  'usb3-configured',
  'bc12',
  'typec-1A5',
  'typec-3A',
  'pd-15W',
  'pd-27W',
  'pd-45W',
  'pd-100W',
] as const
const wireConnectors = [
  'header',
  'pin-housing',
  'wire-to-board',
  'small-1.25',
  'barrel',
  'peripheral',
  'xt30',
  'xt60',
  'spade-2.8',
  'spade-4.8',
  'spade',
  'screw',
  'usb-a',
  'usb-c',
  'splice',
] as const

/** A lead: both conductors of one run. */
const leadShape = { wireAwg: gauge, wireMm2: metric, wireLengthM: length }

export const sourceSchema = z.object({
  id: idSchema,
  kind: z.enum(supplyKinds),
  name: line,
  nominalV: maybe(limits.voltage),
  lowV: maybe(limits.voltage),
  highV: maybe(limits.voltage),
  /** measured without load */
  openV: maybe(limits.voltage),
  iMaxA: maybe(within(0.001, 200)),
  iPeakA: maybe(within(0.001, 400)),
  regulated: yesNo,
  output: z.enum(['dc', 'ac']).default('dc'),
  fuseA: fuse,
  fuseFitted: yesNo,
  /** family that its values and its curve come from */
  fuseFamily: maybe(z.enum(['iec60127', 'ul248', 'blade'])),
  /** from the battery's terminal */
  fuseDistanceM: maybe(within(0, 50)),
  polarityChecked: yesNo,
  usbKind: maybe(z.enum(usbKinds)),
  /** a Type-C source whose lead shows its pull-downs; null: no Type-C */
  typeCPullDown: yesNo,
  /** which tap of a peripheral plug */
  tap: maybe(z.enum(['12V', '5V', '7V'])),
  /** load on the 5 V rail, for the 7 V trick */
  fiveLoadA: maybe(limits.current),
  transientProtected: yesNo,
  /** its plug can go in the wrong way */
  reversible: yesNo,
})
export interface Source extends z.infer<typeof sourceSchema> {}

/** The fuse at a source, A; null where none is fitted, or none is known. */
export const sourceFuse = ({ fuseFitted, fuseA }: Source): number | null =>
  fuseFitted === false ? null : fuseA

/** Kinds of source that come in several voltages. */
const ofAnyVoltage: SupplyKind[] = ['adapter', 'rail']

/**
 * A source of a kind with what is usual for it; the ends of its window stay open, so that they follow its kind.
 * @param fanV rated voltage of the chosen fan, V, which a source of any voltage is taken at
 */
export function newSource(id: string, kind: SupplyKind, fanV: number | null = null): Source {
  const volts = ofAnyVoltage.includes(kind) ? fanV : null
  const usual = supplyDefaults.find((s) => s.kind === kind)
  return {
    ...defaultsOf(sourceSchema),
    id,
    kind,
    name: usual?.name ?? 'Nothing yet',
    nominalV: volts ?? usual?.nominalV ?? null,
    iMaxA: usual?.iMaxA ?? null,
    regulated: kind === 'adapter' || kind === 'usb' || kind === 'tap' ? true : null,
    usbKind: kind === 'usb' ? 'usb2-configured' : null,
  }
}

/** What may stand between a source and a load and change the voltage, with what it is called where nobody named it. */
export const converterNames = {
  buck: 'Step-down converter',
  boost: 'Step-up converter',
  linear: 'Linear regulator',
  resistor: 'Series resistor',
  divider: 'Voltage divider',
  diode: 'Series diodes',
  pwm: 'Switched supply (PWM)',
} as const
export type ConverterKind = keyof typeof converterNames
const converterKinds = Object.keys(converterNames) as [ConverterKind, ...ConverterKind[]]

const converterShape = {
  converterKind: maybe(z.enum(converterKinds)),
  /** wished at its output; null: what comes of its parts */
  outV: maybe(within(0.5, 60)),
  iMaxA: amps,
  efficiency,
  dropoutV: maybe(within(0, 20)),
  adjustable: z.boolean().default(true),
  /** set and measured before anything was connected */
  setFirst: yesNo,
  measuredV: maybe(limits.voltage),
  /** resistor, or the upper one of a divider; ohm2 the lower */
  ohm: ohms,
  ohm2: ohms,
  ratingW: maybe(within(0.01, 500)),
  /** diodes in series: how many, and their kind */
  diodes: maybe(whole(1, 20)),
  diodeKind: maybe(z.enum(['silicon', 'schottky'])),
  /**
   * chopped supply: share on, frequency, which side, diode across the fan; of the fans' lead the share on their PWM wire,
   * null where that is not used
   */
  duty: maybe(within(0.01, 1)),
  pwmHz: maybe(within(0.1, 1e6)),
  switchSide: maybe(z.enum(['high', 'low'])),
  flyback: yesNo,
  /** linear: junction to air, K/W, and its capacitors */
  junctionToAirKPerW: maybe(within(0.1, 500)),
  capsFitted: yesNo,
  /** capacitor across the fan */
  capV: maybe(within(1, 1000)),
}

/** What can open and close a lead. */
const switchKinds = ['hand', 'relay', 'timer', 'thermal-no', 'thermal-nc', 'thermostat'] as const
export type SwitchKind = (typeof switchKinds)[number]

/** A converter, a branch point, a switch, or a load, on its own lead. */
export const feedPartSchema = z.object({
  id: idSchema,
  /** id of the source or part that it hangs on; null: of nothing yet */
  parentId: maybe(idSchema),
  kind: z.enum(['converter', 'branch', 'load', 'switch']),
  name: shortText.min(1, 'Name it.'),
  ...leadShape,
  fuseA: fuse,
  ...converterShape,
  /** switch */
  switchKind: maybe(z.enum(switchKinds)),
  /** what its contact may open, DC */
  contactV: maybe(within(0.1, 1000)),
  contactA: maybe(within(0.01, 200)),
  /** a diode across the load takes the spark */
  sparkDiode: yesNo,
  /** temperatures at which it closes and opens, and where its sensor sits */
  onC: maybe(within(-40, 250)),
  offC: maybe(within(-40, 250)),
  sensorAt: line,
  /** what its coil or electronics draw while it is closed */
  coilA: maybe(within(0, 2)),
  /** load */
  loadKind: maybe(z.enum(['fan', 'led', 'module', 'board', 'pump', 'other'])),
  count: whole(1, 200).default(1),
  /** running current of one at its rated voltage */
  currentA: maybe(limits.current),
  startA: maybe(limits.current),
  ratedV: maybe(limits.voltage),
  fanId: maybe(idSchema),
  /** the lead of an air stream's fans: which fans, and how many, is the stream's */
  streamId: maybe(idSchema),
  /** of such a lead that no voltage reaches yet: the one that its fans are to get */
  wishV: maybe(within(0.5, 60)),
  /** LEDs of one string, and the drop of each */
  ledString: maybe(whole(1, 30)),
  ledV: maybe(within(0.5, 10)),
  ledColour: maybe(z.enum(['red', 'yellow', 'green', 'blue', 'white'])),
})
export interface FeedPart extends z.infer<typeof feedPartSchema> {}
export type LoadKind = NonNullable<FeedPart['loadKind']>
/** A part that changes the voltage. */
export interface Converter extends FeedPart {
  kind: 'converter'
  converterKind: ConverterKind
}
export const isConverter = (part: FeedPart): part is Converter =>
  part.kind === 'converter' && part.converterKind !== null
/** The lead of a stream's fans. */
export interface FansLead extends FeedPart {
  kind: 'load'
  streamId: string
}
export const isFansLead = (part: FeedPart): part is FansLead => part.streamId !== null

const partNames = { load: 'Load', branch: 'Branch', converter: converterNames.buck, switch: 'Switch' }
const usualPart: Record<FeedPart['kind'], Partial<FeedPart>> = {
  load: { loadKind: 'other' },
  branch: {},
  converter: { converterKind: 'buck', outV: 5, setFirst: false },
  switch: { switchKind: 'hand' },
}
/** A part of the feed with what is usual for its kind. */
export const newFeedPart = (id: string, kind: FeedPart['kind'], parentId: string | null): FeedPart => ({
  ...defaultsOf(feedPartSchema),
  id,
  parentId,
  kind,
  name: partNames[kind],
  ...usualPart[kind],
})

/** A converter of a kind that is to give a voltage, V, not set yet. */
export const newConverter = (
  id: string,
  outV: number | null,
  converterKind: ConverterKind = 'buck',
): Converter => ({
  ...newFeedPart(id, 'converter', null),
  kind: 'converter',
  name: converterNames[converterKind],
  converterKind,
  outV,
})

/** The lead of a stream's fans, on nothing yet. */
export const fansLead = (streamId: string, name: string): FansLead => ({
  ...newFeedPart(`lead-${streamId}`.slice(0, 64), 'load', null),
  kind: 'load',
  name: name || 'Fans',
  loadKind: 'fan',
  streamId,
})

/** What is wrong with the temperatures of a thermal switch; null where nothing is. */
export function switchProblem({ switchKind, onC, offC }: FeedPart): string | null {
  if (onC === null || offC === null || switchKind === null) return null
  if ((switchKind === 'thermal-no' || switchKind === 'thermostat') && onC <= offC)
    return `It closes at ${onC} °C and opens at ${offC} °C: one that closes when it gets warm opens below that.`
  if (switchKind === 'thermal-nc' && onC >= offC)
    return `It opens at ${offC} °C and closes at ${onC} °C: one that opens when it gets warm closes below that.`
  return null
}

/** How the selected fans are wired. */
export const wiringSchema = z.object({
  plusColour: shortText.default('red'),
  minusColour: shortText.default('black'),
  identifiedBy: maybe(z.enum(['position', 'measurement', 'colour'])),
  connector: maybe(z.enum(wireConnectors)),
  join: maybe(z.enum(['adapter', 'cut'])),
  strainRelief: yesNo,
  reverseProtected: yesNo,
  routeM: length,
  /** loaded conductors in the bundle, rating of the insulation, air beside it */
  bundle: maybe(whole(1, 40)),
  insulationC: maybe(within(40, 260)),
  wireAirC: maybe(within(-40, 150)),
  /** where the tach wire goes: open and insulated, a host's header, a controller, an alarm, an input not told further */
  tachTo: maybe(z.enum(['open', 'host', 'controller', 'alarm', 'input'])),
  tachJoined: maybe(whole(0, 50)),
  /** what the PWM wire comes from: nothing, a host's header, a controller, or 5 V through a resistor */
  pwmFrom: maybe(z.enum(['open', 'host', 'controller', 'tied'])),
  pwmTieOhm: ohms,
  /** ground of what steers and ground of what feeds are one */
  groundsJoined: yesNo,
  hub: maybe(z.enum(['none', 'passive', 'powered'])),
  headerMode: maybe(z.enum(['pwm', 'voltage'])),
  pwmSinkA: maybe(within(0, 1)),
  pwmPinV: maybe(limits.voltage),
  electricalSeries: yesNo,
  barrelPlugM: maybe(within(0.0005, 0.02)),
  barrelJackM: maybe(within(0.0005, 0.02)),
  crimpPullN: maybe(within(0, 5000)),
  /** heat-shrink over a splice: bore as supplied and ratio */
  shrinkBoreM: maybe(within(0.0005, 0.1)),
  shrinkRatio: maybe(within(1.5, 4)),
  switchDcV: maybe(within(0, 1000)),
  switchDcA: maybe(within(0, 200)),
})
export interface Wiring extends z.infer<typeof wiringSchema> {}
export type WireConnector = NonNullable<Wiring['connector']>
/** Wiring of which only the usual colours are known. */
export const newWiring = (): Wiring => defaultsOf(wiringSchema)

export const batterySchema = z.object({
  id: idSchema,
  chemistry: z.enum(['li-ion', 'lifepo4', 'lead-acid', 'nimh', 'alkaline']),
  cells: maybe(whole(1, 20)),
  /** lead-acid: its build, which sets how much a high current costs */
  leadKind: z.enum(['agm', 'flooded']).default('agm'),
  /** capacity at cell voltage, C */
  chargeCoulomb: maybe(within(36, 4e6)),
  cellV: maybe(within(0.5, 60)),
  depth: share,
  maxA: amps,
  autoOffA: maybe(within(0, 5)),
  idleW: maybe(within(0, 50)),
  protectedPack: yesNo,
  coldC: maybe(within(-60, 60)),
  chargedCold: yesNo,
  airTravel: yesNo,
  /** whose voltage the printed capacity was multiplied with */
  energyBasis: z.enum(['cell-voltage', 'output-voltage']).default('cell-voltage'),
  wishedS: maybe(within(1, 1e9)),
  /** of the time on, 0..1; null: the job's hours */
  dutyShare: maybe(within(0.001, 1)),
})
export interface Battery extends z.infer<typeof batterySchema> {}

/** A battery of a kind of source, with what is usual. Capacity is left for the label. */
export function newBattery(id: string, kind: SupplyKind): Battery {
  const lead = kind === 'vehicle' || kind === 'house-battery' || kind === 'solar'
  return {
    ...defaultsOf(batterySchema),
    id,
    chemistry: lead ? 'lead-acid' : 'li-ion',
    cells: kind === 'pack' ? 3 : kind === 'power-bank' ? 1 : null,
    autoOffA: kind === 'power-bank' ? 0.06 : null,
  }
}

/** Peak-sun hours of the months at a middle latitude, for a panel set steep. A guess to be replaced by those of the place. */
const MIDDLE_SUN = [1, 1.8, 2.9, 4, 4.8, 5, 4.9, 4.4, 3.4, 2.2, 1.2, 0.8]
export const sunSchema = z.object({
  id: idSchema,
  panelW: maybe(within(0.1, 5000)),
  panelVoc: maybe(within(0.5, 100)),
  panelVmp: maybe(within(0.5, 100)),
  controller: z.enum(['tracking', 'series', 'none']).default('series'),
  /** peak-sun hours of the months, January first */
  sunHours: z.array(within(0, 16)).length(12, 'Twelve months are wanted.').default(MIDDLE_SUN),
  wishedDays: maybe(within(0, 365)),
})
export interface Sun extends z.infer<typeof sunSchema> {}
/** A panel at a middle latitude, its size left for the label. */
export const newSun = (id: string): Sun => ({ ...defaultsOf(sunSchema), id, panelVoc: 21.6, panelVmp: 18 })
