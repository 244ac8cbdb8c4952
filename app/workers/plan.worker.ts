import { expose } from 'comlink'
import { computeReport, leversOf, measurementWorth, planDoubt, type DoubtReport, type Fan, type Lever, type PlanDocument, type Worth } from '../../core/plan'

/** A thin wrapper: the computing itself is the core's. */
const worker = {
  sample(plan: PlanDocument, fans: Fan[]): DoubtReport | null {
    return planDoubt({ plan, fans })
  },
  levers(plan: PlanDocument, fans: Fan[]): { levers: Lever[], worth: Worth[] } {
    const result = computeReport({ plan, fans })
    return { levers: result.ok ? leversOf({ plan, fans }, result.report) : [], worth: measurementWorth({ plan, fans }) }
  },
}
export type PlanWorker = typeof worker
expose(worker)
