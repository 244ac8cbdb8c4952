import { z } from 'zod'
import { stockKinds, type StockPart } from '#core/document'
import { idSchema, longText, maybe, shortText, within } from './fan'

export const stockPartSchema = z.object({
  id: idSchema,
  kind: z.enum(stockKinds, { error: `A kind is one of ${stockKinds.join(', ')}.` }),
  name: shortText.min(1, 'Name it.'),
  volts: maybe(within(0.1, 400)),
  amps: maybe(within(0.001, 500)),
  price: maybe(within(0, 100000)),
  owned: z.boolean(),
  notes: longText,
}) satisfies z.ZodType<StockPart>
export const stockSchema = z.object({
  parts: z.array(stockPartSchema).min(1).max(1000, 'At most 1000 parts at once.'),
})
export const idsSchema = z.object({ ids: z.array(idSchema).min(1).max(1000), aside: z.boolean() })
