import { setResponseHeader } from 'h3'
import { writeBackup } from '../../backup/write'
import { database } from '../../utils/store'
import { route, sendMade } from '../../utils/reply'

/** The whole workshop as one file, made while it is sent. */
export default route('inside', async (event) => {
  const made = new Date().toISOString()
  setResponseHeader(event, 'content-type', 'application/zip')
  setResponseHeader(
    event,
    'content-disposition',
    `attachment; filename="redpoll-backup-${made.slice(0, 10)}.zip"`,
  )
  return sendMade(event, writeBackup(await database(), null, made))
})
