import { expose } from 'comlink'
import { computeReport, rankShelf, type Fan, type PlanDocument, type Ranking, type RankOptions } from '../../core/plan'

let shelf: Fan[] = []

/** A thin wrapper: the ranking itself is the core's. */
const worker = {
  setShelf(fans: Fan[]): void {
    shelf = fans
  },
  rank(plan: PlanDocument, options: RankOptions): Ranking | null {
    const result = computeReport({ plan, fans: shelf })
    return result.ok && result.report.path.complete ? rankShelf(result.report.context, shelf, options) : null
  },
}
export type RankWorker = typeof worker
expose(worker)
