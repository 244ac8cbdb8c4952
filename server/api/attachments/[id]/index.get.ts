import { Readable } from 'node:stream'
import { setResponseHeader } from 'h3'
import { readAttachment } from '../../../db/repositories/attachments'
import { database } from '../../../utils/store'
import { idOf, route, sendMade } from '../../../utils/reply'

export default route('inside', async (event) => {
  const { mediaType, size, bytes } = await readAttachment(await database(), idOf(event))
  setResponseHeader(event, 'content-type', mediaType)
  setResponseHeader(event, 'content-length', size)
  // what was uploaded is shown as that kind of file and as nothing else
  setResponseHeader(event, 'x-content-type-options', 'nosniff')
  setResponseHeader(event, 'content-security-policy', "default-src 'none'; sandbox")
  return sendMade(event, Readable.from(bytes))
})
