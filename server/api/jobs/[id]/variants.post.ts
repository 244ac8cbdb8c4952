import { randomUUID } from 'node:crypto'
import { newVariantSchema } from '#shared/schemas/plan'
import { createVariant } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  const { name, plan } = await bodyOf(event, newVariantSchema)
  return createVariant(await database(), idOf(event), `job-${randomUUID().slice(0, 8)}`, name, plan)
})
