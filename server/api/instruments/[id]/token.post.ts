import { unkept } from '../../../db/writes'
import { renewToken } from '../../../db/repositories/instruments'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  const db = await database()
  return { token: await unkept(() => renewToken(db, idOf(event))) }
})
