import { database } from '../utils/store'
import { route } from '../utils/reply'

export default route('anyone', async () => {
  await (await database()).query('SELECT 1')
  return { ready: true }
})
