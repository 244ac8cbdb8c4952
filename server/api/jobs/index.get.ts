import { getQuery } from 'h3'
import { listQuerySchema } from '#shared/schemas/plan'
import { database } from '../../utils/store'
import { checked, route } from '../../utils/reply'
import { summaries } from '../../utils/summaries'

export default route('inside', async (event) =>
  summaries(await database(), checked(getQuery(event), listQuerySchema).soon === '1'),
)
