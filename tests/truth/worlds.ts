import { airState, type AirState } from '#core/air'
import { driveVolts, newFan, newStreamPlan, type Fan, type StreamPlan, blowsOf } from '#core/document'
import { planUncertainty } from '#core/advice'
import { scaleCurve, type FanCurve } from '#core/fan'
import { computeReport, type Report } from '#core/plan'
import { doubtsOf } from '#core/requirement'
import {
  deliveredRange,
  insideC,
  SHARED_DOUBT,
  usefulShare,
  type ElementModel,
  type FanArray,
  type PathModel,
  arrayOf,
} from '#core/system'
import { installationsOf } from '#core/selection'
import { normal, seeded, splitNormalAt, Z95 } from '#core/numeric'
import { drawOf, randomElement, type Draw } from './plans'
import { slowFlow } from './slow-solver'
import { pick, selectionOf } from '../plans'

/**
 * Simulated true worlds: what a plan states is drawn as it might truly be, from the doubts that the plan tells of
 * itself; then the truth is computed with the slow solver and held against the ranges that were stated.
 */

/** A plan of a box to cool, with numbers as people have them. */
export function worldPlan(seed: number): { plan: StreamPlan; fan: Fan } {
  const d = drawOf(seed)
  const plan = newStreamPlan(`world-${seed}`, `World ${seed}`)
  const flow = d.spread(0.006, 0.04)
  const pressure = d.spread(25, 120)
  const way = d.pick(['curve', 'claim', 'measured', 'two'] as const)
  const bend = d.between(1, 1.6)
  const fan: Fan = {
    ...newFan('fan'),
    model: 'fan',
    noiseDbA: Math.round(d.between(24, 45)),
    noiseDistanceM: 1,
    ratedRpm: 2000,
    maxFlowM3s: flow,
    maxPressurePa: pressure,
    curveBasis: way === 'two' ? 'curve' : way,
    points:
      way === 'two'
        ? []
        : Array.from({ length: 9 }, (_, i) => ({
            flowM3s: (flow * i) / 8,
            pressurePa: Math.max(0, pressure * (1 - (i / 8) ** bend)),
          })),
  }
  const kinds = d.pick([
    ['grille', 'chamber', 'fan', 'grille'],
    ['grille', 'filter', 'chamber', 'fan', 'grille'],
    ['opening', 'chamber', 'fan', 'duct', 'bend', 'duct'],
    ['filter', 'fan', 'chamber', 'opening'],
    ['grille', 'fan', 'chamber', 'grille'],
  ] as const)
  plan.path = kinds.map((kind, i) => ({
    ...randomElement(d, kind, `e${i}`),
    basis: d.pick(['measured', 'sheet', 'good-guess', 'rough-guess'] as const),
  }))
  const { job } = plan
  job.goal = 'cool'
  job.ambientC = d.between(15, 30)
  plan.places[0]!.direction = d.pick([null, 'in', 'out'])
  job.wallLossWK = d.pick([null, d.between(0.3, 2)])
  job.heatBasis = d.pick(['measured', 'nameplate', 'estimate'] as const)
  const typical = (0.4 * flow * 1.2 * 1006 + (job.wallLossWK ?? 0)) * d.between(4, 16)
  job.heatW = typical
  job.insideMaxC = job.ambientC + d.between(6, 16)
  plan.uncertainties = d.chance(0.6)
    ? [{ id: 'ambientC', grade: d.pick(['good-guess', 'rough-guess']), low: null, high: null }]
    : []
  const count = d.pick([1, 1, 2])
  pick(
    plan,
    selectionOf(fan.id, { count, arrangement: count === 1 ? 'single' : 'parallel' }),
    fan.ratedV * d.between(0.6, 1),
  )
  return { plan, fan }
}

/** How fans deliver in a table: as their doubt tells, or all of them 80 to 105 % of what they claim. */
export type Delivery = 'stated' | 'claims'

