import { wholeSchema } from '#shared/schemas/log'
import { finishLog, getLog } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

/** An import is done: all of its rows are here. */
export default route('inside', async (event) => {
  const db = await database()
  await finishLog(db, idOf(event), (await bodyOf(event, wholeSchema)).rows)
  return getLog(db, idOf(event))
})
