import { archiveAttachment } from '../../../db/repositories/attachments'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await archiveAttachment(await database(), idOf(event), false)
  return { ok: true }
})
