import { z } from 'zod'
import { fanSchema, idSchema, planSchema, shortText } from '#core/document'

/** What a save sends: the document and the revision it was read at. */
export const savePlanSchema = z.object({ plan: planSchema, revision: z.number().int().min(1) })
/** Whether the list shall come at once, with what is known. */
export const listQuerySchema = z.object({ soon: z.enum(['', '1']).default('') })
/** Which job is open where changes are asked for; '' for none. */
export const changesQuerySchema = z.object({ job: z.union([z.literal(''), idSchema]).default('') })
/** A variant: its name and the plan it begins with. */
export const newVariantSchema = z.object({
  name: shortText.min(1, 'A variant needs a name.'),
  plan: planSchema,
})
/** A job from nothing but its name, or one from a plan file. */
export const newJobSchema = z.object({ name: shortText.min(1, 'A job needs a name.') })
export const planFileSchema = z.object({ plan: planSchema, fans: z.array(fanSchema).max(100).default([]) })
/** The same as a JSON Schema, for other programs: docs/plan.schema.json. */
export const planJsonSchema = () => z.toJSONSchema(planFileSchema, { io: 'input', reused: 'ref' })
