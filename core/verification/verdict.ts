import { intervalHalfWidth, meanOf, targetVerdict, type TargetVerdict } from '#core/measure'
import { cleanLevel, distanceLawHolds, levelInRoom, NEAREST_M, ROOM_LIMIT_M } from '#core/noise'
import type { Quantity } from '#core/units'
import { compareRuns, LOAD_FACTOR, readingHalfWidth, type FairComparison } from './comparison'
import { meterFloor } from './meter'
import { figure, input, type Figure, type FigureInput } from '#core/figure'
import type {
  Job,
  PlanDocument,
  Target,
  TargetKind,
  Reading,
  ReadingQuantity,
  Run,
  RunState,
} from '#core/document'
import { heatAt, readingKey, readingMean, readingValues, runStates, samePlace, usualPair } from '#core/document'

/** A measured value brought to the plan's conditions, with what was done to it. */
export interface Judged {
  value: number
  halfWidth: number
  steps: string[]
  upperBoundOnly: boolean
  formula: string
  inputs: FigureInput[]
  /** runs it is the mean of */ n: number
}

export interface TargetResult {
  target: Target
  measured: Judged | null
  verdict: TargetVerdict | 'not-measured'
  why: string
  /** what would make a "met" sure that rests on one reading with its conditions not noted: then it only looks met */
  looks: string[]
}

export interface VerdictReport extends FairComparison {
  states: RunState[]
  /** the two states that are compared, and the latest run of each */
  beforeState: RunState | null
  afterState: RunState | null
  before: Run | null
  after: Run | null
  targets: TargetResult[]
}

/** Latest run of a kind. */
export function latestRun(plan: PlanDocument, kind: Run['kind']): Run | null {
  return plan.runs.filter((r) => r.kind === kind).sort((a, b) => b.takenAt.localeCompare(a.takenAt))[0] ?? null
}

/** Limit of restating a rise to another ambient. docs/physics.md, normalising. */
const AMBIENT_RANGE_K = 15
/** Less than this still to come is steady, K. Common practice, no source. */
const STEADY_K = 0.5

/** How much a run's temperature had still to rise; null where nobody noted it. */
function toComeK({ slopeKS, tauS }: Run): number | null {
  return slopeKS === null || tauS === null ? null : slopeKS * tauS
}

/**
 * A temperature that still rose towards its limit, or fell far enough to come under it, is no end; empty where it is one.
 * @param over how far its range lies over the limit, K
 */
function noEnd(runs: readonly Run[], verdict: TargetVerdict, over: number): string {
  const toCome = runs.map((r) => toComeK(r) ?? (r.steady === false ? Infinity : 0))
  const rise = Math.max(...toCome)
  if (verdict !== 'not-met' && rise > STEADY_K)
    return Number.isFinite(rise)
      ? `Still rising when it was read: about ${rise.toFixed(1)} K were to come.`
      : 'Still rising when it was read: let it soak, or log it and take the end that its soak predicts.'
  const fall = -Math.min(...toCome)
  return verdict !== 'met' && fall > STEADY_K && fall > over
    ? `Still falling when it was read: about ${fall.toFixed(1)} K were to come.`
    : ''
}

function judgeTemperature(job: Job, run: Run, read: Reading): Judged {
  const steps: string[] = []
  const reading = readingMean(read)
  let value = reading
  let halfWidth = readingHalfWidth(run, read)
  if (run.ambientC !== null) {
    let rise = reading - run.ambientC
    halfWidth = Math.SQRT2 * halfWidth
    const heatW = heatAt(run, read)
    if (heatW && job.heatW && heatW !== job.heatW) {
      const factor = job.heatW / heatW
      if (factor >= LOAD_FACTOR[0] && factor <= LOAD_FACTOR[1]) {
        rise *= factor
        halfWidth *= factor
        steps.push('rise scaled to the plan’s heat')
      }
    }
    if (Math.abs(job.ambientC - run.ambientC) <= AMBIENT_RANGE_K) {
      value = job.ambientC + rise
      if (job.ambientC !== run.ambientC) steps.push('restated to the plan’s ambient')
    }
  }
  return {
    value,
    halfWidth,
    steps,
    n: 1,
    upperBoundOnly: false,
    formula: 't = tₐ,plan + (t_read − tₐ,run) · P_plan/P_run',
    inputs: [
      input('t_read', 'reading', reading, 'temperature'),
      input('tₐ,run', 'ambient of the run', run.ambientC, 'temperature'),
      input('tₐ,plan', 'ambient of the plan', job.ambientC, 'temperature'),
      input('P_run', 'load of the run', heatAt(run, read), 'power'),
      input('P_plan', 'heat of the plan', job.heatW, 'power'),
    ],
  }
}

