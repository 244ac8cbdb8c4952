import { stockSchema } from '#shared/schemas/stock'
import { saveStock } from '../../db/repositories/stock'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

export default route('inside', async (event) =>
  saveStock(await database(), (await bodyOf(event, stockSchema)).parts),
)
