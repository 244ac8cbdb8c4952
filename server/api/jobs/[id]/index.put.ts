import { savePlanSchema } from '#shared/schemas/plan'
import { Refused } from '../../../db/errors'
import { savePlan } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  const { plan, revision } = await bodyOf(event, savePlanSchema)
  if (plan.job.id !== idOf(event)) throw new Refused('The document belongs to another job.', 'plan.job.id')
  return savePlan(await database(), plan, revision)
})
