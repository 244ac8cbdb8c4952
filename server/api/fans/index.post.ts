import { fanSchema } from '#shared/schemas/fan'
import { createFan } from '../../db/repositories/fans'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

export default route(async (event) => createFan(await database(), await bodyOf(event, fanSchema)))
