import { z } from 'zod'
import { idSchema, listOf, stockPartSchema } from '#core/document'

export const stockSchema = z.object({
  parts: listOf(stockPartSchema, 1000, 'Two parts share an id.').min(1, 'At least one part is wanted.'),
})
/** Parts to be archived, or brought back. */
export const archiveSchema = z.object({ ids: z.array(idSchema).min(1).max(1000), archived: z.boolean() })
