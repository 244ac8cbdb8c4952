import { z } from 'zod'
import { fanSchema, idSchema, listOf, shortText } from '#core/document'
import { MAX_ON_PAGE } from '../api'

/** Fans written in one transaction; an import sends a long shelf in several such parts. */
export const IMPORT_PART = 500
export const importSchema = z.object({
  fans: listOf(fanSchema, IMPORT_PART, 'Two fans share an id.').min(1, 'At least one fan is wanted.'),
})
export const undoImportSchema = z.object({
  created: z.array(idSchema).max(IMPORT_PART),
  before: z.array(fanSchema).max(IMPORT_PART),
  revisions: z.record(idSchema, z.number().int()),
})

/** Fans that are asked for by name. */
export const someFansSchema = z.object({ ids: z.array(idSchema).max(MAX_ON_PAGE) })

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
/** Since when changes of the shelf are asked for. */
export const sinceQuerySchema = z.object({
  since: z.string().regex(/^\d{1,18}$/, 'A mark of the shelf is wanted.'),
})
