import { z } from 'zod'
import { planSchema, shortText } from '#core/document'

/** What a save sends: the document and the revision it was read at. */
export const savePlanSchema = z.object({ plan: planSchema, revision: z.number().int().min(1) })
/** A variant: its name and the plan it begins with. */
export const newVariantSchema = z.object({
  name: shortText.min(1, 'A variant needs a name.'),
  plan: planSchema,
})
export const newJobSchema = z.object({ name: shortText.min(1, 'A job needs a name.') })
