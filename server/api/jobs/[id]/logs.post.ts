import { newLogSchema } from '#shared/schemas/log'
import { createLog } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

export default route('inside', async (event) =>
  createLog(await database(), idOf(event), await bodyOf(event, newLogSchema)),
)
