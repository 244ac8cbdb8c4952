import { z } from 'zod'
import { idSchema, moment, shortText } from '#core/document'

const channelSchema = z.object({
  name: shortText.min(1, 'A channel needs a name.'),
  quantity: z.enum([
    'temperature',
    'level',
    'flow',
    'pressure',
    'rotation',
    'voltage',
    'current',
    'power',
    'speed',
    'ratio',
    'frequency',
    'number',
  ]),
})
const channelsSchema = z
  .array(channelSchema)
  .max(32, 'At most 32 channels.')
  .refine(
    (list) => new Set(list.map((c) => `${c.name} ${c.quantity}`)).size === list.length,
    'Two channels of one kind have the same name.',
  )

/** What every log says of itself. */
export const logHeadSchema = z.object({
  id: idSchema,
  name: shortText.min(1, 'A log needs a name.'),
  origin: z.enum(['recorded', 'imported']),
  startedAt: moment,
  instrumentId: idSchema.nullable(),
  channels: channelsSchema,
  remarks: z.string().max(2000),
})
/** A new log: recorded from an instrument, or filled from a file in blocks. */
export const newLogSchema = logHeadSchema.refine((l) => l.origin === 'imported' || l.instrumentId !== null, {
  message: 'Choose an instrument to record from.',
  path: ['instrumentId'],
})
export type NewLog = z.infer<typeof newLogSchema>
/** All rows of an import were sent. */
export const wholeSchema = z.object({ rows: z.number().int().min(0) })
export const renameSchema = z.object({ name: shortText.min(1, 'A log needs a name.') })
export const blockQuerySchema = z.object({ seq: z.coerce.number().int().min(0).max(1e9) })

export const newInstrumentSchema = z.object({
  id: idSchema,
  name: shortText.trim().min(1, 'An instrument needs a name.'),
  kind: z.enum(['board', 'serial']),
})

/** What the stand-in box is told to do. */
export const boxSchema = z.object({
  which: z.enum(['as-found', 'as-planned']),
  volts: z.number().min(0, 'Not below 0 V.').max(60, 'Not above 60 V.'),
  rateHz: z.number().min(0.1, 'Not below 0.1 a second.').max(50, 'Not above 50 a second.'),
  speed: z.number().min(1).max(120, 'Not above 120 times.'),
  doorOpen: z.boolean(),
  tachPulled: z.boolean(),
  dropouts: z.number().min(0).max(0.5),
  noise: z.number().min(0).max(10),
  /** the picked fan obeys the planned control instead of the bench supply alone */
  controlled: z.boolean().default(false),
  /** something that is wrong with it, for trying a search: see `boxFaults` */
  fault: z.enum(['none', 'swapped', 'starved', 'stuck', 'covered']).default('none'),
  unplugged: z.boolean().default(false),
})
export type BoxOrder = z.infer<typeof boxSchema>
