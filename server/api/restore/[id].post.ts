import { restoreSchema } from '#shared/schemas/backup'
import { dropBackup, heldBackup } from '../../backup/incoming'
import { readBackup } from '../../backup/read'
import { restoreBackup } from '../../backup/restore'
import { database } from '../../utils/store'
import { dataDirectory } from '../../utils/place'
import { bodyOf, idOf, route } from '../../utils/reply'

/** Writes what was chosen of a backup: all of it, or nothing. */
export default route('inside', async (event) => {
  const order = await bodyOf(event, restoreSchema)
  const id = idOf(event)
  const done = await restoreBackup(await database(), readBackup(heldBackup(dataDirectory(), id)), order)
  dropBackup(dataDirectory(), id)
  return done
})
