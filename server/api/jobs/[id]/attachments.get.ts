import { listAttachments } from '../../../db/repositories/attachments'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => listAttachments(await database(), { jobId: idOf(event) }))
