import type { StreamPlan, UncertainInput } from '#core/document'
import { membersOf, type FanArray } from '#core/system'
import type { Fired } from './evaluate'
import type { FactName } from './fact-catalogue'

/** Facts that follow from what the fans do on the path, from the fans' own figures, and from each assumed input of the need. */
const ofOperation: FactName[] = ['op.exists', 'op.flow', 'op.dp', 'op.flowDirty']
const ofFans: FactName[] = ['fan.freeFlow', 'fan.maxPressure', 'group.weakestPressure']
const ofPath: FactName[] = ['op.dpAtNeed', 'air.inletFreeArea', 'air.outletFreeArea']
const ofInput: Partial<Record<UncertainInput, FactName[]>> = {
  insideMaxC: ['need.targetTemp'],
  ambientC: ['need.ambientTemp'],
}

/** The facts of a plan that rest on something nobody said: a fan known by its label only, an assumed size, an assumed input. */
export function assumedFacts(plan: StreamPlan, fanArray: FanArray | null): ReadonlySet<FactName> {
  const labelled = fanArray !== null && membersOf(fanArray).some((m) => m.curves.fromLabel !== '')
  const sized = plan.path.some((e) => e.basis === 'assumed')
  const inputs = plan.uncertainties.filter((u) => u.grade === 'assumed').map((u) => u.id)
  return new Set<FactName>([
    ...(labelled || sized ? ofOperation : []),
    ...(labelled ? ofFans : []),
    ...(sized ? ofPath : []),
    ...(inputs.length ? (['need.flow', 'op.dpAtNeed'] as const) : []),
    ...inputs.flatMap((key) => ofInput[key] ?? []),
  ])
}

/** A stop rests only on what was typed or measured: one that rests on an assumption is something to measure. */
export const softened = (fired: Fired, assumed: ReadonlySet<FactName>): Fired =>
  fired.severity === 'stop' && Object.keys(fired.facts).some((name) => assumed.has(name as FactName))
    ? { ...fired, severity: 'fix', why: `${fired.why} Part of it is only assumed: measure that first.` }
    : fired
