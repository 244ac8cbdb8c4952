import type { StreamPlan } from '#core/document'
import type { Requirement } from '#core/requirement'
import type { Operation, SelectionContext } from '#core/selection'
import type { PowerState } from '#core/supply'
import type { AirSystem } from '#core/system'

/** An air stream where it runs, as the day takes it: the plan with this stream in front, and what was computed of it. */
export interface DayStream {
  plan: StreamPlan
  system: AirSystem
  context: SelectionContext
  requirement: Requirement
  operation: Operation
  power: PowerState
}
