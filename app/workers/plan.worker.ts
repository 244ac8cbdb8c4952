import { expose } from 'comlink'
import { computeReport } from '#core/plan'
import {
  improvementsOf,
  measurementSensitivity,
  planUncertainty,
  remediesOf,
  type Remedy,
  type UncertaintyReport,
  type Improvement,
  type Sensitivity,
} from '#core/advice'
import type { PlanInput } from '#core/document'
import type { Finding } from '#core/rules'

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
  /** What takes a finding away. */
  remedies(input: PlanInput, finding: Finding): Remedy[] {
    const result = computeReport(input)
    return result.ok ? remediesOf(input, result.report, finding) : []
  },
}
export type PlanWorker = typeof worker
expose(worker)
