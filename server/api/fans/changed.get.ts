import { getQuery } from 'h3'
import { sinceQuerySchema } from '#shared/schemas/fan'
import { shelfChanges } from '../../db/repositories/changes'
import { database } from '../../utils/store'
import { checked, route } from '../../utils/reply'

export default route('inside', async (event) =>
  shelfChanges(await database(), checked(getQuery(event), sinceQuerySchema).since),
)
