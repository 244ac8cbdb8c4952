import { fanIdsOf, type PlanDocument, type PlanInput } from '#core/document'
import { fansOfPlan, shownByShelf } from '../db/repositories/fans'
import type { Queryable } from '../db/database'

/** A plan with all that its report is computed from. */
export async function planInput(db: Queryable, plan: PlanDocument): Promise<PlanInput> {
  return {
    plan,
    fans: await fansOfPlan(db, fanIdsOf(plan)),
    shown: plan.job.trust === 'discounted' ? await shownByShelf(db) : null,
  }
}
