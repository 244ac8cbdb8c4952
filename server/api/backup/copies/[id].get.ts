import { createReadStream } from 'node:fs'
import { getRouterParam, setResponseHeader } from 'h3'
import { copyNameSchema } from '#shared/schemas/backup'
import { copyFile } from '../../../backup/copies'
import { dataDirectory } from '../../../utils/place'
import { checked, route, sendMade } from '../../../utils/reply'

/** A daily copy, to be kept elsewhere. */
export default route('inside', async (event) => {
  const name = checked(getRouterParam(event, 'id'), copyNameSchema)
  const file = copyFile(dataDirectory(), name)
  setResponseHeader(event, 'content-type', 'application/zip')
  setResponseHeader(event, 'content-disposition', `attachment; filename="${name}"`)
  return sendMade(event, createReadStream(file))
})
