import { rememberBase } from '../../../db/bases'
import { getPlan } from '../../../db/repositories/jobs'
import { planInput } from '../../../utils/plan-input'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

/** A job with all that its report is computed from. */
export default route('inside', async (event) => {
  const db = await database()
  const stored = await getPlan(db, idOf(event))
  rememberBase(db, stored.plan, stored.revision)
  const { fans, shown } = await planInput(db, stored.plan)
  return { ...stored, fans, shown }
})
