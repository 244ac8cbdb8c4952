import type { Imported } from '#shared/api'
import { importSchema } from '#shared/schemas/fan'
import { importFans } from '../../../db/repositories/fans'
import { takeUpWritten } from '../../../utils/held-shelf'
import { database } from '../../../utils/store'
import { bodyOf, route } from '../../../utils/reply'

export default route('inside', async (event): Promise<Imported> => {
  const db = await database()
  const { fans } = await bodyOf(event, importSchema)
  const imported = await importFans(db, fans)
  takeUpWritten(db, fans, imported.revisions)
  return imported
})
