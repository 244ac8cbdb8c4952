import { z } from 'zod'
import {
  above,
  area,
  defaultsOf,
  idSchema,
  inOneColumn,
  limits,
  line,
  lines,
  maybe,
  shortText,
  whole,
  within,
  yesNo,
} from './fields'
import { readingQuantities } from './run'

/**
 * A job's own inputs, in SI units (temperatures in degC, shares 0..1). null is "not known". Each goal has a part of its
 * own; some inputs (heat, volume, wall loss) serve several goals.
 */

const side = z.enum(['front', 'back', 'left', 'right', 'top', 'bottom'])
const clock = maybe(above(30 * 86400, 's'))
const days = maybe(whole(1, 3650))

const aboutShape = {
  id: idSchema,
  name: shortText.min(1, 'A job needs a name.'),
  /** the job this one is a variant of */
  variantOf: maybe(idSchema),
  equipment: line,
  complaint: lines,
  untouchable: lines,
}

/** What an air stream is for. */
const streamShape = {
  /** what this air stream is called where a job has several */
  streamName: line,
  goal: z.enum(['cool', 'part', 'ventilate', 'fume', 'stir', 'chill', 'quieten']).default('cool'),
  /** planned, but left out of the machine */
  aside: z.boolean().default(false),
  /** its present fan stays: it counts in sound, current and order of running */
  asIs: z.boolean().default(false),
  /** level heard of it alone at the listener, dB(A) */
  heardDbA: maybe(limits.level),
}

/** Where the planned openings are and where the air goes. */
const breathingShape = {
  breathesIn: line,
  breathesOut: line,
  intakeSide: maybe(side),
  outletSide: maybe(side),
  intakeHeightM: maybe(within(0, 100)),
  outletHeightM: maybe(within(0, 100)),
  airOutlet: maybe(z.enum(['outdoors', 'same-room', 'other-room'])),
  /** outlet to the nearest window, door or intake */
  outletToOpeningM: maybe(within(0, 100)),
  /** joints and frame sealed */
  gasketed: yesNo,
  /** a flap closes the way outdoors when the fan is off */
  backflowFlap: yesNo,
  /** measured at the running fan's intake */
  intakeAirC: maybe(within(-40, 80)),
}

/** An indoor room near sea level, listened to from one metre, unless told otherwise. */
const placeShape = {
  ambientC: within(-40, 80).default(22),
  ambientMaxC: maybe(within(-40, 80)),
  altitudeM: within(-430, 9000).default(100),
  humidity: within(0, 1).default(0.5),
  hoursPerDay: within(0, 24).default(8),
  listenerM: within(0.1, 50).default(1),
  roomDbA: maybe(limits.level),
}

/** Cool a box or a part. */
const heatShape = {
  margin: maybe(within(0, 3)),
  heatW: maybe(within(0, 20000)),
  heatBasis: z.enum(['measured', 'nameplate', 'estimate']).default('estimate'),
  insideMaxC: maybe(within(-30, 150)),
  wallLossWK: maybe(within(0, 500)),
  /** refrigeration, thermoelectric or evaporation takes part */
  activeCooling: yesNo,
  partMaxC: maybe(within(-30, 250)),
  /** from the part to the surface that the air washes, K/W */
  partInnerKPerW: maybe(within(0, 1000)),
}

/** Change the air of a space. */
const spaceShape = {
  volumeM3: maybe(z.number().gt(0, 'A volume must be above zero.').max(2000, 'Not above 2000 m³.')),
  airChangesPerH: maybe(above(600, 'an hour')),
  mixing: maybe(within(1, 10)),
  clearS: clock,
  /** share of the first level that is clean enough */
  clearShare: maybe(within(0.0001, 0.99)),
  waterKgS: maybe(within(0, 0.01)),
  insideC: maybe(within(-40, 80)),
  insideRhMax: maybe(within(0.01, 1)),
  surfaceC: maybe(within(-40, 80)),
  co2M3s: maybe(within(0, 0.01)),
  co2Max: maybe(within(0, 0.2)),
  co2Fresh: maybe(within(0, 0.05)),
}

