import { expose } from 'comlink'
import { planDoubt, type DoubtReport, type Fan, type PlanDocument } from '../../core/plan'

/** A thin wrapper: the sampling itself is the core's. */
const worker = {
  sample(plan: PlanDocument, fans: Fan[]): DoubtReport | null {
    return planDoubt({ plan, fans })
  },
}
export type DoubtWorker = typeof worker
expose(worker)
