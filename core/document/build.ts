import { z } from 'zod'
import { defaultsOf, idSchema, line, lines, maybe, moment, shortText, within } from './fields'

/** What was built so far: steps that were ticked, with what they found; cautions that were answered for. */

const tickSchema = z.object({
  /** key of the step */
  id: idSchema,
  at: moment,
  who: line,
  /** what was measured, SI */
  value: maybe(within(-1e5, 1e6)),
  note: lines,
  photoId: maybe(idSchema),
  /** what the step said when it was ticked: another plan asks for it again */
  seen: z.string().max(600).default(''),
})
export interface Tick extends z.infer<typeof tickSchema> {}

/** A caution that holds a sitting, released by somebody who says why. */
const releaseSchema = z.object({
  id: idSchema,
  at: moment,
  who: shortText.min(1, 'Who answers for it?'),
  reason: shortText.min(1, 'Say why.'),
})
export interface Release extends z.infer<typeof releaseSchema> {}

const unlike = (list: { id: string }[]) => new Set(list.map((x) => x.id)).size === list.length
export const buildSchema = z.object({
  id: idSchema,
  ticks: z
    .array(tickSchema)
    .max(300, 'At most 300.')
    .refine(unlike, 'A step is ticked twice.')
    .meta({ oneColumn: true })
    .default([]),
  releases: z
    .array(releaseSchema)
    .max(40, 'At most 40.')
    .refine(unlike, 'A caution is released twice.')
    .meta({ oneColumn: true })
    .default([]),
})
interface Build extends z.infer<typeof buildSchema> {}
export const newBuild = (id: string): Build => ({ ...defaultsOf(buildSchema), id })
