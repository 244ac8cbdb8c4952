import { archiveSchema } from '#shared/schemas/stock'
import { archiveStock } from '../../db/repositories/stock'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

export default route('inside', async (event) => {
  const { ids, archived } = await bodyOf(event, archiveSchema)
  return archiveStock(await database(), ids, archived)
})
