import { getFan } from '../../../db/repositories/fans'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => getFan(await database(), idOf(event)))
