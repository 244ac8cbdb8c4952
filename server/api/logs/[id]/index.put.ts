import { renameSchema } from '#shared/schemas/log'
import { renameLog } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await renameLog(await database(), idOf(event), (await bodyOf(event, renameSchema)).name)
  return { ok: true }
})
