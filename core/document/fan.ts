import { z } from 'zod'
import { cartonSchema } from './carton'
import {
  day,
  defaultsOf,
  idSchema,
  inOneColumn,
  limits,
  line,
  lines,
  listOf,
  maybe,
  moment,
  shortText,
  whole,
  within,
} from './fields'

/** A fan of the shelf: everything its sheet says and its bench has shown, in SI units. null is "not known". */

const bases = ['curve', 'measured', 'claim', 'estimated'] as const
export type CurveBasis = (typeof bases)[number]
/** What is on the end of its leads: bare, keyed header of 2, 3 or 4 positions, small 4-position, peripheral 4-position, barrel, USB. */
export const connectors = [
  'bare',
  'header-2',
  'header-3',
  'header-4',
  'small-4',
  'peripheral',
  'barrel',
  'usb',
  'other',
] as const

export type Connector = (typeof connectors)[number]

const pointSchema = z.object({ flowM3s: limits.flow, pressurePa: limits.pressure })
export type FanPoint = z.infer<typeof pointSchema>
const pointsSchema = z.array(pointSchema).max(60, 'At most 60 points.')
const share = within(0, 1)

/** A further curve of the same fan, at another voltage than rated. */
const voltageCurveSchema = z.object({
  volts: within(0.5, 60),
  basis: z.enum(['curve', 'measured', 'claim']),
  points: pointsSchema,
})
export type VoltageCurve = z.infer<typeof voltageCurveSchema>

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
const figureSourceSchema = z.object({ figure: z.enum(sourcedFigures), basis: z.enum(bases) })

/** One test of one specimen on one's own bench. Flow is free delivery, pressure is at shut-off. */
export const fanTestSchema = z.object({
  id: idSchema,
  /** which of several alike: "A", "the one with the dot" */
  specimen: shortText.min(1, 'Name the specimen, such as A.').default('A'),
  /** ISO date and time */
  takenAt: moment,
  volts: within(0.5, 60),
  ambientC: maybe(within(-40, 80)),
  currentA: maybe(limits.current),
  startA: maybe(limits.current),
  startV: maybe(limits.voltage),
  rpm: maybe(limits.rotation),
  flowM3s: maybe(limits.flow),
  pressurePa: maybe(limits.pressure),
  /** fastest air on the axis, for comparing only */
  airSpeedMs: maybe(within(0, 60)),
  levelDbA: maybe(limits.level),
  levelDistanceM: maybe(within(0.05, 10)),
  backgroundDbA: maybe(limits.level),
  notes: lines,
})
export interface FanTest extends z.infer<typeof fanTestSchema> {}
/**
 * A new bench test: nothing read yet.
 * @param volts V
 */
export const newTest = (id: string, volts: number, takenAt: string): FanTest => ({
  ...defaultsOf(fanTestSchema),
  id,
  volts,
  takenAt,
})

