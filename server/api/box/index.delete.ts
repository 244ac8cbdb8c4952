import { stopBox } from '../../devices/box'
import { route } from '../../utils/reply'

export default route(async () => {
  stopBox()
  return { ok: true }
})
