import { z } from 'zod'
import { idSchema, stockPartSchema } from '#core/document'

export const stockSchema = z.object({
  parts: z.array(stockPartSchema).min(1).max(1000, 'At most 1000 parts at once.'),
})
/** Parts to be archived, or brought back. */
export const archiveSchema = z.object({ ids: z.array(idSchema).min(1).max(1000), archived: z.boolean() })
