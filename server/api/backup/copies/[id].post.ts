import { getRouterParam } from 'h3'
import { readFileSync } from 'node:fs'
import { copyNameSchema } from '#shared/schemas/backup'
import { copyFile } from '../../../backup/copies'
import { holdBackup } from '../../../backup/incoming'
import { readBackup } from '../../../backup/read'
import { previewOf } from '../../../backup/restore'
import { database } from '../../../utils/store'
import { dataDirectory } from '../../../utils/place'
import { checked, route } from '../../../utils/reply'

/** What restoring a daily copy would do. */
export default route('inside', async (event) => {
  const bytes = readFileSync(copyFile(dataDirectory(), checked(getRouterParam(event, 'id'), copyNameSchema)))
  return previewOf(await database(), readBackup(bytes), holdBackup(dataDirectory(), bytes))
})