/** The true curve of a fan: what it delivers, and (of an estimated one) what shape it has. */
function trueArray(fanArray: FanArray, delivery: Delivery, d: Draw, z: () => number): FanArray {
  const { model } = fanArray
  const { curves } = model
  const delivers =
    delivery === 'claims' && curves.basis !== 'measured'
      ? d.between(0.8, 1.05)
      : splitNormalAt(1, deliveredRange[curves.basis].low, deliveredRange[curves.basis].high, d.unit())
  const shape = z() / Z95
  const blended = (end: FanCurve): FanCurve => {
    const share = Math.min(1.5, Math.abs(shape))
    const p = curves.middle.p.map((m, i) => m + (end.p[i]! - m) * share)
    return { ...curves.middle, p, m: curves.middle.m.map((m, i) => m + (end.m[i]! - m) * share) }
  }
  const shaped = blended(shape < 0 ? curves.shapeLow : curves.shapeHigh)
  const middle = scaleCurve(shaped, delivers, delivers ** 2)
  const made = { ...model, curves: { ...curves, middle } }
  return arrayOf(
    fanArray.groups.map((g) => ({ ...g, model: made })),
    fanArray.arrangement,
  )
}

/** The true path: every loss moved by its own doubt, part of it in common. */
function truePath(path: PathModel, z: () => number): PathModel {
  const common = z()
  const main = path.main.map((e): ElementModel => {
    const moved = Math.sqrt(SHARED_DOUBT) * common + Math.sqrt(1 - SHARED_DOUBT) * z()
    const k = Math.exp((Math.log1p(e.uncertainty) * moved) / Z95)
    const { extra } = e
    return {
      ...e,
      a: e.a * k,
      b: e.b * k,
      staticHead: e.staticHead * k,
      extra: extra ? (q) => k * extra(q) : null,
    }
  })
  return { ...path, main }
}

/** How far a claimed level may be off, dB; as the plan doubts it. */
const CLAIM_DB = 3

/**
 * The level as it might truly be, dB(A): another claim, another exponent of the speed, another installation.
 * @param z normal number whose 1 is the end of a 95 % range
 */
function trueLevel({ selection, selectionContext }: Report, z: () => number): number {
  const { candidate, fanArray } = selection!
  const { level, speed, pressure, stalled } = candidate
  const installed = installationsOf(selectionContext, fanArray, pressure ?? 0, stalled)[0]!
  const share = z()
  const end = share < 0 ? installed.low : installed.high
  const exponent = z()
  const slope = exponent < 0 ? 50 + 5 * exponent : 50 + 10 * exponent
  return (
    level!.exact + CLAIM_DB * z() + (slope - 50) * Math.log10(speed) + (end - installed.value) * Math.abs(share)
  )
}

/** What was counted in one table. */
export interface Tally {
  worlds: number
  flow: number
  inside: number
  level: number
  drawn: number
  drawnOf: number
  /** by tenth of the stated chance: how many worlds, and in how many the need was met */
  tenths: { worlds: number; stated: number; met: number }[]
}

const inRange = (x: number, low: number | null, high: number | null) =>
  (low === null || x >= low) && (high === null || x <= high)

/**
 * Plans and worlds counted.
 * @param plans how many plans, each with
 * @param worlds true worlds
 */
