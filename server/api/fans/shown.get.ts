import { shownByShelf } from '../../db/repositories/fans'
import { database } from '../../utils/store'
import { route } from '../../utils/reply'

export default route('inside', async () => shownByShelf(await database()))
