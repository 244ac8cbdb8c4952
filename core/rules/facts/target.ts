import type { Figure } from '#core/figure'
import { facedStream, MAIN_STREAM, type Target } from '#core/document'
import { goalNeeds } from '#core/requirement'
import { riseFigure } from '#core/selection'
import { arrayCost } from '#core/system'
import { targetNames, targetQuantity, wantsLeast } from '#core/verification'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** Every target against what the plan predicts, before anything is built. */

/** Places that are not inside. */
const ROOM = /room|intake|ambient|outside|outdoors/i

/** Places where the current of everything is read, not that of the fans. */
const SOURCE = /source|supply|rail|plug|adapter|battery|pack|all/i

/** What is predicted, and between what it lies. */
type Predicted = Pick<Figure, 'value' | 'low' | 'high'>
const exactly = (value: number | null): Predicted => ({ value, low: value, high: value })

/**
 * Temperature that the plan predicts: of the part where the job cools a part, else of the air inside. Whatever makes heat
 * in there is no cooler than its air.
 */
function temperatureOf(
  { plan, needEnv, context, operation: { delivered } }: FactSources,
  { place }: Target,
): Predicted | null {
  const { job } = plan
  const balanced = job.goal === 'cool' || job.goal === 'part' || job.goal === 'quieten'
  // a box that is cooled actively, or is cooled by water, follows no heat balance of its air; nor does the room
  if (delivered.flow === null || !balanced || job.activeCooling || ROOM.test(place)) return null
  const told = goalNeeds[job.goal]
    .extras(job, needEnv, delivered)
    .find((f) => f.key === (job.goal === 'part' ? 'need.part' : 'need.inside'))
  if (told) return told
  const rise = riseFigure(context, delivered)
  const at = (x: number | null) => (x === null ? null : job.ambientC + x)
  return { value: at(rise.value), low: at(rise.low), high: at(rise.high) }
}

function predictionFor(sources: FactSources, target: Target): Predicted | null {
  const { runtime, operation, system, power } = sources
  switch (target.kind) {
    case 'temperature':
      return temperatureOf(sources, target)
    case 'runtime':
      return runtime.runtimeS === null ? null : exactly(runtime.runtimeS)
    case 'money':
      return system.fanArray && exactly(arrayCost(system.fanArray))
    case 'thickness':
      return operation.candidate && exactly(operation.candidate.thicknessM)
    case 'pressure':
      return operation.candidate && exactly(operation.candidate.pressure)
    case 'current':
      return exactly(SOURCE.test(target.place) ? power.loadWorstA : power.fanRunA)
    case 'power':
      return SOURCE.test(target.place) ? null : operation.candidate && exactly(operation.candidate.powerW)
    // the need and the noise rules hold the first two; the others are only measured
    case 'flow':
    case 'level':
    case 'time':
    case 'rotation':
      return null
  }
}

function factsOf(sources: FactSources, target: Target): SiFacts {
  // the listener hears all of the machine
  if (target.kind === 'level')
    return {
      'noise.target': target.limit,
      ...(sources.machineDbA === null ? {} : { 'noise.level': sources.machineDbA }),
    }
  const predicted = predictionFor(sources, target)
  return {
    'target.kind': target.kind,
    'target.sense': wantsLeast(target) ? 'least' : 'most',
    'target.limit': target.limit,
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
    const quantity = targetQuantity[target.kind]
    return {
      kind: 'target',
      id: target.id,
      name: [targetNames[target.kind], target.place, target.stage].filter(Boolean).join(', '),
      at: { station: 'need' },
      facts: factsOf(sources, target),
      quantities: {
        'target.limit': quantity,
        'target.predicted': quantity,
        'target.low': quantity,
        'target.high': quantity,
      },
    }
  })
}