const boundWords = {
  floor: 'at the meter’s floor: an upper bound',
  background: 'less than 3 dB over the background: at most the reading',
}
/** Distances that differ by less than this share are the same. */
const SAME_DISTANCE = 0.05

function judgeLevel(job: Job, run: Run, read: Reading): Judged {
  const reading = readingMean(read)
  const floor = meterFloor(run)
  const { level: cleaned, bound, corrected } = cleanLevel(reading, run.backgroundDbA, floor)
  // below its floor a meter shows what it likes: the source may be as loud as the floor
  const level = floor !== null && reading < floor ? Math.max(cleaned, floor) : cleaned
  const steps = [
    ...(bound ? [boundWords[bound]] : []),
    ...(bound === 'floor' && run.floorDbA === null
      ? [`its floor taken as ${floor} dB(A), usual for its kind: its sheet says`]
      : []),
    ...(corrected ? ['background removed'] : []),
  ]
  const moves =
    run.distanceM !== null && Math.abs(run.distanceM - job.listenerM) > SAME_DISTANCE * job.listenerM
  const moved = moves ? levelInRoom(level, run.distanceM!, job.listenerM) : { level, halfWidth: 0 }
  const value = moved.level
  if (value !== level)
    steps.push(
      distanceLawHolds(run.distanceM!, job.listenerM)
        ? 'moved to the listener’s distance by the free-field law'
        : `moved to the listener’s distance, no further than the room lets a level fall (${ROOM_LIMIT_M} m at most; ` +
            `nearer than ${NEAREST_M} m is the near field)`,
    )
  return {
    value,
    halfWidth: Math.hypot(readingHalfWidth(run, read), moved.halfWidth),
    steps,
    n: 1,
    upperBoundOnly: bound !== null,
    formula: 'L = 10·lg(10^(L_read/10) − 10^(L_b/10)) − 20·lg(r/r_m)',
    inputs: [
      input('L_read', 'reading', reading, 'level'),
      input('L_b', 'background', run.backgroundDbA, 'level'),
      ...(bound === 'floor' ? [input('L_f', 'meter’s floor', floor, 'level')] : []),
      input('r_m', 'microphone', run.distanceM, 'distance'),
      input('r', 'listener', job.listenerM, 'distance'),
    ],
  }
}

/** Targets judged by a reading, and by which kind of it; the others are judged by what is picked. */
export const targetReading: Partial<Record<TargetKind, ReadingQuantity>> = {
  temperature: 'temperature',
  level: 'level',
  flow: 'flow',
  pressure: 'pressure',
  runtime: 'duration',
  time: 'duration',
  rotation: 'rotation',
  current: 'current',
  power: 'power',
}
/** Kinds of which usually at least the number is wanted. */
const usuallyLeast: TargetKind[] = ['flow', 'pressure', 'runtime']
/** Whether a target wants at least its number; else at most. */
export const wantsLeast = ({ kind, sense }: Target): boolean =>
  sense === null ? usuallyLeast.includes(kind) : sense === 'least'

/** What the pick itself costs and measures; null where its sheet is silent. */
export interface Bought {
  cost: number | null
  thicknessM: number | null
}

/** Whether a reading of this run and place says something of the target's place. */
function speaksOf(target: Target, run: Run, { place }: Reading): boolean {
  if (!target.place || !place || samePlace(place, target.place)) return true
  // one air goes through the whole path; a level is moved by its distance; not every time is a running time
  if (target.kind === 'level') return run.distanceM !== null
  if (target.kind === 'runtime') return RUNNING_TIME.test(place)
  return target.kind === 'flow'
}
/** Places of a duration that is how long it ran: not how long a pull-down or a clear-out took. */
const RUNNING_TIME = /batter|charge|pack|bank|cell|running|runtime/i

/**
 * The readings a target is judged by, one of each run: those at its place, else the highest (flow: the lowest) of those
 * that say something of it, everything together running. Elsewhere: where it was read instead.
 */
