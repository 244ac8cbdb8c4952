import { getRouterParam } from 'h3'
import { copyNameSchema } from '#shared/schemas/backup'
import { copyFile } from '../../../backup/copies'
import { holdBackup, lookAt } from '../../../backup/incoming'
import { database } from '../../../utils/store'
import { dataDirectory } from '../../../utils/place'
import { checked, route } from '../../../utils/reply'

/** What restoring a daily copy would do. */
export default route('inside', async (event) => {
  const file = copyFile(dataDirectory(), checked(getRouterParam(event, 'id'), copyNameSchema))
  return lookAt(await database(), dataDirectory(), await holdBackup(dataDirectory(), file))
})
