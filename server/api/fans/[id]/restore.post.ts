import { restoreFan } from '../../../db/repositories/fans'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  await restoreFan(await database(), idOf(event))
  return { restored: true }
})
