import { intervalHalfWidth, meanOf, targetVerdict, type TargetVerdict } from '#core/measure'
import { compareRuns, type FairComparison } from './comparison'
import { judgeReading, type Judged } from './judged'
import { figure, type Figure } from '#core/figure'
import type { Job, StreamPlan, Target, TargetKind, Reading, Run, RunState } from '#core/document'
import {
  readingKey,
  readingMean,
  readingValues,
  runStates,
  samePlace,
  streamNames,
  targetKinds,
  targetName,
  usualPair,
  wantedRange,
} from '#core/document'

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
export function latestRun(plan: StreamPlan, kind: Run['kind']): Run | null {
  return plan.runs.filter((r) => r.kind === kind).sort((a, b) => b.takenAt.localeCompare(a.takenAt))[0] ?? null
}

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

/** What the pick itself costs and measures; null where its sheet is silent. */
export interface Bought {
  cost: number | null
  thicknessM: number | null
  massKg: number | null
}

/** Whether a reading of this run and place says something of the target's place. */
function speaksOf(target: Target, run: Run, { place }: Reading): boolean {
  // a number of the person's own is known by its name only
  if (target.kind === 'other') return false
  if (!target.place || !place || samePlace(place, target.place)) return true
  // one air goes through the whole path; a level is moved by its distance; not every time is a running time
  if (target.kind === 'level') return run.distanceM !== null
  if (target.kind === 'runtime') return RUNNING_TIME.test(place)
  return target.kind === 'flow' || target.kind === 'airchanges'
}
/** Places of a duration that is how long it ran: not how long a pull-down or a clear-out took. */
const RUNNING_TIME = /batter|charge|pack|bank|cell|running|runtime/i

type Found = { run: Run; reading: Reading }
/** The worst of readings, highest first: of two limits the one that lies furthest outside, or nearest to one of them. */
function worstOf(target: Target, pool: readonly Found[]): Found | undefined {
  const { low, high } = wantedRange(target)
  const room = ({ reading }: Found) => {
    const value = readingMean(reading)
    return Math.min(low === null ? Infinity : value - low, high === null ? Infinity : high - value)
  }
  return pool.toSorted((a, b) => room(a) - room(b))[0]
}

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
      .filter((r) => r.quantity === targetKinds[target.kind].reading && !r.source)
      .filter(() => target.kind !== 'rise' || run.ambientC !== null)
      .filter((r) => !target.stage || samePlace(r.stage || run.stage, target.stage))
      .map((reading) => ({ run, reading })),
  )
  // a number of the person's own is known by its name
  const named = [target.place, target.kind === 'other' ? target.name : ''].filter(Boolean)
  const there = ofKind.filter((x) => named.some((name) => samePlace(x.reading.place, name)))
  const speaking = there.length ? there : ofKind.filter((x) => speaksOf(target, x.run, x.reading))
  const pool = speaking.toSorted((a, b) => readingMean(b.reading) - readingMean(a.reading))
  const worst = worstOf(target, pool)
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
  const { low, high } = wantedRange(target)
  return {
    target,
    measured: { value, halfWidth: 0, steps: [], upperBoundOnly: false, formula, inputs: [], n: 0 },
    verdict:
      (low === null || value >= low) && (high === null || value <= high)
        ? ('met' as const)
        : ('not-met' as const),
    why,
    looks: [],
  }
}

/** What a reading has to be brought to a target's number by, and nobody said; '' where nothing lacks. */
function openFor({ job, runs }: StreamPlan, { kind }: Target): string {
  if (kind === 'airchanges' && job.volumeM3 === null) return 'It needs the free air volume, in Need.'
  if (
    kind === 'rise' &&
    runs.some((r) => r.kind === 'after') &&
    runs.every((r) => r.kind !== 'after' || r.ambientC === null)
  )
    return 'A rise needs the ambient of its run.'
  return ''
}

