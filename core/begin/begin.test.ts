import { describe, expect, test } from 'vitest'
import { newStreamPlan, planSchema, type Goal, type Job, wholePlan, plannedFans } from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { withAlso } from '#core/rules'
import { assumptionsOf, beginPlan, unknownSizes, usualShape, type Beginning } from './index'

const newJob = (id: string, name: string): Job => newStreamPlan(id, name).job
const goals: Goal[] = ['cool', 'part', 'ventilate', 'fume', 'stir', 'chill', 'quieten']
const makeIds = () => {
  let n = 0
  return (kind: string) => `${kind}-${++n}`
}
const beginning = (goal: Goal, rest: Partial<Beginning> = {}): Beginning => ({
  job: { ...newJob('job-new', 'New'), goal },
  uncertainties: [],
  levelDbA: null,
  shape: usualShape[goal],
  sizes: unknownSizes,
  path: null,
  fan: { way: 'label', label: { frameM: 0.08, ratedV: 12, ratedA: 0.15, ratedRpm: null } },
  ...rest,
})
function begun(b: Beginning): Report & { made: boolean } {
  const { plan, made } = beginPlan(b, makeIds())
  planSchema.parse(wholePlan(plan))
  const result = computeReport({ plan, fans: made ? [made] : [], shown: null })
  if (!result.ok) throw new Error(result.reason)
  return { ...result.report, made: made !== null }
}

describe.each(goals)('%s, begun', (goal) => {
  test('with nothing known: an operating point with its range, and no stop', () => {
    const r = begun(beginning(goal))
    const { flow, flowLow, flowHigh } = r.selection!.candidate
    expect(flow).toBeGreaterThan(0)
    expect(flowLow).toBeLessThan(flow!)
    expect(flowHigh).toBeGreaterThan(flow!)
    expect(r.need.flow.value).toBeGreaterThan(0)
    const stops = withAlso(r.findings.findings).filter((f) => f.severity === 'stop')
    expect(stops.map((f) => f.id)).toEqual([])
  })
  test('what is known is taken, what is not is assumed with its range', () => {
    const { job } = beginning(goal)
    const [first] = assumptionsOf(job)
    if (!first) return
    const known: Job = { ...job, [first.key]: first.value * 1.1 }
    const { plan } = beginPlan(beginning(goal, { job: known }), makeIds())
    expect(plan.job[first.key]).toBeCloseTo(first.value * 1.1, 9)
    expect(plan.uncertainties.find((u) => u.id === first.key)).toBeUndefined()
    const rest = assumptionsOf(known).slice(1)
    expect(plan.uncertainties.map((u) => u.id)).toEqual(rest.map((a) => a.key))
    expect(plan.uncertainties.every((u) => u.grade === 'assumed' && u.low! < u.high!)).toBe(true)
  })
  test('without a fan: a usual one of the size that suffices, or the largest', () => {
    const r = begun(beginning(goal, { fan: { way: 'usual' } }))
    expect(r.made).toBe(true)
    const { design } = r.need
    const frame = r.selection!.fanArray.model.fan.frameM
    expect(r.selection!.served.value! >= design.value! || frame === 0.14 || goal === 'quieten').toBe(true)
  })
})

describe('shapes and fans', () => {
  const path = (b: Beginning) => beginPlan(b, makeIds()).plan.path
  test('a typed area is a good guess, an unknown one is assumed from the frame', () => {
    const told = path(beginning('cool', { sizes: { ...unknownSizes, holesM2: 0.004 } }))
    expect(told.filter((e) => e.kind === 'opening').map((e) => [e.areaM2, e.basis])).toEqual([
      [0.004, 'good-guess'],
      [0.004, 'good-guess'],
    ])
    const unknown = path(beginning('cool'))
    expect(unknown.find((e) => e.kind === 'opening')).toMatchObject({
      basis: 'assumed',
      areaM2: 0.8 * 0.08 ** 2,
    })
  })
  test('a hose leads outdoors, of its own bore and length', () => {
    const { plan } = beginPlan(beginning('fume', { sizes: { holesM2: null, boreM: 0.1, hoseM: 3 } }), makeIds())
    expect(plan.job).toMatchObject({ airOutlet: 'outdoors' })
    expect(plan.places[0]).toMatchObject({ direction: 'out' })
    expect(plan.path.find((e) => e.kind === 'duct')).toMatchObject({
      diameterM: 0.1,
      lengthM: 3,
      basis: 'good-guess',
    })
  })
  test('like another job: its path', () => {
    const other = path(beginning('cool'))
    expect(path(beginning('ventilate', { shape: 'like', path: { path: other, branches: [] } }))).toEqual(other)
  })
  test('a label of nothing is a usual fan, and says what is assumed of it', () => {
    const { made } = beginPlan(
      beginning('cool', {
        fan: { way: 'label', label: { frameM: null, ratedV: null, ratedA: null, ratedRpm: null } },
      }),
      makeIds(),
    )
    expect(made!.notes).toContain('size and voltage is assumed')
  })
  test('a heatsink that nobody described is told as assumed', () => {
    const { plan } = beginPlan(beginning('part'), makeIds())
    expect(plan.job.workings).toMatchObject([{ key: 'sink', value: plan.sink[0]!.kPerW }])
    expect(plan.job.workings[0]!.text).toContain('assumed')
  })
  test('to be ranked from the shelf: nothing is picked', () => {
    const { plan, made } = beginPlan(beginning('cool', { fan: { way: 'shelf' } }), makeIds())
    expect(plannedFans(plan)).toBeNull()
    expect(made).toBeNull()
  })
  test('a level is a target; a job to quieten keeps the air of the fan that is in it', () => {
    const { plan, made } = beginPlan(beginning('quieten', { levelDbA: 30 }), makeIds())
    expect(plan.targets).toMatchObject([{ kind: 'level', limit: 30 }])
    expect(plan.job).toMatchObject({ keepBasis: 'existing-fan', existingFanId: made!.id })
  })
})

test('a stop does not rest on what is assumed: measured, the same plan is stopped', () => {
  const weak = beginning('ventilate', {
    job: { ...newJob('j', 'x'), goal: 'ventilate', volumeM3: 20, airChangesPerH: 60 },
  })
  const { plan, made } = beginPlan(weak, makeIds())
  const fan = made!
  const report = (measured: boolean) => {
    const known = { ...fan, maxFlowM3s: 0.018, maxPressurePa: 30 }
    const result = computeReport({
      plan: measured ? { ...plan, path: plan.path.map((e) => ({ ...e, basis: 'measured' })) } : plan,
      fans: [measured ? known : fan],
      shown: null,
    })
    return result.ok
      ? withAlso(result.report.findings.findings).find((f) => f.id === 'need-flow-far-short')
      : null
  }
  expect(report(false)).toMatchObject({ severity: 'fix' })
  expect(report(false)!.why).toContain('assumed')
  expect(report(true)).toMatchObject({ severity: 'stop' })
})
