import { holdBackup } from '../../backup/incoming'
import { MAX_BACKUP, readBackup } from '../../backup/read'
import { previewOf } from '../../backup/restore'
import { database } from '../../utils/store'
import { dataDirectory } from '../../utils/place'
import { bytesOf, route } from '../../utils/reply'

/** A backup comes in: what it would do is said, nothing is written. */
export default route('inside', async (event) => {
  const bytes = await bytesOf(event, MAX_BACKUP)
  const backup = readBackup(bytes)
  return previewOf(await database(), backup, holdBackup(dataDirectory(), bytes))
})
