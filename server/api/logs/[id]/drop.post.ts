import { dropLog } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await dropLog(await database(), idOf(event))
  return { ok: true }
})
