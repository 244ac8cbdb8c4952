import { getQuery } from 'h3'
import { changesQuerySchema } from '#shared/schemas/plan'
import { changesOf } from '../db/repositories/changes'
import { database } from '../utils/store'
import { checked, route } from '../utils/reply'

/** Whether somebody changed something: asked now and then by every page that is looked at. */
export default route('inside', async (event) =>
  changesOf(await database(), checked(getQuery(event), changesQuerySchema).job),
)
