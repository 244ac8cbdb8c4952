import { dutyOf, staysAsIs, streamName, type StreamPlan } from '#core/document'
import type { MountReport } from '#core/mount'
import type { Requirement } from '#core/requirement'
import type { Finding } from '#core/rules'
import type { Operation } from '#core/selection'
import type { PowerState } from '#core/supply'
import { freeDelivery, isOfOneKind, type AirSystem, type FanArray } from '#core/system'
import type { StationState } from './stations'

/** An air stream in a line. */
export interface StreamSummary {
  id: string
  name: string
  /** its present fan stays */
  asIs: boolean
  /** its fans, '' without */
  fanName: string
  /** null where they cannot be computed */
  fanArray: FanArray | null
  /** how they go into each of their places */
  mounts: MountReport[]
  /** what it needs and what it gets at the job's side, m3/s; null where that is not known */
  need: number | null
  flow: number | null
  /** airflow of one fan here over what its label claims, 0..1 */
  ofLabel: number | null
  volts: number | null
  duty: number | null
  currentA: number | null
  state: StationState
}

/** What the labels promise of fans that share the air, m3/s: all side by side at one place; null of unlike ones. */
function labelFlow(fanArray: FanArray): number | null {
  const [first, ...others] = fanArray.groups
  if (!isOfOneKind(fanArray) || others.some((g) => g.count !== first!.count)) return null
  return (fanArray.arrangement === 'series' ? 1 : first!.count) * freeDelivery(fanArray.model)
}

export function streamSummary(
  {
    plan,
    system: { fanArray },
    requirement,
    operation: { candidate, delivered },
    power,
    fanName,
    mounts,
  }: {
    plan: StreamPlan
    system: AirSystem
    requirement: Requirement
    operation: Operation
    power: PowerState
    fanName: string
    mounts: MountReport[]
  },
  findings: readonly Finding[],
): StreamSummary {
  const id = plan.stream
  const mine = findings.filter((f) => f.stream?.id === id)
  const grave = (severity: Finding['severity']) => mine.some((f) => f.severity === severity)
  const asIs = staysAsIs(plan)
  const { heardDbA } = plan.job
  const known = asIs ? fanArray !== null || heardDbA !== null : candidate !== null
  const label = fanArray && labelFlow(fanArray)
  return {
    id,
    name: streamName(plan),
    asIs,
    fanName: fanArray ? fanName : '',
    fanArray,
    mounts,
    need: requirement.flow,
    flow: delivered.flow,
    ofLabel: candidate?.flow && label ? candidate.flow / label : null,
    volts: fanArray ? (candidate?.driveV ?? power.fanV) : null,
    duty: dutyOf(plan),
    currentA: power.fanRunA,
    state: grave('stop') ? 'stop' : grave('fix') ? 'fix' : known ? 'settled' : 'not-begun',
  }
}
