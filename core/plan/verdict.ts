import { instrumentHalfWidth, relativeChange, targetVerdict, type TargetVerdict } from '../measure'
import { atDistance, loudnessRatio, minusBackground, readingClass } from '../noise'
import type { Quantity, Sentence } from '../units'
import { figure, input, type Figure, type FigureInput } from './figure'
import type { Job, PlanDocument, Reading, ReadingQuantity, Run, Target, TargetKind } from './document'

/** A measured value brought to the plan's conditions, with what was done to it. */
export interface Judged { value: number, halfWidth: number, steps: string[], upperBoundOnly: boolean, formula: string, inputs: FigureInput[] }

export interface TargetResult {
  target: Target
  measured: Judged | null
  verdict: TargetVerdict | 'not-measured'
  why: string
}

export interface Comparison {
  quantity: ReadingQuantity
  place: string
  before: number
  after: number
  /** temperatures are compared as rise over the ambient of their own run */
  asRise: boolean
  difference: number
  /** share of before; null for levels */
  change: number | null
  /** loudness ratio for levels */
  loudness: number | null
  halfWidth: number
  shown: boolean
  figure: Figure
}

export interface Unfair { what: string, text: Sentence, effect: string }

export interface VerdictReport {
  before: Run | null
  after: Run | null
  targets: TargetResult[]
  comparisons: Comparison[]
  unfair: Unfair[]
  notStated: string[]
}

/** Latest run of a kind. */
export function latestRun(plan: PlanDocument, kind: Run['kind']): Run | null {
  return plan.runs.filter(r => r.kind === kind).sort((a, b) => b.takenAt.localeCompare(a.takenAt))[0] ?? null
}

/** 95 % half-width of a reading. */
export function readingHalfWidth(run: Run, quantity: ReadingQuantity, value: number): number {
  if (quantity === 'temperature') return instrumentHalfWidth.temperature
  if (quantity === 'level') return instrumentHalfWidth[run.instrument ?? 'phone']
  const share = quantity === 'power' ? instrumentHalfWidth.current : instrumentHalfWidth[quantity]
  return share * Math.abs(value)
}

/** Limits of restating a rise to another load under forced air. Handbook, normalising. */
const LOAD_FACTOR = [0.5, 1.5] as const
const AMBIENT_RANGE_K = 15

