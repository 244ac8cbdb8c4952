import { stopBox } from '../../devices/box'
import { route } from '../../utils/reply'

export default route('inside', async () => {
  stopBox()
  return { ok: true }
})
