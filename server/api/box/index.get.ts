import { boxState } from '../../devices/box'
import { route } from '../../utils/reply'

export default route('inside', async () => ({ running: boxState() }))
