import { takePicture } from '../../../utils/picture'
import { idOf, route } from '../../../utils/reply'

export default route('inside', (event) => takePicture(event, { fanId: idOf(event) }))
