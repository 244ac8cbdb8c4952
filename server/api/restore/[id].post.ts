import { unkept } from '../../db/writes'
import { restoreSchema } from '#shared/schemas/backup'
import { writeRestore } from '../../backup/incoming'
import { database } from '../../utils/store'
import { dataDirectory } from '../../utils/place'
import { bodyOf, idOf, route } from '../../utils/reply'

/** Writes what was chosen of a backup, thing by thing; one that was stopped goes on. */
export default route('inside', async (event) => {
  const { of, ...order } = await bodyOf(event, restoreSchema)
  const db = await database()
  return unkept(() => writeRestore(db, dataDirectory(), idOf(event), order, of))
})
