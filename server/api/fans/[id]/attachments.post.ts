import { getQuery } from 'h3'
import { attachmentSchema, MAX_ATTACHED } from '#shared/schemas/fan'
import { addAttachment } from '../../../db/repositories/attachments'
import { checkPicture } from '../../../utils/picture'
import { database } from '../../../utils/store'
import { bytesOf, checked, idOf, route } from '../../../utils/reply'

/** The picture is the body; its id, name and type stand in the query. */
export default route('inside', async (event) => {
  const { id, name, mediaType } = checked(getQuery(event), attachmentSchema)
  return addAttachment(
    await database(),
    { fanId: idOf(event) },
    id,
    name,
    mediaType,
    checkPicture(await bytesOf(event, MAX_ATTACHED), mediaType),
  )
})
