import { getSettings } from '../db/repositories/settings'
import { database } from '../utils/store'
import { route } from '../utils/reply'

export default route('inside', async () => getSettings(await database()))
