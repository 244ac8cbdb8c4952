import { fanIdsOf, type PlanDocument, type PlanInput } from '#core/document'
import { reportSteps, type ReportResult } from '#core/plan'
import { inPieces } from '#shared/pieces'
import { fansOfPlan, shownByShelf } from '../db/repositories/fans'
import type { Queryable } from '../db/database'
import { breathe } from './breathe'

/** A plan with all that its report is computed from. */
export async function planInput(db: Queryable, plan: PlanDocument): Promise<PlanInput> {
  return {
    plan,
    fans: await fansOfPlan(db, fanIdsOf(plan)),
    shown: plan.job.trust === 'discounted' ? await shownByShelf(db) : null,
  }
}

/** A plan's report, with other requests answered in between. */
export const reportOf = async (db: Queryable, plan: PlanDocument): Promise<ReportResult> =>
  inPieces(reportSteps(await planInput(db, plan)), breathe)
