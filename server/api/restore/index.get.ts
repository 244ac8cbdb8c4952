import { progressOf } from '../../backup/incoming'
import { dataDirectory } from '../../utils/place'
import { route } from '../../utils/reply'

/** How far a restore is. */
export default route('inside', async () => progressOf(dataDirectory()))
