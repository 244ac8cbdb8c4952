import { fanIdsOf, seenFrom, type PlanDocument, type PlanInput } from '#core/document'
import { reportSteps, type ReportResult } from '#core/plan'
import { inPieces } from '#shared/pieces'
import { fansOfPlan, shownByShelf } from '../db/repositories/fans'
import type { Queryable } from '../db/database'
import { breathe } from './breathe'

/**
 * A plan with all that its report is computed from.
 * @param stream that it is seen from; the first one where it is not given
 */
export async function planInput(db: Queryable, plan: PlanDocument, stream?: string): Promise<PlanInput> {
  // both on their way at once: a database elsewhere answers each after a while
  const [fans, shown] = await Promise.all([
    fansOfPlan(db, fanIdsOf(plan)),
    plan.job.trust === 'discounted' ? shownByShelf(db) : null,
  ])
  return { plan: seenFrom(plan, stream), fans, shown }
}

/** A plan's report, with other requests answered in between. */
export const reportOf = async (db: Queryable, plan: PlanDocument, stream?: string): Promise<ReportResult> =>
  inPieces(reportSteps(await planInput(db, plan, stream)), breathe)
