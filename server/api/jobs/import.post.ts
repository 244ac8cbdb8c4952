import { randomUUID } from 'node:crypto'
import { planFileSchema } from '#shared/schemas/plan'
import { importPlan } from '../../db/repositories/jobs'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

/** A job from a plan file, with the fans it speaks of. */
export default route('inside', async (event) =>
  importPlan(await database(), `job-${randomUUID().slice(0, 8)}`, await bodyOf(event, planFileSchema)),
)
