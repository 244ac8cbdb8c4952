import { putAttachmentAside } from '../../../db/repositories/fans'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route(async (event) => {
  await putAttachmentAside(await database(), idOf(event), false)
  return { ok: true }
})
