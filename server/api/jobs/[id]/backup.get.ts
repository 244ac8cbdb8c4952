import { setResponseHeader } from 'h3'
import { writeBackup } from '../../../backup/write'
import { getPlan } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { idOf, route, sendMade } from '../../../utils/reply'

/** One job with its fans, logs and pictures, as a backup of its own. */
export default route('inside', async (event) => {
  const db = await database()
  const { plan } = await getPlan(db, idOf(event))
  setResponseHeader(event, 'content-type', 'application/zip')
  setResponseHeader(event, 'content-disposition', 'attachment')
  return sendMade(event, writeBackup(db, plan.job.id, new Date().toISOString()))
})
