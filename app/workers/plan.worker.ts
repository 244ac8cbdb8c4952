import { expose } from 'comlink'
import { computeReport } from '#core/plan'
import {
  improvementsOf,
  measurementSensitivity,
  planUncertainty,
  type UncertaintyReport,
  type Improvement,
  type Sensitivity,
} from '#core/advice'
import type { PlanInput } from '#core/document'

/** A thin wrapper: the computing itself is the core's. */
const worker = {
  sample(input: PlanInput): UncertaintyReport | null {
    return planUncertainty(input)
  },
  improvements(input: PlanInput): { improvements: Improvement[]; sensitivity: Sensitivity[] } {
    const result = computeReport(input)
    return {
      improvements: result.ok ? improvementsOf(input, result.report) : [],
      sensitivity: measurementSensitivity(input),
    }
  },
}
export type PlanWorker = typeof worker
expose(worker)
