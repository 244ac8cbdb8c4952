import { restoreInstrument } from '../../../db/repositories/instruments'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await restoreInstrument(await database(), idOf(event))
  return { ok: true }
})
