import { copiesOf } from '../../../backup/copies'
import { dataDirectory } from '../../../utils/place'
import { route } from '../../../utils/reply'

export default route('inside', async () => copiesOf(dataDirectory()))
