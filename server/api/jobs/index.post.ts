import { randomUUID } from 'node:crypto'
import { newJobSchema } from '#shared/schemas/plan'
import { createJob } from '../../db/repositories/jobs'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

export default route('inside', async (event) => {
  const { name } = await bodyOf(event, newJobSchema)
  return createJob(await database(), `job-${randomUUID().slice(0, 8)}`, name)
})
