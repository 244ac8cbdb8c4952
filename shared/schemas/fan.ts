import { z } from 'zod'
import type { Fan } from '../../core/plan/document'

/** A finite number in a range, with a message that names the limits. */
export const within = (low: number, high: number) => z.number({ error: 'A number is wanted here.' }).min(low, `Not below ${low}.`).max(high, `Not above ${high}.`)
export const maybe = <T extends z.ZodType>(schema: T) => schema.nullable()
export const idSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/i, 'An id has letters, digits and dashes.')
export const shortText = z.string().trim().max(120, 'At most 120 characters.')
export const longText = z.string().max(4000, 'At most 4000 characters.')

/** Refuse limits: handbook, plausibility limits of measuring (common practice). SI. */
export const limits = {
  flow: within(0, 3000 / 3600), pressure: within(0, 5000), level: within(0, 130), voltage: within(0, 60), current: within(0, 20), rotation: within(0, 60000), temperature: within(-60, 200),
}

const pointSchema = z.object({ flowM3s: limits.flow, pressurePa: limits.pressure })

/** A fan on the shelf. The points of its curve rise in flow. */
export const fanSchema = z.object({
  id: idSchema,
  maker: shortText,
  model: shortText.min(1, 'A fan needs a model name.'),
  kind: z.enum(['axial', 'blower']),
  frameM: within(0.015, 0.5),
  thicknessM: within(0.003, 0.3),
  ratedV: within(1, 60),
  minV: maybe(limits.voltage),
  maxV: maybe(limits.voltage),
  startV: maybe(limits.voltage),
  interceptV: maybe(limits.voltage),
  ratedA: maybe(within(0.001, 20)),
  ratedRpm: maybe(within(50, 60000)),
  maxFlowM3s: maybe(within(1e-5, 3000 / 3600)),
  maxPressurePa: maybe(within(0.1, 5000)),
  noiseDbA: maybe(limits.level),
  noiseDistanceM: maybe(within(0.05, 10)),
  wires: maybe(z.union([z.literal(2), z.literal(3), z.literal(4)])),
  bearing: maybe(z.enum(['sleeve', 'ball', 'fluid'])),
  massKg: maybe(within(0.001, 10)),
  ipWater: maybe(z.number().int().min(0).max(9)),
  maxAirC: maybe(limits.temperature),
  price: maybe(within(0, 10000)),
  owned: z.boolean(),
  curveBasis: z.enum(['curve', 'measured', 'claim', 'estimated']),
  notes: longText,
  points: z.array(pointSchema).max(60, 'At most 60 points.'),
}).superRefine((fan, context) => {
  const issue = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
  if (fan.points.length === 1) issue(['points'], 'One point is no curve: give at least two, or none.')
  fan.points.forEach((p, i) => {
    if (i > 0 && p.flowM3s <= fan.points[i - 1]!.flowM3s) issue(['points', i, 'flowM3s'], 'Each flow must be larger than the one before.')
  })
  if (fan.interceptV !== null && fan.interceptV >= fan.ratedV) issue(['interceptV'], 'Must lie below the rated voltage.')
  if (fan.minV !== null && fan.maxV !== null && fan.minV > fan.maxV) issue(['minV'], 'The lowest voltage lies above the highest.')
  if (fan.startV !== null && fan.startV > (fan.maxV ?? 60)) issue(['startV'], 'It would never start: above the highest voltage.')
}) satisfies z.ZodType<Fan>

/** Fans written in one transaction; an import sends a long shelf in several such parts. */
export const IMPORT_PART = 500
export const importSchema = z.object({ fans: z.array(fanSchema).min(1).max(IMPORT_PART, `At most ${IMPORT_PART} fans at once.`) })
export const undoImportSchema = z.object({ created: z.array(idSchema), before: z.array(fanSchema) })
