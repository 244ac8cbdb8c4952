import {
  newFan,
  newStreamPlan,
  newTarget,
  setDrive,
  type Branch,
  type Fan,
  type Job,
  type PathElement,
  type StreamPlan,
  type Uncertainty,
  settlePlaces,
} from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { assumptionsOf } from './assumptions'
import { shapePath, type PathSizes, type Shape } from './shapes'

/** What stands on the label of a fan; null is not printed or not legible. SI. */
export interface BeginLabel {
  frameM: number | null
  ratedV: number | null
  ratedA: number | null
  ratedRpm: number | null
}
/** A fan by its label, a usual one of the size that suffices, one of the shelf, or none yet: the shelf is ranked. */
export type BeginFan =
  { way: 'label'; label: BeginLabel } | { way: 'usual' } | { way: 'known'; fan: Fan } | { way: 'shelf' }

/** All that a new job is begun with. */
export interface Beginning {
  /** the facts as far as they are known; its id is the job's */
  job: Job
  uncertainties: Uncertainty[]
  /** at most this loud for the listener, dB(A); null: nobody said */
  levelDbA: number | null
  shape: Shape
  sizes: PathSizes
  /** the path of another job, for the shape 'like' */
  path: { path: PathElement[]; branches: Branch[] } | null
  fan: BeginFan
}
interface Begun {
  plan: StreamPlan
  /** the fan that was made for it; null where there is none, or it stands on the shelf */
  made: Fan | null
}

/** Frames that are usual, m, the rated voltage that is, V, and the frame of a fan of which nothing is known. Common practice, no source. */
const FRAMES = [0.04, 0.06, 0.08, 0.092, 0.12, 0.14]
const USUAL_V = 12
const USUAL_FRAME_M = 0.08
/** Depth of a frame: 25 mm from this side on, less below. Common practice, no source. */
const DEEP_FROM_M = 0.07
const depthOf = (frameM: number) => (frameM >= DEEP_FROM_M ? 0.025 : frameM >= 0.05 ? 0.015 : 0.01)
/** A usual heatsink: K/W at an airflow, m3/s (20 m3/h). Common practice, no source. */
const USUAL_SINK = { flowM3s: 20 / 3600, kPerW: 0.8 }

const millimetres = (m: number) => Math.round(m * 1000)

/**
 * A fan of which only the label is known. What is not printed stays unknown; without a size or a voltage the usual stand
 * in, and the notes say so.
 */
function fanFromLabel(id: string, { frameM, ratedV, ratedA, ratedRpm }: BeginLabel): Fan {
  const side = frameM ?? USUAL_FRAME_M
  const volts = ratedV ?? USUAL_V
  const guessed = [frameM === null ? 'size' : '', ratedV === null ? 'voltage' : ''].filter(Boolean)
  return {
    ...newFan(id),
    model: `Fan ${millimetres(side)} mm, ${volts} V`,
    frameM: side,
    thicknessM: depthOf(side),
    ratedV: volts,
    ratedA,
    ratedRpm,
    owned: true,
    curveBasis: 'estimated',
    notes: [
      'From its label.',
      ...(guessed.length ? [`Its ${guessed.join(' and ')} is assumed: measure it.`] : []),
    ].join(' '),
  }
}
const usualFan = (id: string, frameM: number): Fan => ({
  ...newFan(id),
  model: `Usual ${millimetres(frameM)} mm, ${USUAL_V} V`,
  frameM,
  thicknessM: depthOf(frameM),
  ratedV: USUAL_V,
  curveBasis: 'estimated',
  notes: 'No fan of this name exists: a usual one of its size. Put in the label of the one you get.',
})

/** The facts with the usual in place of what nobody knows, each marked as assumed with its range. */
function withAssumptions(
  job: Job,
  uncertainties: readonly Uncertainty[],
): Pick<StreamPlan, 'job' | 'uncertainties'> {
  const open = assumptionsOf(job).filter((a) => job[a.key] === null)
  return {
    job: { ...job, ...Object.fromEntries(open.map((a) => [a.key, a.value])) },
    uncertainties: [
      ...uncertainties.filter((u) => !open.some((a) => a.key === u.id)),
      ...open.map(({ key, low, high }): Uncertainty => ({ id: key, grade: 'assumed', low, high })),
    ],
  }
}

function planWith(beginning: Beginning, fan: Fan | null, id: (kind: string) => string): StreamPlan {
  const { job, uncertainties, levelDbA, shape, sizes, path } = beginning
  const frameM = fan?.frameM ?? USUAL_FRAME_M
  const plan: StreamPlan = {
    ...newStreamPlan(job.id, job.name),
    ...withAssumptions(job, uncertainties),
    ...(shape === 'like'
      ? (path ?? { path: [], branches: [] })
      : { path: shapePath(shape, job.goal, sizes, frameM, id), branches: [] }),
    sink: job.goal === 'part' ? [USUAL_SINK] : [],
  }
  settlePlaces(plan)
  const place = plan.places[0]!
  // air that only goes round stays in the box; a hose leads out; what is cooled or changed is drawn through
  if (shape === 'hose') plan.job.airOutlet = 'outdoors'
  if (shape === 'box' || shape === 'hose') place.direction = 'out'
  if (levelDbA !== null)
    plan.targets.push(newTarget({ id: id('target'), kind: 'level', limit: levelDbA }, plan.stream))
  if (job.goal === 'part')
    plan.job.workings = [
      ...plan.job.workings,
      { key: 'sink', value: USUAL_SINK.kPerW, text: 'assumed, a usual small heatsink: put its own figures in' },
    ]
  if (job.goal === 'quieten') {
    plan.job.keepBasis = 'existing-fan'
    plan.job.existingFanId = fan?.id ?? null
  }
  if (fan) {
    place.fans = [{ fanId: fan.id, count: 1 }]
    setDrive(plan, { volts: fan.ratedV, converterId: id('converter') })
  }
  return plan
}

const reportOf = (plan: StreamPlan, fans: readonly Fan[]): Report | null => {
  const made = computeReport({ plan, fans, shown: null })
  return made.ok ? made.report : null
}

/** The smallest usual fan that gives the airflow to plan for; the largest where none does. */
function usualThatSuffices(beginning: Beginning, id: (kind: string) => string): Fan {
  const fanId = id('fan')
  const tried = FRAMES.map((frameM) => usualFan(fanId, frameM))
  const enough = tried.find((fan) => {
    const report = reportOf(planWith(beginning, fan, id), [fan])
    const flow = report?.selection?.served.value ?? null
    const design = report?.need.design.value ?? null
    return flow !== null && design !== null && flow >= design
  })
  return enough ?? (beginning.job.goal === 'quieten' ? usualFan(fanId, USUAL_FRAME_M) : tried.at(-1)!)
}

/**
 * The first plan of a job from what is known of it: what is not known is assumed, marked and ranged, so that there is an
 * operating point from the start.
 * @param id makes ids that begin with a kind
 */
export function beginPlan(beginning: Beginning, id: (kind: string) => string): Begun {
  const { fan } = beginning
  switch (fan.way) {
    case 'shelf':
      return { plan: planWith(beginning, null, id), made: null }
    case 'known':
      return { plan: planWith(beginning, fan.fan, id), made: null }
    case 'label': {
      const made = fanFromLabel(id('fan'), fan.label)
      return { plan: planWith(beginning, made, id), made }
    }
    case 'usual': {
      const made = usualThatSuffices(beginning, id)
      return { plan: planWith(beginning, made, id), made }
    }
  }
}
