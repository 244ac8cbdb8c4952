import { getQuery } from 'h3'
import { fanQuerySchema } from '#shared/schemas/fan'
import { pageOfFans } from '../../db/repositories/fans'
import { database } from '../../utils/store'
import { checked, route } from '../../utils/reply'

export default route('inside', async (event) =>
  pageOfFans(await database(), checked(getQuery(event), fanQuerySchema)),
)
