import { expose } from 'comlink'
import { computeReport } from '#core/plan'
import { leversOf, measurementWorth, planDoubt, type DoubtReport, type Lever, type Worth } from '#core/advice'
import type { PlanInput } from '#core/document'

/** A thin wrapper: the computing itself is the core's. */
const worker = {
  sample(input: PlanInput): DoubtReport | null {
    return planDoubt(input)
  },
  levers(input: PlanInput): { levers: Lever[]; worth: Worth[] } {
    const result = computeReport(input)
    return { levers: result.ok ? leversOf(input, result.report) : [], worth: measurementWorth(input) }
  },
}
export type PlanWorker = typeof worker
expose(worker)
