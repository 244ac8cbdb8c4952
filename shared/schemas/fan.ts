import { z } from 'zod'
import { MAX_ON_PAGE } from '../api'
import { sourcedFigures, type Fan } from '#core/document'

/** A finite number in a range, with a message that names the limits. */
export const within = (low: number, high: number) =>
  z.number({ error: 'A number is wanted here.' }).min(low, `Not below ${low}.`).max(high, `Not above ${high}.`)
export const maybe = <T extends z.ZodType>(schema: T) => schema.nullable()
export const idSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/i, 'An id has letters, digits and dashes.')
export const shortText = z.string().trim().max(120, 'At most 120 characters.')
export const longText = z.string().max(4000, 'At most 4000 characters.')

/** Refuse limits: handbook, plausibility limits of measuring (common practice). SI. */
export const limits = {
  flow: within(0, 3000 / 3600),
  pressure: within(0, 5000),
  level: within(0, 130),
  voltage: within(0, 60),
  current: within(0, 20),
  rotation: within(0, 60000),
  temperature: within(-60, 200),
}

const pointSchema = z.object({ flowM3s: limits.flow, pressurePa: limits.pressure })
const pointsSchema = z.array(pointSchema).max(60, 'At most 60 points.')
const share = within(0, 1)
const day = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'A date is written as 2026-05-31.')
  .refine((d) => !Number.isNaN(Date.parse(d)), 'There is no such day.')
const measuredBasis = z.enum(['curve', 'measured', 'claim'])

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

/** One test on the bench: at least one reading. */
export const fanTestSchema = z.object({
  id: idSchema,
  specimen: shortText.min(1, 'Name the specimen, such as A.'),
  takenAt: z.iso.datetime({ offset: true }),
  volts: within(0.5, 60),
  ambientC: maybe(within(-40, 80)),
  currentA: maybe(limits.current),
  startA: maybe(limits.current),
  startV: maybe(limits.voltage),
  rpm: maybe(limits.rotation),
  flowM3s: maybe(limits.flow),
  pressurePa: maybe(limits.pressure),
  airSpeedMs: maybe(within(0, 60)),
  levelDbA: maybe(limits.level),
  levelDistanceM: maybe(within(0.05, 10)),
  backgroundDbA: maybe(limits.level),
  notes: longText,
})

const sheetShape = {
  id: idSchema,
  maker: shortText,
  model: shortText.min(1, 'A fan needs a model name.'),
  kind: z.enum(['axial', 'blower']),
  frameM: within(0.015, 0.5),
  thicknessM: within(0.003, 0.3),
  thicknessMeasuredM: maybe(within(0.003, 0.3)),
  holeSpacingM: maybe(within(0.01, 0.5)),
  ratedV: within(1, 60),
  minV: maybe(limits.voltage),
  maxV: maybe(limits.voltage),
  startV: maybe(limits.voltage),
  interceptV: maybe(limits.voltage),
  ratedA: maybe(within(0.001, 20)),
  ratedW: maybe(within(0.01, 500)),
  ratedRpm: maybe(within(50, 60000)),
  maxFlowM3s: maybe(within(1e-5, 3000 / 3600)),
  maxPressurePa: maybe(within(0.1, 5000)),
  alsoFlowM3s: maybe(within(1e-5, 3000 / 3600)),
  alsoPressurePa: maybe(within(0.1, 5000)),
  noiseDbA: maybe(limits.level),
  noiseDistanceM: maybe(within(0.05, 10)),
  noiseSone: maybe(within(0.01, 100)),
  wires: maybe(z.union([z.literal(2), z.literal(3), z.literal(4)])),
  connector: maybe(z.enum(connectors)),
  pwmMinDuty: maybe(share),
  pwmStartDuty: maybe(share),
  pwmMinSpeed: maybe(share),
  blades: maybe(z.number().int('A whole number is wanted.').min(2, 'At least 2.').max(60, 'Not above 60.')),
  bearing: maybe(z.enum(['sleeve', 'ball', 'fluid'])),
  shaftAllowed: maybe(z.enum(['any', 'horizontal', 'vertical'])),
  lifeH: maybe(within(10, 1e6)),
  lifeC: maybe(limits.temperature),
  massKg: maybe(within(0.001, 10)),
  ipSolid: maybe(z.number().int().min(0).max(6)),
  ipWater: maybe(z.number().int().min(0).max(9)),
  minAirC: maybe(limits.temperature),
  maxAirC: maybe(limits.temperature),
  price: maybe(within(0, 10000)),
  priceOn: maybe(day),
  owned: z.boolean(),
  curveBasis: z.enum(['curve', 'measured', 'claim', 'estimated']),
  notes: longText,
  points: pointsSchema,
  curves: z
    .array(z.object({ volts: within(0.5, 60), basis: measuredBasis, points: pointsSchema }))
    .max(12, 'At most 12 curves.'),
  sources: z
    .array(
      z.object({ figure: z.enum(sourcedFigures), basis: z.enum(['curve', 'measured', 'claim', 'estimated']) }),
    )
    .max(sourcedFigures.length),
  tests: z.array(fanTestSchema).max(200, 'At most 200 tests.'),
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
}) satisfies z.ZodType<Fan>

/** Fans written in one transaction; an import sends a long shelf in several such parts. */
export const IMPORT_PART = 500
export const importSchema = z.object({
  fans: z.array(fanSchema).min(1).max(IMPORT_PART, `At most ${IMPORT_PART} fans at once.`),
})
export const undoImportSchema = z.object({ created: z.array(idSchema), before: z.array(fanSchema) })

/** A page of the shelf: what it is narrowed to, its order, and which part of it. */
const maybeNumber = z
  .union([z.literal('').transform(() => null), z.coerce.number()])
  .nullable()
  .default(null)
export const fanQuerySchema = z.object({
  text: z.string().max(200).default(''),
  frameM: maybeNumber,
  ratedV: maybeNumber,
  owned: z
    .enum(['', 'true', 'false'])
    .default('')
    .transform((x) => x === 'true'),
  sort: z.enum(['frame', 'name', 'flow', 'pressure', 'level', 'price']).default('frame'),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(MAX_ON_PAGE).default(100),
})
export type FanQuery = z.infer<typeof fanQuerySchema>

/** Largest picture or page kept with a fan, bytes. */
export const MAX_ATTACHED = 6_000_000
export const attachmentSchema = z.object({
  id: idSchema,
  name: shortText.min(1),
  mediaType: z.enum(['image/png', 'image/jpeg', 'image/webp', 'application/pdf'], {
    error: 'A PNG, JPEG or WebP picture, or a PDF page, is wanted.',
  }),
})