function judgeTemperature(job: Job, run: Run, reading: Reading): Judged {
  const steps: string[] = []
  let value = reading.value
  let halfWidth: number = instrumentHalfWidth.temperature
  if (run.ambientC !== null) {
    let rise = reading.value - run.ambientC
    halfWidth = Math.SQRT2 * halfWidth
    if (run.heatW && job.heatW && run.heatW !== job.heatW) {
      const factor = job.heatW / run.heatW
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
    value, halfWidth, steps, upperBoundOnly: false, formula: 't = tₐ,plan + (t_read − tₐ,run) · P_plan/P_run',
    inputs: [input('t_read', 'reading', reading.value, 'temperature'), input('tₐ,run', 'ambient of the run', run.ambientC, 'temperature'), input('tₐ,plan', 'ambient of the plan', job.ambientC, 'temperature'), input('P_run', 'load of the run', run.heatW, 'power'), input('P_plan', 'heat of the plan', job.heatW, 'power')],
  }
}

function judgeLevel(job: Job, run: Run, reading: Reading): Judged {
  const steps: string[] = []
  let value = reading.value
  let upperBoundOnly = false
  if (run.floorDbA !== null && readingClass(reading.value, run.floorDbA) !== 'usable') {
    upperBoundOnly = true
    steps.push('at the meter’s floor: an upper bound')
  }
  if (run.backgroundDbA !== null) {
    const corrected = minusBackground(reading.value, run.backgroundDbA)
    if (corrected === null) {
      upperBoundOnly = true
      steps.push('less than 3 dB over the background: at most the reading')
    }
    else if (corrected !== value) {
      value = corrected
      steps.push('background removed')
    }
  }
  if (run.distanceM !== null && Math.abs(run.distanceM - job.listenerM) > 0.05 * job.listenerM && run.distanceM >= 0.3 && job.listenerM >= 0.3) {
    value = atDistance(value, run.distanceM, job.listenerM)
    steps.push('moved to the listener’s distance by the free-field law')
  }
  return {
    value, halfWidth: instrumentHalfWidth[run.instrument ?? 'phone'], steps, upperBoundOnly, formula: 'L = 10·lg(10^(L_read/10) − 10^(L_b/10)) − 20·lg(r/r_m)',
    inputs: [input('L_read', 'reading', reading.value, 'level'), input('L_b', 'background', run.backgroundDbA, 'level'), input('r_m', 'microphone', run.distanceM, 'distance'), input('r', 'listener', job.listenerM, 'distance')],
  }
}

/** Targets judged by a reading, and by which kind of it; the others are judged by what is picked. */
const quantityOf: Partial<Record<TargetKind, ReadingQuantity>> = { temperature: 'temperature', level: 'level', flow: 'flow', runtime: 'duration' }
/** Targets that want at least their number. */
const atLeast: TargetKind[] = ['flow', 'runtime']

/** What the pick itself costs and measures; null where its sheet is silent. */
export interface Bought { cost: number | null, thicknessM: number | null }

/** The reading a target is judged by: the one at its place, else the highest (flow: the lowest) of its kind. */
function readingFor(target: Target, run: Run): Reading | null {
  const ofKind = run.readings.filter(r => r.quantity === quantityOf[target.kind])
  const there = ofKind.filter(r => target.place && r.place.trim().toLowerCase() === target.place.trim().toLowerCase())
  const pool = (there.length ? there : ofKind).toSorted((a, b) => b.value - a.value)
  return (atLeast.includes(target.kind) ? pool.at(-1) : pool[0]) ?? null
}

function judgeBought(target: Target, value: number | null, formula: string, why: string, unknown: string): TargetResult {
  if (value === null) return { target, measured: null, verdict: 'not-measured', why: unknown }
  return { target, measured: { value, halfWidth: 0, steps: [], upperBoundOnly: false, formula, inputs: [] }, verdict: value <= target.limit ? 'met' : 'not-met', why }
}

function judgeTarget(plan: PlanDocument, run: Run | null, target: Target, { cost, thicknessM }: Bought): TargetResult {
  if (target.kind === 'money') return judgeBought(target, cost, 'number × price, owned ones free', 'Price of the fans still to buy.', 'No price for the picked fan yet.')
  if (target.kind === 'thickness') return judgeBought(target, thicknessM, 'thickness on the sheet, stages behind each other added', 'Thickness of the picked fan.', 'No fan is picked yet.')
  const reading = run ? readingFor(target, run) : null
  if (!run || !reading) return { target, measured: null, verdict: 'not-measured', why: run ? 'The run after the change has no such reading.' : 'No run after the change yet.' }
  const measured = target.kind === 'temperature'
    ? judgeTemperature(plan.job, run, reading)
    : target.kind === 'level'
      ? judgeLevel(plan.job, run, reading)
      : { value: reading.value, halfWidth: readingHalfWidth(run, reading.quantity, reading.value), steps: [], upperBoundOnly: false, formula: 'as read', inputs: [input('x', 'reading', reading.value, reading.quantity)] }
  const sense = atLeast.includes(target.kind) ? 'at-least' : 'at-most'
  if (measured.upperBoundOnly) {
    const met = measured.value <= target.limit
    return { target, measured, verdict: met ? 'met' : 'not-decided', why: met ? 'Even the upper bound is within the target.' : 'Only an upper bound was measured.' }
  }
  const verdict = targetVerdict(target.limit, sense, measured.value, measured.halfWidth)
  return { target, measured, verdict, why: verdict === 'not-decided' ? 'The range of the measurement straddles the target.' : '' }
}

/** Quantities whose change is a share of before. */
function compareReading(before: Run, after: Run, b: Reading, a: Reading): Comparison {
  const { quantity, place } = b
  const asRise = quantity === 'temperature' && before.ambientC !== null && after.ambientC !== null
  let x = asRise ? b.value - before.ambientC! : b.value
  let y = asRise ? a.value - after.ambientC! : a.value
  if (quantity === 'level') {
    x = (before.backgroundDbA === null ? null : minusBackground(x, before.backgroundDbA)) ?? x
    y = (after.backgroundDbA === null ? null : minusBackground(y, after.backgroundDbA)) ?? y
  }
  const halfWidth = Math.hypot(readingHalfWidth(before, quantity, x), readingHalfWidth(after, quantity, y)) * (asRise ? Math.SQRT2 : 1)
  const level = quantity === 'level'
  const absolute = quantity === 'temperature' && !asRise
  const differenceQuantity = quantity === 'temperature' ? 'temperatureDifference' as const : level ? 'levelDifference' as const : quantity
  const shownAs = asRise ? 'temperatureDifference' as const : quantity
  return {
    quantity, place, before: x, after: y, asRise, difference: y - x, change: level || absolute ? null : relativeChange(x, y),
    loudness: level ? loudnessRatio(y - x) : null, halfWidth, shown: Math.abs(y - x) > halfWidth,
    figure: figure(`compare.${quantity}.${place}`, `Difference, ${place}`, differenceQuantity, y - x, asRise ? 'Δ = (t − tₐ)after − (t − tₐ)before' : 'Δ = after − before', 'fair comparison: rises over the ambient of each run, levels without their background', {
      basis: 'measured', low: y - x - halfWidth, high: y - x + halfWidth, inputs: [input('before', asRise ? 'rise before' : 'before', x, shownAs), input('after', asRise ? 'rise after' : 'after', y, shownAs)],
      note: 'The range is what the instruments are worth.',
    }),
  }
}

/** Which conditions of two runs differ enough to spoil the comparison. Limits: handbook, fair comparison (common practice). */
function fairness(before: Run, after: Run): { unfair: Unfair[], notStated: string[] } {
  const unfair: Unfair[] = []
  const notStated: string[] = []
  const pair = (name: string, words: string, quantity: Quantity, b: number | null, a: number | null, differs: (b: number, a: number) => boolean, effect: string) => {
    if (b === null || a === null) notStated.push(name)
    else if (differs(b, a)) unfair.push({ what: name, text: [`${words} `, { value: b, quantity }, ' before, ', { value: a, quantity }, ' after'], effect })
  }
  pair('ambient', 'Ambient', 'temperature', before.ambientC, after.ambientC, (b, a) => Math.abs(a - b) > 2, 'Temperatures are compared as rise over ambient, which takes most of it out.')
  pair('equipment load', 'Load', 'power', before.heatW, after.heatW, (b, a) => Math.abs(a - b) > 0.05 * b, 'More heat makes a larger rise: repeat with the same load.')
  pair('listening distance', 'Microphone at', 'distance', before.distanceM, after.distanceM, (b, a) => Math.abs(a - b) > 0.05 * b, '6 dB for each doubling: mark the spot.')
  if (!(before.steady && after.steady)) {
    pair('soak time', 'Soaked', 'duration', before.soakS, after.soakS, (b, a) => Math.abs(a - b) > 0.1 * b, 'The shorter soak looks cooler than it is.')
  }
  if (before.lid === null || after.lid === null) notStated.push('lid')
  else if (before.lid !== after.lid) unfair.push({ what: 'lid', text: [`Lid ${before.lid} before, ${after.lid} after`], effect: 'Another air path: repeat with the lid alike.' })
  if ((after.changes ?? 1) > 1) unfair.push({ what: 'changes', text: [`${after.changes} things changed at once`], effect: 'Nobody knows which one worked.' })
  return { unfair, notStated }
}

/** What a target is called and shown in. */
export const targetNames: Record<TargetKind, string> = { temperature: 'Temperature', level: 'Sound level', flow: 'Airflow', runtime: 'Running time', money: 'Money', thickness: 'Thickness' }
export const targetQuantity: Record<TargetKind, Quantity> = { temperature: 'temperature', level: 'level', flow: 'flow', runtime: 'duration', money: 'money', thickness: 'length' }

/** The measured value of a target with what was done to it, as a figure. */
export function targetFigure({ target, measured }: TargetResult): Figure {
  const half = measured?.halfWidth || null
  return figure(`target.${target.id}`, `${targetNames[target.kind]} ${target.place}`.trim(), targetQuantity[target.kind], measured?.value ?? null, measured?.formula ?? '', 'your own run; instrument ranges are common practice', {
    basis: target.kind === 'money' || target.kind === 'thickness' ? 'claim' : 'measured', inputs: measured?.inputs, note: measured?.steps.length ? `${measured.steps.join('; ')}.` : '',
    low: half && measured ? measured.value - half : null, high: half && measured ? measured.value + half : null,
  })
}

/** Targets against the newest run after the change; newest baseline against it. */
export function computeVerdict(plan: PlanDocument, bought: Bought): VerdictReport {
  const before = latestRun(plan, 'baseline')
  const after = latestRun(plan, 'after')
  const targets = plan.targets.map(t => judgeTarget(plan, after, t, bought))
  if (!before || !after) return { before, after, targets, comparisons: [], unfair: [], notStated: [] }
  const comparisons = before.readings.flatMap((b) => {
    const a = after.readings.find(r => r.quantity === b.quantity && r.place.trim().toLowerCase() === b.place.trim().toLowerCase())
    return a ? [compareReading(before, after, b, a)] : []
  })
  return { before, after, targets, comparisons, ...fairness(before, after) }
}
