import { listStock } from '../../db/repositories/stock'
import { database } from '../../utils/store'
import { route } from '../../utils/reply'

export default route('inside', async () => listStock(await database()))
