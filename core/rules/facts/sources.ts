import type { PlanDocument } from '#core/document'
import type { Requirement } from '#core/requirement'
import type { Operation } from '#core/selection'
import type { PowerState, RunningTime } from '#core/supply'
import type { AirSystem } from '#core/system'
import type { VerdictReport } from '#core/verification'
import type { FactName, FactValue } from '../fact-catalogue'

/** What facts are taken from: the plan and what its stages have computed. */
export interface FactSources {
  plan: PlanDocument
  system: AirSystem
  requirement: Requirement
  operation: Operation
  power: PowerState
  runtime: RunningTime
  verdict: VerdictReport
}

/** Facts in SI units; null and undefined are "not known". */
export type SiFacts = Partial<Record<FactName, FactValue | null | undefined>>
