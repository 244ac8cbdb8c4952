import { describe, expect, test } from 'vitest'
import type { Fan } from '#core/document'
import { seeded } from '#core/numeric'
import { computeReport } from '#core/plan'
import {
  defaultRank,
  driveChoices,
  modelShelf,
  rankSteps,
  searchSteps,
  type Objective,
  type RankOptions,
} from '#core/selection'
import { rankShelf } from '../ranked'
import { quickPath } from '#core/system'
import { quickArrayFlow, quickArrayLevel } from '../../core/selection/candidate'
import { demoFans } from '../../demo/fans'
import { demoPlans } from '../../demo/jobs'

/** The search that leaves out what cannot be among the best, against the one that computes everything. */

const COUNT = 350
const random = seeded(23)
/** The demo's fans, each a little different, some with less on their sheet. */
const shelf = modelShelf(
  Array.from({ length: COUNT }, (_, i): Fan => {
    const fan = demoFans[i % demoFans.length]!
    const x = 0.6 + 0.8 * random()
    const lost = (share: number) => random() < share
    return {
      ...fan,
      id: `fan-${i}`,
      points: lost(0.2)
        ? []
        : fan.points.map((p) => ({ flowM3s: p.flowM3s * x, pressurePa: p.pressurePa * x * x })),
      maxFlowM3s: fan.maxFlowM3s === null ? null : fan.maxFlowM3s * x,
      maxPressurePa: fan.maxPressurePa === null ? null : fan.maxPressurePa * x * x,
      noiseDbA: fan.noiseDbA === null || lost(0.1) ? null : fan.noiseDbA + 50 * Math.log10(x),
      ratedA: lost(0.1) ? null : fan.ratedA,
      price: lost(0.1) ? null : fan.price,
      owned: lost(0.05),
    }
  }),
)
const contexts = demoPlans().flatMap((plan) => {
  const made = computeReport({ shown: null, plan, fans: demoFans })
  return made.ok && made.report.path.complete
    ? [{ name: plan.job.name, context: made.report.selectionContext }]
    : []
})
const objectives: Objective[] = [
  'quietest',
  'margin',
  'cheapest',
  'power',
  'thinnest',
  'loudness',
  'value',
  'weights',
]
function searched(context: (typeof contexts)[number]['context'], options: RankOptions) {
  const steps = searchSteps(context, shelf, options)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

describe('the bounded search finds what the full one finds', () => {
  test.each(contexts)('$name', ({ context }) => {
    for (const [i, objective] of objectives.entries()) {
      const options: RankOptions = {
        ...defaultRank,
        objective,
        drive: (['any', 'rails', 'pwm'] as const)[i % 3]!,
        counts: [1, 2, 3, 5, 8, 16],
        pairs: objective === 'quietest',
        rows: 40,
      }
      const best = searched(context, options)
      const all = searched(context, { ...options, rows: Infinity })
      expect(all.groups.length, objective).toBe(all.arrays)
      expect(best, objective).toEqual({ ...all, groups: all.groups.slice(0, options.rows) })
    }
  })
  test('most groups are left out: this is a search that leaves out', () => {
    const { context } = contexts[0]!
    let looks = 0
    // every curve that is looked at says so
    const watching = (curves: (typeof shelf.models)[number]['curves']) =>
      new Proxy(curves, {
        get(of, key) {
          if (key === 'middle') looks++
          return Reflect.get(of, key) as unknown
        },
      })
    const watched = { ...shelf, models: shelf.models.map((m) => ({ ...m, curves: watching(m.curves) })) }
    const counts = Array.from({ length: 16 }, (_, i) => i + 1)
    const few = rankShelf(context, watched, { ...defaultRank, counts, series: false, rows: 10 })
    const byFew = looks
    looks = 0
    rankShelf(context, watched, { ...defaultRank, counts, series: false, rows: 5000 })
    expect(few.arrays).toBeGreaterThan(4000)
    expect(byFew).toBeLessThan(looks / 4)
  })
})

test('each group stands at the lowest drive that gives the planned flow, at its own flow and level', () => {
  for (const { context } of contexts) {
    const options = { ...defaultRank, counts: [1, 2, 4], rows: 60 }
    const path = quickPath(context.solver)
    for (const { fanArray, drive, flow, level } of searched(context, options).groups) {
      const drives = driveChoices(fanArray, options)
      const at = drives.findIndex((d) => d.volts === drive.volts)
      const flowAt = (k: number) => quickArrayFlow(path, context.air, fanArray, drives[k]!)
      expect(flow).toBeCloseTo(flowAt(at), 12)
      const told = quickArrayLevel(context, fanArray, drive)
      if (told === null) expect(level).toBeNull()
      else expect(level).toBeCloseTo(told, 9)
      const wanted = context.designFlow
      if (wanted === null || flow! < wanted) expect(at).toBe(drives.length - 1)
      // one that is no lower drive's: a curve with a dip may have a lower one that the halving passes over
      else if (at > 0 && !fanArray.model.curves.middle.p.some((p, i, all) => i > 0 && p > all[i - 1]!))
        expect(flowAt(at - 1)).toBeLessThan(wanted)
    }
  }
})

test('in steps, with other work in between, it is the same ranking', () => {
  const { context } = contexts[0]!
  const options = { ...defaultRank, rows: 30 }
  const steps = rankSteps(context, shelf, options)
  let pauses = 0
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) {
      expect(step.value).toEqual(rankShelf(context, shelf, options))
      break
    }
    pauses++
  }
  expect(pauses).toBeGreaterThan(3)
})