const sheetShape = {
  id: idSchema,
  maker: line,
  model: shortText.min(1, 'A fan needs a model name.'),
  kind: z.enum(['axial', 'blower']).default('axial'),
  frameM: within(0.015, 0.5),
  thicknessM: within(0.003, 0.3),
  /** with a calliper */
  thicknessMeasuredM: maybe(within(0.003, 0.3)),
  /** mounting holes, centre to centre; null: the usual pattern of the frame */
  holeSpacingM: maybe(within(0.01, 0.5)),
  ratedV: within(1, 60),
  minV: maybe(limits.voltage),
  maxV: maybe(limits.voltage),
  startV: maybe(limits.voltage),
  /** voltage at which the speed line meets zero, V */
  interceptV: maybe(limits.voltage),
  ratedA: maybe(within(0.001, 20)),
  /** power as printed */
  ratedW: maybe(within(0.01, 500)),
  ratedRpm: maybe(within(50, 60000)),
  maxFlowM3s: maybe(within(1e-5, 3000 / 3600)),
  maxPressurePa: maybe(within(0.1, 5000)),
  /** the same claims printed a second time in another unit, to be held against the first */
  alsoFlowM3s: maybe(within(1e-5, 3000 / 3600)),
  alsoPressurePa: maybe(within(0.1, 5000)),
  noiseDbA: maybe(limits.level),
  /** distance of the noise claim; null when the sheet does not say */
  noiseDistanceM: maybe(within(0.05, 10)),
  /** the noise claim is a sound power level (re 1 pW), not a pressure level at a distance */
  noiseIsPower: z.boolean().default(false),
  /** where the sheet tells sone instead */
  noiseSone: maybe(within(0.01, 100)),
  wires: maybe(z.union([z.literal(2), z.literal(3), z.literal(4)])),
  connector: maybe(z.enum(connectors)),
  /** lowest duty that keeps it turning, that starts it, and the share of full speed at the lowest */
  pwmMinDuty: maybe(share),
  pwmStartDuty: maybe(share),
  pwmMinSpeed: maybe(share),
  blades: maybe(whole(2, 60)),
  bearing: maybe(z.enum(['sleeve', 'ball', 'fluid'])),
  /** how the sheet lets its shaft lie */
  shaftAllowed: maybe(z.enum(['any', 'horizontal', 'vertical'])),
  lifeH: maybe(within(10, 1e6)),
  /** temperature that the life is stated at */
  lifeC: maybe(limits.temperature),
  massKg: maybe(within(0.001, 10)),
  ipSolid: maybe(z.number().int().min(0).max(6)),
  ipWater: maybe(z.number().int().min(0).max(9)),
  minAirC: maybe(limits.temperature),
  maxAirC: maybe(limits.temperature),
  price: maybe(within(0, 10000)),
  /** ISO date of the price */
  priceOn: maybe(day),
  /** on the maker's own shelf */
  owned: z.boolean().default(false),
  curveBasis: z.enum(bases).default('curve'),
  /** what the flow of a measured curve is worth, share, 95 times in 100; null: what is usual */
  curveShare: maybe(within(0.005, 1)),
  /** the sheet's own points, while a measured curve stands in their place */
  sheetPoints: inOneColumn(pointsSchema),
  notes: lines,
  points: pointsSchema.default([]),
  curves: z.array(voltageCurveSchema).max(12, 'At most 12 curves.').default([]),
  sources: z
    .array(figureSourceSchema)
    .max(sourcedFigures.length)
    .refine(
      (list) => new Set(list.map((s) => s.figure)).size === list.length,
      'The source of a figure is told twice.',
    )
    .default([]),
  tests: listOf(fanTestSchema, 200, 'Two tests share an id.').default([]),
  cartons: listOf(cartonSchema, 40, 'Two cartons share an id.').default([]),
}

/** A fan on the shelf. The points of its curve rise in flow. */
export const fanSchema = z.object(sheetShape).superRefine((fan, context) => {
  const issue = (path: (string | number)[], message: string) =>
    context.addIssue({ code: 'custom', path, message })
  const rising = (points: { flowM3s: number }[], path: (string | number)[]) => {
    if (points.length === 1) issue(path, 'One point is no curve: give at least two, or none.')
    points.forEach((p, i) => {
      if (i > 0 && p.flowM3s <= points[i - 1]!.flowM3s)
        issue([...path, i, 'flowM3s'], 'Each flow must be larger than the one before.')
    })
  }
  rising(fan.points, ['points'])
  fan.curves.forEach((c, i) => {
    rising(c.points, ['curves', i, 'points'])
    if (c.points.length === 0) issue(['curves', i, 'points'], 'This curve has no points.')
    if (c.volts === fan.ratedV) issue(['curves', i, 'volts'], 'The curve at rated voltage is the one above.')
    if (fan.curves.findIndex((o) => o.volts === c.volts) < i)
      issue(['curves', i, 'volts'], 'There is a curve at this voltage already.')
  })
  if (fan.interceptV !== null && fan.interceptV >= fan.ratedV)
    issue(['interceptV'], 'Must lie below the rated voltage.')
  if (fan.minV !== null && fan.maxV !== null && fan.minV > fan.maxV)
    issue(['minV'], 'The lowest voltage lies above the highest.')
  if (fan.startV !== null && fan.startV > (fan.maxV ?? 60))
    issue(['startV'], 'It would never start: above the highest voltage.')
  if (fan.pwmMinDuty !== null && fan.pwmStartDuty !== null && fan.pwmStartDuty < fan.pwmMinDuty)
    issue(['pwmStartDuty'], 'It cannot start below the duty that keeps it turning.')
  if (fan.minAirC !== null && fan.maxAirC !== null && fan.minAirC > fan.maxAirC)
    issue(['minAirC'], 'The coldest air allowed lies above the hottest.')
})
/** A stored fan, and how its numbers were corrected for a plan (never stored). */
export interface Fan extends z.infer<typeof fanSchema> {
  trusted?: Trusted
}

/** A new fan: what is most usual, with nothing claimed for it. */
export const newFan = (id: string): Fan => ({
  ...defaultsOf(fanSchema),
  id,
  model: '',
  frameM: 0.08,
  thicknessM: 0.025,
  ratedV: 12,
})

/** A fan as its sheet promises it, where a measured curve has taken the sheet's place. */
export const asClaimed = (fan: Fan): Fan =>
  fan.curveBasis === 'measured' && (fan.sheetPoints.length > 0 || fan.maxFlowM3s !== null)
    ? { ...fan, points: fan.sheetPoints, curveBasis: 'curve', curveShare: null }
    : fan

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