function judgeTarget(
  plan: StreamPlan,
  state: RunState | null,
  target: Target,
  { cost, thicknessM, massKg }: Bought,
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
  if (target.kind === 'weight')
    return judgeBought(
      target,
      massKg,
      'sum over the fans',
      'Weight of the fans by their sheets.',
      'A sheet tells no weight.',
    )
  const open = openFor(plan, target)
  if (open) return { target, measured: null, verdict: 'not-measured', why: open, looks: [] }
  const { found, elsewhere } = state ? readingsFor(target, state) : { found: [], elsewhere: [] }
  if (!found.length)
    return {
      target,
      measured: null,
      verdict: 'not-measured',
      why: !state
        ? 'No run after the change yet.'
        : elsewhere.length
          ? `Read at ${elsewhere.map((p) => `“${p}”`).join(', ')}, not at “${target.place || targetName(target)}”.`
          : 'The run after the change has no such reading.',
      looks: [],
    }
  const measured = judged(plan.job, target, found)
  return { target, measured, ...verdictOf(target, measured, found) }
}

/** Of two limits both have to hold. */
const worseOf = (a: TargetVerdict, b: TargetVerdict): TargetVerdict =>
  a === 'not-met' || b === 'not-met' ? 'not-met' : a === 'met' && b === 'met' ? 'met' : 'not-decided'

function verdictOf(
  target: Target,
  { value, halfWidth, upperBoundOnly }: Judged,
  found: readonly { run: Run; reading: Reading }[],
): Pick<TargetResult, 'verdict' | 'why' | 'looks'> {
  const looks = unsure(target.kind, found)
  const { low, high } = wantedRange(target)
  if (upperBoundOnly && low !== null)
    return value + halfWidth < low
      ? { verdict: 'not-met', why: 'Even the upper bound is under the target.', looks: [] }
      : { verdict: 'not-decided', why: 'Only an upper bound was measured.', looks: [] }
  if (upperBoundOnly)
    return value + halfWidth <= high!
      ? { verdict: 'met', why: 'Even the upper bound is within the target.', looks }
      : { verdict: 'not-decided', why: 'Only an upper bound was measured.', looks: [] }
  const verdict = worseOf(
    low === null ? 'met' : targetVerdict(low, 'at-least', value, halfWidth),
    high === null ? 'met' : targetVerdict(high, 'at-most', value, halfWidth),
  )
  const runs = found.map((x) => x.run)
  const warm = target.kind === 'temperature' || target.kind === 'rise'
  const open = warm && high !== null ? noEnd(runs, verdict, value - halfWidth - high) : ''
  if (open) return { verdict: 'not-decided', why: open, looks: [] }
  if (verdict === 'not-decided')
    return { verdict, why: 'The range of the measurement straddles the target.', looks: [] }
  return { verdict, why: '', looks: verdict === 'met' ? looks : [] }
}

/** The measured value of a target with what was done to it, as a figure. */
export function targetFigure({ target, measured }: TargetResult): Figure {
  const half = measured?.halfWidth || null
  return figure(
    `target.${target.id}`,
    [`${targetName(target)} ${target.place}`.trim(), target.unit && `in ${target.unit}`]
      .filter(Boolean)
      .join(', '),
    targetKinds[target.kind].quantity,
    measured?.value ?? null,
    measured?.formula ?? '',
    'your own run; instrument ranges are common practice',
    {
      basis: targetKinds[target.kind].reading === null ? 'claim' : 'measured',
      inputs: measured?.inputs,
      note: measured?.steps.length ? `${measured.steps.join('; ')}.` : '',
      low: half && measured ? measured.value - half : null,
      high: half && measured ? measured.value + half : null,
    },
  )
}

const nothing: FairComparison = { comparisons: [], unfair: [], notStated: [], unmatched: [] }

/** Targets against the latest state after a change; that state against the baseline. */
export function computeVerdict(plan: StreamPlan, bought: Bought): VerdictReport {
  const states = runStates(plan.runs)
  const { before, after } = usualPair(states)
  return {
    states,
    beforeState: before,
    afterState: after,
    before: before?.runs.at(-1) ?? null,
    after: after?.runs.at(-1) ?? null,
    targets: plan.targets.map((t) => judgeTarget(plan, after, t, bought)),
    ...(before && after
      ? compareRuns(before.runs, after.runs, plan.job.goal === 'quieten', streamNames(plan))
      : nothing),
  }
}
