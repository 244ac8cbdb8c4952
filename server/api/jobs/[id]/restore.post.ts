import { restoreJob } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await restoreJob(await database(), idOf(event))
  return { restored: true }
})
