import { fanIdsOf } from '../../../../core/plan'
import { fansOfPlan } from '../../../db/repositories/fans'
import { getPlan } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

export default route(async (event) => {
  const db = await database()
  const stored = await getPlan(db, idOf(event))
  return { ...stored, fans: await fansOfPlan(db, fanIdsOf(stored.plan)) }
})
