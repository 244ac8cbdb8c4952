import { k1, sumLevels } from '#core/noise'
import {
  ofLesserStage,
  ofNight,
  senseOf,
  targetKinds,
  targetName,
  wantedRange,
  type Target,
} from '#core/document'
import { nightLevel, predictTarget } from '../target-prediction'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** What the rules hold every target against: what the plan predicts of it, before anything is built. */

/** The need holds the airflow wanted at least; nothing is told twice. */
const heldElsewhere = (t: Target) => t.kind === 'flow' && senseOf(t) === 'least'

/** What the fans and all other sources make together, and what the others leave for the fans. */
function besideOthers(
  { plan: { job } }: FactSources,
  limit: number,
  level: number | null,
): Pick<SiFacts, 'noise.together' | 'noise.left'> {
  const { roomDbA } = job
  if (roomDbA === null || level === null) return {}
  return {
    'noise.together': sumLevels([level, roomDbA]) ?? undefined,
    'noise.left': roomDbA < limit ? limit - k1(limit - roomDbA) : undefined,
  }
}

function factsOf(sources: FactSources, target: Target): SiFacts {
  // the listener hears all of the machine
  const night = ofNight(target) ? nightLevel(sources) : null
  if (target.kind === 'level' && wantedRange(target).low === null) {
    const level = night ?? sources.machineDbA
    return {
      'target.kind': target.kind,
      // a lesser stage is quieter than what the plan stands for
      'noise.target': night === null && ofLesserStage(target) ? undefined : target.limit,
      ...(level === null ? {} : { 'noise.level': level }),
      ...besideOthers(sources, target.limit, level ?? sources.operation.candidate?.level?.value ?? null),
    }
  }
  const predicted = heldElsewhere(target) ? null : predictTarget(sources, target)
  return {
    'target.kind': target.kind,
    'target.sense': senseOf(target),
    'target.limit': target.limit,
    'target.upper': target.upper ?? undefined,
    'target.predicted': predicted?.value ?? undefined,
    'target.low': predicted?.low ?? undefined,
    'target.high': predicted?.high ?? undefined,
  }
}

/** Every target of a stream by itself; those of the whole machine are told once, with the stream before all others. */
export function targetSubjects(sources: FactSources): SiSubject[] {
  const { plan } = sources
  const mine = plan.targets.filter(
    (t) => t.streamId === plan.stream || (t.streamId === null && plan.before === 0),
  )
  return mine.map((target): SiSubject => {
    const { quantity } = targetKinds[target.kind]
    return {
      kind: 'target',
      id: target.id,
      name: [targetName(target), target.place, target.stage].filter(Boolean).join(', '),
      at: { station: 'need' },
      facts: factsOf(sources, target),
      quantities: {
        'target.limit': quantity,
        'target.upper': quantity,
        'target.predicted': quantity,
        'target.low': quantity,
        'target.high': quantity,
      },
    }
  })
}