export function countWorlds(delivery: Delivery, plans: number, worlds: number, from = 1): Tally {
  const tally: Tally = {
    worlds: 0,
    flow: 0,
    inside: 0,
    level: 0,
    drawn: 0,
    drawnOf: 0,
    tenths: Array.from({ length: 10 }, () => ({ worlds: 0, stated: 0, met: 0 })),
  }
  for (let seed = from; seed < from + plans; seed++) {
    const { plan, fan } = worldPlan(seed)
    const input = { plan, fans: [fan], shown: null }
    const result = computeReport(input)
    if (!result.ok || !result.report.selection) continue
    const { report } = result
    const { fanArray, figures } = report.selection!
    const flow = figures.find((f) => f.key === 'selection.flow')!
    const inside = report.need.extras.find((f) => f.key === 'need.inside')!
    const level = figures.find((f) => f.key === 'selection.level')!
    if (flow.value === null) continue
    const sampled = planUncertainty(input)
    const d = drawOf(seed * 31 + 5)
    const draw = normal(seeded(seed * 17 + 3))
    const doubts = doubtsOf(plan, ['heatW', 'wallLossWK', 'ambientC'])
    for (let i = 0; i < worlds; i++) {
      const array = trueArray(fanArray, delivery, d, draw)
      const path = truePath(report.path.model, draw)
      const job = { ...plan.job }
      for (const { key, range } of doubts) {
        const value = plan.job[key] as number
        Object.assign(job, { [key]: splitNormalAt(value, range[0], range[1], d.unit()) })
      }
      const air: AirState = airState(plan.job.ambientC, plan.job.altitudeM, plan.job.humidity)!
      const q = slowFlow(path, array, driveVolts(plan)!, air) ?? 0
      const useful = q * usefulShare(report.path.model, Math.max(q, 1e-9))
      tally.worlds++
      const z = () => draw() / Z95
      if (inRange(q, flow.low, flow.high)) tally.flow++
      const t = insideC(job, blowsOf(plan), air, useful)
      if (t !== null && inRange(t, inside.low, inside.high)) tally.inside++
      if (inRange(trueLevel(report, z), level.low, level.high)) tally.level++
      if (sampled?.flow) {
        tally.drawnOf++
        if (useful >= sampled.flow.low && useful <= sampled.flow.high) tally.drawn++
      }
      if (sampled && sampled.chance !== null) {
        const tenth = tally.tenths[Math.min(9, Math.floor(sampled.chance * 10))]!
        tenth.worlds++
        tenth.stated += sampled.chance
        const limit = plan.job.insideMaxC!
        // the need is met where the box stays at or under its limit
        if (t !== null && t <= limit) tenth.met++
      }
    }
  }
  return tally
}

/** What the tables ask for: of 100 worlds a stated range holds 93 to 97, the drawn one 88 to 92; a chance is right within 6 points. */
export const goals = { stated: [93, 97], drawn: [88, 92], chance: 6 } as const
/** Tenths with fewer worlds than this are too few to be judged. */
const FEWEST = 300

const percent = (part: number, of: number) => (100 * part) / of

/** The lines of a table as printed. */
export function tableOf(t: Tally): string[] {
  const held = (name: string, part: number, of: number) =>
    `${name.padEnd(42)} ${percent(part, of).toFixed(1)} %`
  return [
    held('flow in its stated range', t.flow, t.worlds),
    held('inside temperature in its stated range', t.inside, t.worlds),
    held('level in its stated range', t.level, t.worlds),
    held('flow in the drawn 90 % range', t.drawn, t.drawnOf),
    'stated chance against how often it was met, by tenths:',
    ...t.tenths
      .filter((x) => x.worlds)
      .map((x) => {
        const share = (of: number) => percent(of, x.worlds).toFixed(0).padStart(3)
        return `  ${share(x.stated)} % stated, ${share(x.met)} % met (${x.worlds} worlds)`
      }),
  ]
}

/** The goals that a table misses, in words. */
export function missedGoals(t: Tally): string[] {
  const outside = (name: string, x: number, [low, high]: readonly [number, number]) =>
    x >= low && x <= high ? [] : [`${name}: ${x.toFixed(1)} %, wanted ${low} to ${high} %`]
  return [
    ...outside('flow', percent(t.flow, t.worlds), goals.stated),
    ...outside('inside temperature', percent(t.inside, t.worlds), goals.stated),
    ...outside('level', percent(t.level, t.worlds), goals.stated),
    ...outside('drawn range', percent(t.drawn, t.drawnOf), goals.drawn),
    ...t.tenths.flatMap((x) => {
      if (x.worlds < FEWEST) return []
      const off = percent(x.met, x.worlds) - percent(x.stated, x.worlds)
      return Math.abs(off) <= goals.chance
        ? []
        : [`chance of ${percent(x.stated, x.worlds).toFixed(0)} %: off by ${off.toFixed(1)}`]
    }),
  ]
}