/** Carry off fumes or dust. */
const fumeShape = {
  fumeWay: z.enum(['capture', 'slot', 'enclosure']).default('capture'),
  captureSpeedMs: maybe(above(20, 'm/s')),
  captureDistanceM: maybe(above(5, 'm')),
  nozzleAreaM2: area,
  nozzleOpening: z.enum(['plain', 'flanged', 'bench']).default('plain'),
  slotLengthM: maybe(above(10, 'm')),
  slotFlanged: z.boolean().default(false),
  leakAreaM2: area,
  boxPressurePa: maybe(above(500, 'Pa')),
  workOpeningM2: area,
  faceSpeedMs: maybe(above(10, 'm/s')),
  roomVolumeM3: maybe(above(5000, 'm³')),
  /** mixing factor of the room behind the box, 1 perfect */
  roomMixing: maybe(within(1, 10)),
  roomChangesPerH: maybe(above(600, 'an hour')),
  fumeRated: yesNo,
  carbonHours: maybe(within(0, 1e5)),
  carbonLifeH: maybe(above(1e5, 'h')),
}

/** Stir a cold or drying box. */
const stirShape = {
  turnoversPerH: maybe(above(5000, 'an hour')),
  jetReachM: maybe(above(20, 'm')),
  jetSpeedMs: maybe(above(20, 'm/s')),
  cop: maybe(within(0.05, 20)),
  dutyShare: maybe(within(0, 1)),
  /** cooling (or heating) power of the box, W */
  boxPowerW: maybe(within(0, 20000)),
  contentsJK: maybe(above(1e8, 'J/K')),
  /** how much warmer than wanted after the door was open, and how near is near enough */
  warmedK: maybe(above(100, 'K')),
  nearK: maybe(above(100, 'K')),
}

/** Chill a water surface. */
const waterShape = {
  waterAreaM2: area,
  waterC: maybe(within(0.5, 60)),
  lid: z.enum(['open', 'mesh', 'still']).default('open'),
  surfaceSpeedMs: maybe(above(5, 'm/s')),
  /** cross-section that the air crosses over the water */
  crossAreaM2: area,
  coolingW: maybe(within(0, 20000)),
  reserveM3: maybe(above(100, 'm³')),
  daysUnattended: maybe(within(0, 1000)),
}

/** Quieten what is there. */
const keepShape = {
  keepBasis: z.enum(['existing-fan', 'temperature', 'typed']).default('existing-fan'),
  existingFanId: maybe(idSchema),
  existingCount: whole(1, 16).default(1),
  existingV: maybe(limits.voltage),
  measuredRiseK: maybe(z.number().gt(0, 'A rise must be above zero.').max(150, 'Not above 150 K.')),
  typedFlowM3s: maybe(limits.flow),
  /** airflow of the present fan on the path as it was found; null: worked out on the path as it stands */
  keptFlowM3s: maybe(limits.flow),
  /** how much warmer it may get for the sake of quiet */
  giveRiseK: maybe(within(0, 50)),
}

/** What of the way of the air is told beside the places of the fans. */
const clearanceShape = {
  openingGapM: maybe(within(0, 50)),
  baffled: yesNo,
  hotPartInPath: yesNo,
  mustNotFail: yesNo,
  /** how a helper came to a value; it speaks for the field while that still holds the value */
  workings: inOneColumn(
    z
      .array(z.object({ key: z.string().min(1).max(40), value: z.number(), text: z.string().min(1).max(200) }))
      .max(12),
  ),
}

const surroundingShape = {
  mains: yesNo,
  flammable: yesNo,
  openFlue: yesNo,
  wet: yesNo,
  domain: z.enum(['general', 'vehicle', 'aircraft', 'medical', 'life-safety']).default('general'),
  /** the plan opens a mains supply unit */
  opensSupply: yesNo,
  /** highest voltage that may be stored in it, and whether it was discharged and measured */
  storedV: maybe(within(0, 20000)),
  discharged: yesNo,
  earthRefitted: yesNo,
  /** combustion air confirmed by a competent person */
  supplyOpening: yesNo,
  laser: yesNo,
  lightBaffle: yesNo,
  /** an over-temperature cut-out that does not hang on the fan's control */
  thermalCutout: yesNo,
  adapterInWet: yesNo,
  /** hottest surface that can be touched */
  touchC: maybe(within(-40, 500)),
  /** further situations to mind that apply */
  cautions: z
    .array(
      z.enum(['hot', 'living', 'battery', 'height', 'walls', 'food', 'rented', 'cellar', 'dust', 'sensitive']),
    )
    .max(10)
    .default([]),
  /** findings that may stand, each with the reason that was given */
  known: inOneColumn(
    z
      .array(
        z.object({
          rule: z.string().min(1).max(60),
          /** what it was told of, an id; '' for the whole plan */
          subject: line,
          reason: shortText.min(1, 'Say why it may stand.'),
        }),
      )
      .max(100),
  ),
}

