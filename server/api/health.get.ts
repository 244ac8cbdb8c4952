import { setResponseStatus } from 'h3'
import { DatabaseAway } from '../db/errors'
import { route } from '../utils/reply'
import { database, startup } from '../utils/store'

/** A database that has not answered after so long is away, ms. */
const PATIENCE_MS = 3000

/** Whether this server can work now; answered within some seconds, whatever the database does. */
export default route('anyone', async (event) => {
  if (!startup.ready && !startup.away) {
    setResponseStatus(event, 503)
    return { error: { code: 'starting', message: startup.doing } }
  }
  const db = await database()
  const late = new Promise<never>((_, reject) => {
    setTimeout(() => reject(new DatabaseAway('no answer in time')), PATIENCE_MS).unref()
  })
  await Promise.race([db.query('SELECT 1'), late])
  return { ready: true }
})
