import { renewToken } from '../../../db/repositories/instruments'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => ({ token: await renewToken(await database(), idOf(event)) }))
