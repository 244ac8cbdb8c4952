import { boxState } from '../../devices/box'
import { route } from '../../utils/reply'

export default route(async () => ({ running: boxState() }))
