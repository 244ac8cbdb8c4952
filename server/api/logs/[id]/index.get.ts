import { getLog } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => getLog(await database(), idOf(event)))
