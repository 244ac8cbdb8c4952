import { z } from 'zod'
import { connectors, idSchema, MOST_FANS, planSchema } from '#core/document'
import type { RankOptions } from '#core/selection'

const share = z.number().min(0).max(1)
const volts = z.number().positive().max(1000)
/** Most rows that are worked out in full. */
const MOST_ROWS = 2000

/** How a shelf is to be ranked. */
const rankOptionsSchema = z.object({
  objective: z.enum(['quietest', 'margin', 'cheapest', 'power', 'thinnest', 'loudness', 'value', 'weights']),
  weights: z.object({ quiet: share, margin: share, power: share, cheap: share, thin: share }),
  counts: z.array(z.number().int().min(1).max(MOST_FANS)).max(MOST_FANS),
  series: z.boolean(),
  places: z.boolean(),
  pairs: z.boolean(),
  place: z
    .object({
      placeId: idSchema,
      others: z
        .array(z.object({ placeId: idSchema, fanId: idSchema, count: z.number().int().min(1).max(MOST_FANS) }))
        .max(MOST_FANS),
    })
    .nullable(),
  drive: z.enum(['any', 'rails', 'rated', 'pwm']),
  rails: z.array(volts).max(50),
  levels: z.number().int().min(1).max(50),
  fixedV: volts.nullable(),
  filter: z.object({
    text: z.string().max(200),
    owned: z.boolean(),
    fits: z.boolean(),
    wires: z.number().int().nullable(),
    connector: z.enum(connectors).nullable(),
    bearing: z.enum(['ball', 'fluid', 'sleeve', 'no-sleeve']).nullable(),
    kind: z.enum(['axial', 'blower']).nullable(),
    priceMost: z.number().nullable(),
    frameM: z.number().nullable(),
  }),
  rows: z.number().int().min(1).max(MOST_ROWS),
}) satisfies z.ZodType<RankOptions>

/** A plan as it stands on the page, saved or not, which of its streams is meant, and what its line-up is asked. */
export const rankQuestionSchema = z.object({
  plan: planSchema,
  stream: idSchema.optional(),
  options: rankOptionsSchema,
})
