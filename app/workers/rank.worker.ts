import { expose } from 'comlink'
import { computeReport } from '#core/plan'
import {
  modelShelf,
  rankShelf,
  trustedFans,
  type ModelShelf,
  type Ranking,
  type RankOptions,
} from '#core/selection'
import { fanIdsOf, type Fan, type PlanDocument, type ShelfShown, type Trust } from '#core/document'

let shelf: Fan[] = []
let shown: ShelfShown | null = null
/** the shelf as it was last believed, ready to be ranked */
let models: { trust: Trust; shelf: ModelShelf } | null = null

function modelsFor(trust: Trust): ModelShelf {
  if (models?.trust !== trust) models = { trust, shelf: modelShelf(trustedFans(shelf, trust, shown)) }
  return models.shelf
}

/** A thin wrapper: the ranking itself is the core's. */
const worker = {
  setShelf(fans: Fan[], seen: ShelfShown | null): void {
    shelf = fans
    shown = seen
    models = null
  },
  rank(plan: PlanDocument, options: RankOptions): Ranking | null {
    const ids = fanIdsOf(plan)
    const result = computeReport({ plan, fans: shelf.filter((f) => ids.includes(f.id)), shown })
    return result.ok && result.report.path.complete
      ? rankShelf(result.report.selectionContext, modelsFor(plan.job.trust), options)
      : null
  },
}
export type RankWorker = typeof worker
expose(worker)
