import { deleteJob } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await deleteJob(await database(), idOf(event))
  return { deleted: true }
})
