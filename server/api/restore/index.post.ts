import { holdBackup, lookAt } from '../../backup/incoming'
import { MAX_BACKUP } from '../../backup/read'
import { mostWords, partsOf } from '../../utils/body'
import { database } from '../../utils/store'
import { dataDirectory } from '../../utils/place'
import { route } from '../../utils/reply'

/** A backup comes in: what it would do is said, nothing is written. */
export default route('inside', async (event) => {
  const id = await holdBackup(dataDirectory(), partsOf(event, MAX_BACKUP, mostWords(MAX_BACKUP)))
  return lookAt(await database(), dataDirectory(), id)
})
