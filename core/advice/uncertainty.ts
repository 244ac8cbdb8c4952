import { commonDrop, flowsOfWays, timesPassage, type Passage } from '#core/airpath'
import { lastFlow, pressureAt, stableFlow, type Drive, type FanCurve } from '#core/fan'
import type { UncertainInput, Job, PlanInput } from '#core/document'
import {
  type ArrayDrive,
  type ElementModel,
  type FanArray,
  type FanModel,
  type PathModel,
  type DeliveredRange,
  isOfOneKind,
} from '#core/system'
import {
  curveAt,
  drivenArray,
  drivenSpeed,
  elementFlows,
  membersOf,
  pathUncertainty,
  SHARED_DOUBT,
} from '#core/system'
import { computeReport, type Report } from '#core/plan'
import { uncertainRanges, goalNeeds, type NeedEnv } from '#core/requirement'
import { normalAt, splitNormalAt, stratified, Z95 } from '#core/numeric'

/** Flows that the band is told at, as factors of the planned flow. */
const BAND_AT = [0.15, 0.35, 0.6, 0.8, 1, 1.3, 1.7, 2.2]

export interface Range {
  low: number
  middle: number
  high: number
}
export interface BandPoint {
  flow: number
  low: number
  high: number
}

export interface UncertaintyReport {
  cases: number
  need: Range | null
  /** the path's drop over flow: 5 % and 95 % of the cases */
  band: BandPoint[]
  /** flow of the picked fan that does the job */
  flow: Range | null
  /** share of cases in which the need is met; null without need or pick */
  chance: number | null
  /** spread of flow over need, as the ratio of its 95 % to its 5 % case */
  spread: number | null
}

/** What is driven: curves and how, and what is doubted of them, each as factors at the ends of its range. */
export interface Driven {
  curve: FanCurve
  drive: Drive
  /** speed, from what the fan delivers of its numbers */
  delivered: DeliveredRange
  /** pressure at the planned flow, from the shape of an estimated curve */
  shape: DeliveredRange
  /** speed, from the supply's tolerance */
  supply: DeliveredRange
}

/** Where doubt comes from: an input of the need, the path, the fan's curve, the supply. */
export type UncertaintySource = UncertainInput | 'path' | 'fan' | 'supply'

/** One element as a Q + b Q^2 + head around its expected flow, for thousands of evaluations. */
interface Flat {
  a: number
  b: number
  staticHead: number
  uncertainty: number
}

/** Range that a loss without closed form is fitted over, as factors of the expected flow (docs/physics.md, ducts). */
const FIT_FROM = 0.3
const FIT_TO = 1.2

function flatten(e: ElementModel, expected: number): Flat {
  const flat = { a: e.a, b: e.b, staticHead: e.staticHead, uncertainty: e.uncertainty }
  if (!e.extra || !(expected > 0)) return flat
  const q1 = FIT_FROM * expected
  const q2 = FIT_TO * expected
  const y1 = e.extra(q1) / q1
  const y2 = e.extra(q2) / q2
  const b = (y2 - y1) / (q2 - q1)
  return { ...flat, a: flat.a + y1 - b * q1, b: flat.b + b }
}

interface Compiled {
  series: Flat[]
  splits: { branches: Flat[][]; leak: boolean[]; times: number[] }[]
}

function compile(path: PathModel, expected: number): Compiled {
  const flows = elementFlows(path, expected)
  const flat = (e: ElementModel) => flatten(e, flows.get(e.element.id) ?? expected)
  return {
    series: path.main.filter((e) => !e.branches).map(flat),
    splits: path.main
      .filter((e) => e.branches)
      .map((e) => ({
        branches: e.branches!.map((b) => b.elements.map(flat)),
        leak: e.branches!.map((b) => b.branch.leak),
        times: e.branches!.map((b) => b.branch.times),
      })),
  }
}

/** A path of one sampled case: everything in the row added up, and each split's ways. */
interface Case {
  a: number
  b: number
  staticHead: number
  splits: { ways: Passage[]; leak: boolean[] }[]
}

const scaled = (flats: readonly Flat[], factor: (f: Flat) => number): Passage => {
  const sum = { a: 0, b: 0, staticHead: 0, table: null }
  for (const f of flats) {
    const k = factor(f)
    sum.a += f.a * k
    sum.b += f.b * k
    sum.staticHead += f.staticHead * k
  }
  return sum
}

/** How near a drawn case's split is solved: far below the spread of the cases. */
const NEAR = 1e-6
const splitDrop = (ways: readonly Passage[], q: number) => commonDrop(ways, q, NEAR)

const caseDrop = (c: Case, q: number) =>
  c.staticHead + (c.a + c.b * q) * q + c.splits.reduce((s, x) => s + splitDrop(x.ways, q), 0)