function readingsFor(
  target: Target,
  { runs }: RunState,
): { found: { run: Run; reading: Reading }[]; elsewhere: string[] } {
  const ofKind = runs.flatMap((run) =>
    run.readings
      .filter((r) => r.quantity === targetReading[target.kind] && !r.source)
      .filter((r) => !target.stage || samePlace(r.stage || run.stage, target.stage))
      .map((reading) => ({ run, reading })),
  )
  const there = ofKind.filter((x) => target.place && samePlace(x.reading.place, target.place))
  const speaking = there.length ? there : ofKind.filter((x) => speaksOf(target, x.run, x.reading))
  const pool = speaking.toSorted((a, b) => readingMean(b.reading) - readingMean(a.reading))
  const worst = wantsLeast(target) ? pool.at(-1) : pool[0]
  return {
    found: worst
      ? pool.filter((x) => readingKey(x.run, x.reading) === readingKey(worst.run, worst.reading))
      : [],
    elsewhere: [...new Set(ofKind.map((x) => x.reading.place))],
  }
}

/** What was not noted of a target's readings and would make a single one sure. */
function unsure(kind: TargetKind, found: readonly { run: Run; reading: Reading }[]): string[] {
  const values = found.reduce((n, { reading }) => n + readingValues(reading).length, 0)
  if (values > 1) return []
  const { run, reading } = found[0]!
  const open = {
    temperature: [
      run.ambientC === null && 'the ambient',
      run.steady === null && run.soakS === null && 'how long it soaked',
    ],
    level: [
      run.distanceM === null && 'the distance',
      run.backgroundDbA === null && 'the background',
      run.instrument === null && 'the meter',
    ],
    flow: [reading.method === null && 'how it was read'],
  }[kind as 'temperature' | 'level' | 'flow']
  const missing = (open ?? []).filter((x) => x !== false)
  return missing.length ? [...missing, 'a second reading'] : []
}

function judgeReading(job: Job, target: Target, run: Run, reading: Reading): Judged {
  const value = readingMean(reading)
  if (target.kind === 'temperature') return judgeTemperature(job, run, reading)
  if (target.kind === 'level') return judgeLevel(job, run, reading)
  return {
    value,
    halfWidth: readingHalfWidth(run, reading),
    steps: [],
    upperBoundOnly: false,
    formula: 'as read',
    inputs: [input('x', 'reading', value, reading.quantity)],
    n: 1,
  }
}

/**
 * The mean over replicates: its instrument's worth, which does not average out, and the scatter of the runs (or of the
 * repeats of a single one).
 */
function judged(job: Job, target: Target, found: readonly { run: Run; reading: Reading }[]): Judged {
  const each = found.map(({ run, reading }) => judgeReading(job, target, run, reading))
  const scatter =
    intervalHalfWidth(each.length > 1 ? each.map((e) => e.value) : readingValues(found[0]!.reading)) ?? 0
  const first = each[0]!
  return {
    ...first,
    value: meanOf(each.map((e) => e.value)),
    halfWidth: Math.hypot(Math.max(...each.map((e) => e.halfWidth)), scatter),
    steps: [
      ...new Set(each.flatMap((e) => e.steps)),
      ...(each.length > 1 ? [`mean of ${each.length} runs`] : []),
    ],
    upperBoundOnly: each.some((e) => e.upperBoundOnly),
    n: each.length,
  }
}

function judgeBought(
  target: Target,
  value: number | null,
  formula: string,
  why: string,
  unknown: string,
): TargetResult {
  if (value === null) return { target, measured: null, verdict: 'not-measured', why: unknown, looks: [] }
  return {
    target,
    measured: { value, halfWidth: 0, steps: [], upperBoundOnly: false, formula, inputs: [], n: 0 },
    verdict: value <= target.limit ? 'met' : 'not-met',
    why,
    looks: [],
  }
}

