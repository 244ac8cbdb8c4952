import { fanSchema } from '#core/document'
import { createFan } from '../../db/repositories/fans'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

export default route('inside', async (event) => createFan(await database(), await bodyOf(event, fanSchema)))