function caseUseful(c: Case, q: number): number {
  let share = 1
  for (const { ways, leak } of c.splits) {
    if (!leak.includes(true)) continue
    const flows = flowsOfWays(ways, q)
    share *= flows.reduce((s, x, i) => s + (leak[i] ? 0 : x), 0) / q
  }
  return share
}

/** Local a, b of a case at a flow, for the operating-point solver. */
function caseResistance(c: Case, q: number) {
  if (!c.splits.length) return { a: c.a, b: c.b, staticHead: c.staticHead }
  const step = 1e-3 * q
  const at = c.splits.reduce((s, x) => s + splitDrop(x.ways, q), 0)
  const slope = (c.splits.reduce((s, x) => s + splitDrop(x.ways, q + step), 0) - at) / step
  return { a: c.a + (2 * at) / q - slope, b: c.b + (slope * q - at) / q ** 2, staticHead: c.staticHead }
}

/** A drawn case is settled when its flow moves by less than this share: far below the spread of the cases. */
const SETTLED = 1e-3

function caseFlow(c: Case, { curve, drive }: Driven, guess: number): number {
  let q = guess
  for (let i = 0; i < (c.splits.length ? 6 : 1); i++) {
    const next = stableFlow(curve, caseResistance(c, q), drive)
    if (!(next > 0)) break
    if (!c.splits.length || Math.abs(next - q) < SETTLED * next) return next
    q = next
  }
  return c.splits.length ? halvedFlow(c, curve, drive) : 0
}