function judgeTarget(
  plan: PlanDocument,
  state: RunState | null,
  target: Target,
  { cost, thicknessM }: Bought,
): TargetResult {
  if (target.kind === 'money')
    return judgeBought(
      target,
      cost,
      'number × price, owned ones free',
      'Price of the fans still to buy.',
      'No price for the picked fan yet.',
    )
  if (target.kind === 'thickness')
    return judgeBought(
      target,
      thicknessM,
      'thickness on the sheet, stages behind each other added',
      'Thickness of the picked fan.',
      'No fan is picked yet.',
    )
  const { found, elsewhere } = state ? readingsFor(target, state) : { found: [], elsewhere: [] }
  if (!found.length)
    return {
      target,
      measured: null,
      verdict: 'not-measured',
      why: !state
        ? 'No run after the change yet.'
        : elsewhere.length
          ? `Read at ${elsewhere.map((p) => `“${p}”`).join(', ')}, not at “${target.place}”.`
          : 'The run after the change has no such reading.',
      looks: [],
    }
  const measured = judged(plan.job, target, found)
  return { target, measured, ...verdictOf(target, measured, found) }
}

function verdictOf(
  target: Target,
  { value, halfWidth, upperBoundOnly }: Judged,
  found: readonly { run: Run; reading: Reading }[],
): Pick<TargetResult, 'verdict' | 'why' | 'looks'> {
  const looks = unsure(target.kind, found)
  if (upperBoundOnly && wantsLeast(target))
    return value + halfWidth < target.limit
      ? { verdict: 'not-met', why: 'Even the upper bound is under the target.', looks: [] }
      : { verdict: 'not-decided', why: 'Only an upper bound was measured.', looks: [] }
  if (upperBoundOnly)
    return value + halfWidth <= target.limit
      ? { verdict: 'met', why: 'Even the upper bound is within the target.', looks }
      : { verdict: 'not-decided', why: 'Only an upper bound was measured.', looks: [] }
  const sense = wantsLeast(target) ? 'at-least' : 'at-most'
  const verdict = targetVerdict(target.limit, sense, value, halfWidth)
  const runs = found.map((x) => x.run)
  const open = target.kind === 'temperature' ? noEnd(runs, verdict, value - halfWidth - target.limit) : ''
  if (open) return { verdict: 'not-decided', why: open, looks: [] }
  if (verdict === 'not-decided')
    return { verdict, why: 'The range of the measurement straddles the target.', looks: [] }
  return { verdict, why: '', looks: verdict === 'met' ? looks : [] }
}

/** What a target is called and shown in. */
export const targetNames: Record<TargetKind, string> = {
  temperature: 'Temperature',
  level: 'Sound level',
  flow: 'Airflow',
  pressure: 'Pressure',
  runtime: 'Running time',
  time: 'Time it takes',
  rotation: 'Speed',
  current: 'Current',
  power: 'Power',
  money: 'Money',
  thickness: 'Thickness',
}
export const targetQuantity: Record<TargetKind, Quantity> = {
  temperature: 'temperature',
  level: 'level',
  flow: 'flow',
  pressure: 'pressure',
  runtime: 'duration',
  time: 'duration',
  rotation: 'rotation',
  current: 'current',
  power: 'power',
  money: 'money',
  thickness: 'length',
}

/** The measured value of a target with what was done to it, as a figure. */
export function targetFigure({ target, measured }: TargetResult): Figure {
  const half = measured?.halfWidth || null
  return figure(
    `target.${target.id}`,
    `${targetNames[target.kind]} ${target.place}`.trim(),
    targetQuantity[target.kind],
    measured?.value ?? null,
    measured?.formula ?? '',
    'your own run; instrument ranges are common practice',
    {
      basis: target.kind === 'money' || target.kind === 'thickness' ? 'claim' : 'measured',
      inputs: measured?.inputs,
      note: measured?.steps.length ? `${measured.steps.join('; ')}.` : '',
      low: half && measured ? measured.value - half : null,
      high: half && measured ? measured.value + half : null,
    },
  )
}

const nothing: FairComparison = { comparisons: [], unfair: [], notStated: [], unmatched: [] }

/** Targets against the latest state after a change; that state against the baseline. */
export function computeVerdict(plan: PlanDocument, bought: Bought): VerdictReport {
  const states = runStates(plan.runs)
  const { before, after } = usualPair(states)
  return {
    states,
    beforeState: before,
    afterState: after,
    before: before?.runs.at(-1) ?? null,
    after: after?.runs.at(-1) ?? null,
    targets: plan.targets.map((t) => judgeTarget(plan, after, t, bought)),
    ...(before && after ? compareRuns(before.runs, after.runs, plan.job.goal === 'quieten') : nothing),
  }
}
