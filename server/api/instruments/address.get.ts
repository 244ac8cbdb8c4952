import { benchAddress } from '../../utils/bench-address'
import { route } from '../../utils/reply'

export default route('inside', async () => ({ address: benchAddress.value }))
