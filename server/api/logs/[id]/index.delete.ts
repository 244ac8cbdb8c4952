import { putLogAside } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route(async (event) => {
  await putLogAside(await database(), idOf(event))
  return { ok: true }
})
