import { NotFound } from '../db/errors'
import { route } from '../utils/reply'

/** Every other address below /api: a proper answer in JSON. */
export default route('inside', async () => {
  throw new NotFound('address')
})
