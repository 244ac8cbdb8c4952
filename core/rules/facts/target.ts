import {
  facedStream,
  MAIN_STREAM,
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

function factsOf(sources: FactSources, target: Target): SiFacts {
  // the listener hears all of the machine
  const night = ofNight(target) ? nightLevel(sources) : null
  if (target.kind === 'level' && wantedRange(target).low === null && night !== null)
    return { 'target.kind': target.kind, 'noise.target': target.limit, 'noise.level': night }
  if (target.kind === 'level' && wantedRange(target).low === null)
    return {
      'target.kind': target.kind,
      // a lesser stage is quieter than what the plan stands for
      'noise.target': ofLesserStage(target) ? undefined : target.limit,
      ...(sources.machineDbA === null ? {} : { 'noise.level': sources.machineDbA }),
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

/** Every target of the stream in front by itself; those of the whole machine stand with the first one. */
export function targetSubjects(sources: FactSources): SiSubject[] {
  const { plan } = sources
  const front = facedStream(plan)
  const mine = plan.targets.filter((t) => (t.streamId ?? MAIN_STREAM) === front)
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