/** What the verdict is told: the change a person would report, how candidates were ranked, and when maintenance began. */
const verdictShape = {
  /** whose numbers the plan believes: the sheet's, one's own where there are some, or claims less what this shelf has shown */
  trust: z.enum(['claims', 'own', 'discounted']).default('own'),
  /** change that would be reported, as a share, and of which reading */
  statedChange: maybe(within(-1, 100)),
  statedOf: maybe(z.enum(readingQuantities)),
  rankedBy: maybe(z.enum(['flow-per-loudness', 'flow-per-money', 'flow-per-decibel'])),
  /** ISO date that maintenance is counted from; days between cleanings and filter changes, null for the usual */
  maintenanceFrom: maybe(z.iso.date()),
  /** how dusty the air is that it draws in; null: not said */
  airDust: maybe(z.enum(['clean', 'usual', 'dusty'])),
  bladesDays: days,
  filterDays: days,
  /** €/kWh */
  tariff: maybe(within(0, 10)),
}

/** What each air stream has of its own. */
export const streamJobSchema = z.object({
  ...streamShape,
  ...breathingShape,
  ...heatShape,
  ...spaceShape,
  ...fumeShape,
  ...stirShape,
  ...waterShape,
  ...keepShape,
  ...clearanceShape,
})
export const streamJobKeys = Object.keys(streamJobSchema.shape) as (keyof z.infer<typeof streamJobSchema>)[]

/** What the whole machine has: its name, its room, what stands around it, how it is judged. */
export const machineJobSchema = z.object({
  ...aboutShape,
  ...placeShape,
  ...surroundingShape,
  ...verdictShape,
})
export interface MachineJob extends z.infer<typeof machineJobSchema> {}
export const machineJobKeys = Object.keys(machineJobSchema.shape) as (keyof MachineJob)[]

/** The machine's facts with those of one of its streams, as forms and stages read them. */
export const jobSchema = z.object({ ...machineJobSchema.shape, ...streamJobSchema.shape })
export interface Job extends z.infer<typeof jobSchema> {}
export type Goal = Job['goal']
export type HeatBasis = Job['heatBasis']
export type KeepBasis = Job['keepBasis']
export type Lid = Job['lid']
export type Trust = Job['trust']
export type Side = z.infer<typeof side>

/** A job of which only the name is known. */
export const newJob = (id: string, name: string): MachineJob => ({ ...defaultsOf(machineJobSchema), id, name })

/** The inputs that may be uncertain: numbers the need is computed from. */
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

/** How sure a number is: a grade, the range that was typed, or that of what was assumed. */
export const uncertaintySchema = z
  .object({
    id: z.enum(uncertainInputs),
    /** 'assumed': nobody said; the usual, to be measured */
    grade: z.enum(['measured', 'good-guess', 'rough-guess', 'range', 'assumed']),
    low: maybe(z.number()),
    high: maybe(z.number()),
  })
  .refine(
    (d) => d.low === null || d.high === null || d.low <= d.high,
    'The lower end must not lie above the upper one.',
  )
export interface Uncertainty extends z.infer<typeof uncertaintySchema> {}
export type UncertaintyGrade = Uncertainty['grade']

/** An equipment's own opening. */
export const portSchema = z.object({
  id: idSchema,
  role: z.enum(['in', 'out']),
  name: line,
  side: side.default('front'),
  areaM2: area,
  /** of its own fan, m3/s */
  flowM3s: maybe(limits.flow),
})
export interface Port extends z.infer<typeof portSchema> {}
/** An own opening of the equipment, its size left for the person. */
export const newPort = (id: string, role: Port['role']): Port => ({
  ...defaultsOf(portSchema),
  id,
  role,
  name: role === 'in' ? 'Own intake' : 'Own outlet',
  side: role === 'in' ? 'front' : 'back',
})

/** Resistance of a heatsink or part at an airflow, K/W. */
export const sinkPointSchema = z.object({
  flowM3s: z
    .number()
    .gt(0, 'A flow must be above zero.')
    .max(3000 / 3600, 'Not above 3000 m³/h.'),
  kPerW: z.number().gt(0, 'Must be above zero.').max(1000, 'Not above 1000 K/W.'),
})
export type SinkPoint = z.infer<typeof sinkPointSchema>
