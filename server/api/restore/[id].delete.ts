import { stopRestore } from '../../backup/incoming'
import { dataDirectory } from '../../utils/place'
import { idOf, route } from '../../utils/reply'

/** Stops a restore behind the thing that is being written, or gives up one that waits. */
export default route('inside', async (event) => {
  stopRestore(dataDirectory(), idOf(event))
  return { stopped: true }
})
