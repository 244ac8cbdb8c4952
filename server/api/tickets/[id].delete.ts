import { idOf, route } from '../../utils/reply'
import { endOf } from '../../utils/tickets'

/** Signs a browser out, wherever it is. */
export default route('inside', async (event) => {
  await endOf(idOf(event))
  return { ended: true }
})