/** The same by halving, where a way that opens late leaves the local fit without a crossing. */
function halvedFlow(c: Case, curve: FanCurve, drive: Drive): number {
  const width = drive.speed * drive.parallel
  const pressure = drive.speed ** 2 * drive.densityRatio * drive.series
  const gap = (q: number) => (pressureAt(curve, q / width) ?? 0) * pressure - caseDrop(c, q)
  let low = 1e-6 * lastFlow(curve) * width
  let high = lastFlow(curve) * width
  if (!(gap(low) > 0)) return 0
  while (high - low > SETTLED * high) {
    const middle = (low + high) / 2
    if (gap(middle) > 0) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** 5 %, 50 % and 95 % of a list. */
function rangeOf(values: Float64Array): Range {
  const sorted = Array.from(values).sort((a, b) => a - b)
  // the place that holds its share of a further case, not only of these
  const at = (share: number) => {
    const place = Math.min(sorted.length - 1, Math.max(0, share * (sorted.length + 1) - 1))
    const [below, above] = [sorted[Math.floor(place)]!, sorted[Math.ceil(place)]!]
    return below === above ? below : below + (above - below) * (place - Math.floor(place))
  }
  return { low: at(0.05), middle: at(0.5), high: at(0.95) }
}

export interface UncertaintyInput {
  env: NeedEnv
  path: PathModel
  /** airflow needed and planned for, fan-side, m3/s */
  needFlow: number | null
  planFlow: number | null
  driven: Driven | null
  /** a target for the airflow that does the job, m3/s */
  atLeast: number | null
  /** the one fan that is planned with, where there is one */
  calibratedFan: string | null
  /** taken as sure, to see what measuring it would bring */
  sure?: UncertaintySource
}

/** A case of the path: every resistance moved by its own uncertainty, part of it shared by all; by the calibration's where there is one. */
function drawnCase(compiled: Compiled, calibrated: number | null, sure: boolean, draw: () => number): Case {
  /** in units of a 95 % range */
  const z = () => normalAt(draw()) / Z95
  const common = z()
  const moved = () =>
    calibrated === null ? Math.sqrt(SHARED_DOUBT) * common + Math.sqrt(1 - SHARED_DOUBT) * z() : common
  const factor = (f: Flat) => (sure ? 1 : Math.exp(Math.log1p(calibrated ?? f.uncertainty) * moved()))
  const { a, b, staticHead } = scaled(compiled.series, factor)
  const splits = compiled.splits.map((s) => ({
    ways: s.branches.map((way, i) => timesPassage(scaled(way, factor), s.times[i]!)),
    leak: s.leak,
  }))
  return { a, b, staticHead, splits }
}

/** The driven fans with pressure and speed moved by their uncertainties; what is `sure` stays. */
function drawnFans(driven: Driven, sure: UncertaintyInput['sure'], draw: () => number): Driven {
  const delivered = factorIn(driven.delivered, draw())
  const supply = factorIn(driven.supply, draw())
  const shape = factorIn(driven.shape, draw())
  const { drive } = driven
  return {
    ...driven,
    drive: {
      ...drive,
      speed: drive.speed * (sure === 'fan' ? 1 : delivered) * (sure === 'supply' ? 1 : supply),
      densityRatio: drive.densityRatio * (sure === 'fan' ? 1 : shape),
    },
  }
}

/** A factor around 1 between the ends of its range. */
const factorIn = ({ low, high }: DeliveredRange, u: number): number =>
  Math.max(0.05, splitNormalAt(1, low, high, u))

/**
 * Carries the doubt of need, path and fan through as sampled cases (seeded): each doubted number is drawn from a normal
 * distribution whose 2.5 % and 97.5 % are the ends of its range (two halves where they differ), each loss from a
 * lognormal one. What makes the need impossible counts as not met.
 * @param cases how many, 200 is enough for a band of a few per cent
 * @param seed any whole number
 * Reference: Monte Carlo propagation, JCGM 101 (supplement 1 to the guide to uncertainty in measurement)
 */
export function sampleUncertainty(
  { env, path, needFlow, planFlow, driven, atLeast, calibratedFan, sure }: UncertaintyInput,
  cases = 200,
  seed = 1,
): UncertaintyReport {
  const drawsOf = stratified(cases, seed)
  const goal = goalNeeds[env.plan.job.goal]
  const uncertain = uncertainRanges(env.plan).filter((d) => d.key !== sure)
  const expected = planFlow ?? needFlow ?? 0.01
  const compiled = path.complete ? compile(path, expected) : null
  const calibrated = path.calibrated ? pathUncertainty(path, expected, calibratedFan) : null
  const needs = new Float64Array(cases)
  const flows = new Float64Array(cases)
  const ratios = new Float64Array(cases)
  const drops = BAND_AT.map(() => new Float64Array(cases))
  const goalNeed = goal.missing(env.plan.job, env) ? null : goal.flow(env.plan.job, env)
  const fixedNeed = goalNeed === null ? atLeast : Math.max(goalNeed, atLeast ?? 0)
  const needVaries = goalNeed !== null && uncertain.length > 0
  let met = 0
  let needsKnown = fixedNeed !== null
  for (let i = 0; i < cases; i++) {
    const draw = drawsOf(i)
    let need = fixedNeed
    if (needVaries) {
      const job: Job = { ...env.plan.job }
      for (const { key, range } of uncertain) Object.assign(job, { [key]: drawn(job, key, range, draw()) })
      need = Math.max(goal.flow(job, env) ?? Infinity, atLeast ?? 0)
    }
    if (need === null) needsKnown = false
    else needs[i] = need
    if (!compiled) continue
    const c = drawnCase(compiled, calibrated, sure === 'path', draw)
    for (const [k, share] of BAND_AT.entries()) drops[k]![i] = caseDrop(c, share * expected)
    if (!driven) continue
    const q = caseFlow(c, drawnFans(driven, sure, draw), expected)
    flows[i] = q > 0 ? q * caseUseful(c, q) : 0
    if (need === null) continue
    if (flows[i]! >= need) met++
    ratios[i] = need > 0 ? flows[i]! / need : 1
  }
  const told = compiled !== null && driven !== null && needsKnown
  const ratio = told ? rangeOf(ratios) : null
  return {
    cases,
    need: needsKnown ? rangeOf(needs) : null,
    band: compiled ? BAND_AT.map((share, k) => ({ flow: share * expected, ...rangeOf(drops[k]!) })) : [],
    flow: compiled && driven ? rangeOf(flows) : null,
    chance: told ? met / cases : null,
    spread: ratio && ratio.low > 0 ? ratio.high / ratio.low : null,
  }
}

/** A drawn input: its value moved towards an end of its range. Numbers that must be above 0 stay there. */
function drawn(job: Job, key: UncertainInput, [low, high]: [number, number], u: number): number {
  const value = job[key]!
  const x = splitNormalAt(value, low, high, u)
  return low >= 0 && value > 0 ? Math.max(x, 0.02 * value) : x
}

/** Gains below this are lost in the sampling. */
const MIN_SENSITIVITY = 0.03

/** Pressure of an estimated curve's ends of shape over its middle at a flow of the whole group. */
function shapeAt(model: FanModel, { volts, duty }: ArrayDrive, flowOfOne: number): DeliveredRange {
  if (model.curves.basis !== 'estimated') return { low: 1, high: 1 }
  const x = flowOfOne / Math.max(1e-9, drivenSpeed(model, volts, duty))
  const at = (end: 'shapeLow' | 'middle' | 'shapeHigh') => pressureAt(curveAt(model, volts, end), x) ?? 0
  const middle = at('middle')
  return middle > 0 ? { low: at('shapeLow') / middle, high: at('shapeHigh') / middle } : { low: 1, high: 1 }
}

const widest = (ranges: readonly DeliveredRange[]): DeliveredRange => ({
  low: Math.min(...ranges.map((r) => r.low)),
  high: Math.max(...ranges.map((r) => r.high)),
})

/** The driven fans of a report with their doubts; null without a selection that turns. */
function drivenOf({ selection, air, power, path }: Report): Driven | null {
  if (!selection) return null
  const { fanArray, candidate } = selection
  const drive: ArrayDrive = { volts: candidate.driveV, duty: candidate.duty }
  const made = drivenArray(fanArray, drive, air)
  if (!made) return null
  const members = membersOf(fanArray)
  const flowOfOne = (candidate.flow ?? 0) / made.drive.parallel
  const speedAt = (volts: number) => drivenSpeed(fanArray.model, volts, drive.duty) || candidate.speed
  const exact = { low: 1, high: 1 }
  return {
    ...made,
    delivered: calibrates(path.model, fanArray) ? exact : widest(members.map((m) => m.curves.delivered)),
    shape: calibrates(path.model, fanArray) ? exact : widest(members.map((m) => shapeAt(m, drive, flowOfOne))),
    supply:
      power.fanRuns === null
        ? exact
        : {
            low: speedAt(power.fanRuns.low) / candidate.speed,
            high: speedAt(power.fanRuns.high) / candidate.speed,
          },
  }
}

/** Whether the path was scaled with the very fan that is planned with: its curve is not doubted twice. */
const calibrates = (path: PathModel, fanArray: FanArray) =>
  isOfOneKind(fanArray) && path.calibrated?.fanId === fanArray.model.fan.id

function uncertaintyInput(input: PlanInput): UncertaintyInput | null {
  const result = computeReport(input)
  if (!result.ok) return null
  const { report } = result
  const { selectionContext: context, needEnv, path, selection, need } = report
  return {
    env: needEnv,
    path: path.model,
    needFlow: context.needFlow,
    planFlow: path.atFlow,
    driven: drivenOf(report),
    atLeast: need.flowTarget?.limit ?? null,
    calibratedFan: selection && isOfOneKind(selection.fanArray) ? selection.fanArray.model.fan.id : null,
  }
}

/**
 * The sampled doubt of a whole plan; null where the plan has no report.
 * @param cases how many are drawn, 1 or more
 * @param seed any whole number
 */
export function planUncertainty(input: PlanInput, cases = 200, seed = 1): UncertaintyReport | null {
  const made = uncertaintyInput(input)
  return made && sampleUncertainty(made, cases, seed)
}

/** What measuring one thing would take off the spread of flow over need, 0..1. */
export interface Sensitivity {
  source: UncertaintySource
  gain: number
}

/**
 * Which measurement would reduce the doubt most: the plan is sampled again with each source taken as sure.
 * @param cases how many are drawn, 1 or more
 * @param seed any whole number
 * @returns the sources that matter, the best first; empty without need or pick
 */
export function measurementSensitivity(input: PlanInput, cases = 200, seed = 1): Sensitivity[] {
  const made = uncertaintyInput(input)
  const whole = made && sampleUncertainty(made, cases, seed).spread
  if (!made || !whole || !(whole > 1)) return []
  const sources: UncertaintySource[] = [
    ...uncertainRanges(input.plan).map((d) => d.key),
    'path',
    'fan',
    'supply',
  ]
  return sources
    .map((source) => {
      const left = sampleUncertainty({ ...made, sure: source }, cases, seed).spread ?? whole
      return { source, gain: Math.max(0, 1 - Math.log(left) / Math.log(whole)) }
    })
    .filter((w) => w.gain > MIN_SENSITIVITY)
    .sort((a, b) => b.gain - a.gain)
}

/**
 * The band at any flow, Pa: its relative width runs linearly from point to point.
 * @param flow m3/s, 0 or more
 * @param drop pressure drop, Pa, 0 or more
 * @param dropAt drop over flow, Pa at m3/s
 */
export function bandAt(
  band: readonly BandPoint[],
  flow: number,
  drop: number,
  dropAt: (flow: number) => number,
): { low: number; high: number } {
  const k = band.findIndex((p) => p.flow >= flow)
  const next = band[k] ?? band.at(-1)
  if (!next) return { low: drop, high: drop }
  const before = band[k - 1] ?? next
  const share = next.flow > before.flow ? (flow - before.flow) / (next.flow - before.flow) : 1
  const factor = (end: 'low' | 'high') => {
    const at = (p: BandPoint) => (dropAt(p.flow) > 0 ? p[end] / dropAt(p.flow) : 1)
    return at(before) + (at(next) - at(before)) * share
  }
  return { low: drop * factor('low'), high: drop * factor('high') }
}
