import type { DayReport, DayStream } from '#core/day'
import type { Fan, PlacePlan } from '#core/document'
import type { MountReport } from '#core/mount'
import type { NeedEnv, Requirement } from '#core/requirement'
import type { Operation, SelectionContext } from '#core/selection'
import type { PowerState, RunningTime } from '#core/supply'
import type { AirSystem } from '#core/system'
import type { VerdictReport } from '#core/verification'
import type { Quantity } from '#core/units'
import type { FactName, FactValue } from '../fact-catalogue'
import type { SubjectKind } from '../rule'
import type { Where } from '../where'

/** What facts are taken from: the plan, from the place that is judged, and what its stages have computed. */
export interface FactSources {
  plan: PlacePlan
  /** the fans as the plan believes them */
  fans: readonly Fan[]
  needEnv: NeedEnv
  context: SelectionContext
  system: AirSystem
  /** how the fans go into the place that is judged; null without fans */
  mount: MountReport | null
  /** into each of their places */
  mounts: readonly MountReport[]
  requirement: Requirement
  operation: Operation
  power: PowerState
  runtime: RunningTime
  verdict: VerdictReport
  /** the days of the machine; null where none was planned */
  day: DayReport | null
  /** every air stream of the machine, the first one first */
  streams: readonly DayStream[]
  /** all fans together at the listener where several air streams have some, dB(A); null else */
  machineDbA: number | null
}

/** Facts in SI units: null is "not told, though it could be", undefined (or not named) "does not exist here". */
export type SiFacts = Partial<Record<FactName, FactValue | null | undefined>>

/** One thing that rules are judged for by itself, its facts in SI units. */
export interface SiSubject {
  kind: SubjectKind
  id: string
  name: string
  at: Where | null
  facts: SiFacts
  /** quantity of facts that are printed in the unit of their reading */
  quantities?: Partial<Record<FactName, Quantity>>
}
