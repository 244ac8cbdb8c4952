import { describe, expect, test } from 'vitest'
import {
  newElement,
  newFan,
  newStreamPlan,
  newReading,
  newRun,
  newTarget,
  parseReadingLine,
  planSchema,
  targetKinds,
  upperLimit,
  wantedWords,
  type Fan,
  type StreamPlan,
  type Reading,
  type Target,
  type TargetKind,
  wholePlan,
  seenAt,
} from '#core/document'
import { chanceOf, findingMessage } from '#core/rules'
import { targetStart } from './target-start'
import { computeReport, type Report } from '.'
import { pick, selectionOf } from '../../tests/plans'

/** Targets of every kind: judged by what was read, and beside what the plan predicts. Invented numbers. */
const fan: Fan = {
  ...newFan('fan'),
  model: 'Whin 80',
  frameM: 0.08,
  ratedA: 0.15,
  ratedRpm: 2000,
  massKg: 0.07,
  noiseDbA: 28,
  noiseDistanceM: 1,
  points: [
    [0, 40],
    [0.01, 28],
    [0.02, 0],
  ].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! })),
}
function box(targets: Target[], readings: Reading[] = [], stage = ''): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  Object.assign(plan.job, { goal: 'cool', heatW: 60, insideMaxC: 45, ambientC: 22, volumeM3: 0.5 })
  plan.path = [
    { ...newElement('in', 'opening'), name: 'in', areaM2: 0.006 },
    { ...newElement('box', 'chamber'), name: 'inside', areaM2: 0.1 },
    { ...newElement('f', 'fan'), name: 'fan' },
    { ...newElement('out', 'opening'), name: 'out', areaM2: 0.005 },
  ]
  pick(plan, selectionOf('fan', { count: 2, arrangement: 'parallel' }), 12)
  plan.targets = targets
  if (readings.length)
    plan.runs = [
      {
        ...newRun('r', 'after', '2026-03-01T10:00:00.000Z'),
        ambientC: 22,
        heatW: 60,
        steady: true,
        stage,
        readings,
      },
    ]
  return plan
}
function reportOf(plan: StreamPlan): Report {
  const result = computeReport({ plan, fans: [fan], shown: null })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const target = (kind: TargetKind, limit: number, rest: Partial<Target> = {}) =>
  newTarget({ id: 't', kind, limit, place: targetKinds[kind].place, ...rest }, 'main')
const judged = (t: Target, ...readings: Reading[]) => reportOf(box([t], readings)).verdict.targets[0]!
const read = (quantity: Reading['quantity'], place: string, value: number, rest: Partial<Reading> = {}) => ({
  ...newReading(`r-${value}`, quantity, place, value),
  halfWidth: 0,
  ...rest,
})

describe('judged by what was read', () => {
  test('between two limits: inside met, outside not, on the edge not decided', () => {
    const between = target('humidity', 0.5, { sense: 'between', upper: 0.6 })
    const at = (value: number, halfWidth = 0.02) =>
      judged(between, read('ratio', 'inside', value, { halfWidth })).verdict
    expect([0.4, 0.55, 0.7, 0.51, 0.59].map((v) => at(v))).toEqual([
      'not-met',
      'met',
      'not-met',
      'not-decided',
      'not-decided',
    ])
  })
  test('of two readings the one that lies furthest outside counts', () => {
    const between = target('humidity', 0.5, { sense: 'between', upper: 0.6, place: '' })
    const low = { ...read('ratio', 'floor', 0.3) }
    expect(judged(between, read('ratio', 'top', 0.55), low).measured!.value).toBe(0.3)
  })
  test('a rise is a temperature less the ambient of its run, at the plan’s load', () => {
    const warm = read('temperature', 'inside', 40)
    expect(judged(target('rise', 20), warm).measured!.value).toBeCloseTo(18, 9)
    const plan = box([target('rise', 20)], [warm])
    Object.assign(plan.runs[0]!, { ambientC: 18, heatW: 50 })
    expect(reportOf(plan).verdict.targets[0]!.measured!.value).toBeCloseTo(((40 - 18) * 60) / 50, 9)
    plan.runs[0]!.ambientC = null
    expect(reportOf(plan).verdict.targets[0]).toMatchObject({
      verdict: 'not-measured',
      why: 'A rise needs the ambient of its run.',
    })
  })
  test('air changes are an airflow over the volume; without the volume that is what lacks', () => {
    const flow = read('flow', 'outlet', 0.005)
    expect(judged(target('airchanges', 30), flow)).toMatchObject({ verdict: 'met', measured: { value: 36 } })
    const plan = box([target('airchanges', 30)], [flow])
    plan.job.volumeM3 = null
    expect(reportOf(plan).verdict.targets[0]!.why).toContain('volume')
  })
  test('a number of one’s own is known by its name, whatever else was counted', () => {
    const own = target('other', 800, { name: 'Clock rate', unit: 'MHz' })
    const result = judged(own, read('number', 'faults', 3), read('number', 'clock rate', 850))
    expect(result).toMatchObject({ verdict: 'met', measured: { value: 850 } })
    expect(judged(own, read('number', 'faults', 900)).verdict).toBe('not-measured')
    expect(wantedWords(own, (v) => String(v))).toBe('at least 800 MHz')
  })
  test('weight is that of the fans by their sheets', () => {
    expect(judged(target('weight', 0.15))).toMatchObject({ verdict: 'met', measured: { value: 0.14 } })
    expect(judged(target('weight', 0.13)).verdict).toBe('not-met')
  })
  test('the stage is that of the target', () => {
    const idle = target('level', 30, { stage: 'idle', place: '' })
    const plan = box(
      [idle],
      [read('level', 'chair', 35, { stage: 'working' }), read('level', 'chair', 25, { stage: 'idle' })],
    )
    expect(reportOf(plan).verdict.targets[0]!.measured!.value).toBeCloseTo(25, 9)
  })
  test('every kind that is read has readings that a line of words is understood as', () => {
    const words: Partial<Record<TargetKind, string>> = {
      airspeed: '0.6 m/s nozzle',
      humidity: '55 % inside',
      evaporation: '1.2 L/day tank',
    }
    for (const [kind, line] of Object.entries(words))
      expect(parseReadingLine(line)).toMatchObject({
        ok: true,
        parts: [{ quantity: targetKinds[kind as TargetKind].reading }],
      })
  })
})

describe('limits that cannot be', () => {
  test.each([
    ['between 5 and 3', { sense: 'between', limit: 5, upper: 3 }, 'swap them'],
    ['between 5 and nothing', { sense: 'between', limit: 5 }, 'upper one is missing'],
  ] as const)('%s is told at the target', (_, rest, message) => {
    const plan = box([target('pressure', 5, rest)])
    const checked = planSchema.safeParse(wholePlan(plan))
    expect(checked.error!.issues[0]).toMatchObject({ path: ['targets', 0, 'upper'] })
    expect(checked.error!.issues[0]!.message).toContain(message)
  })
})

describe('what the plan predicts beside it', () => {
  const predicted = (t: Target, change: (p: StreamPlan) => void = () => {}) => {
    const plan = box([t])
    change(plan)
    const report = reportOf(plan)
    return { report, at: report.predictions['t'] }
  }
  test('temperature and rise are the heat balance, with its range', () => {
    const { report, at } = predicted(target('temperature', 45))
    const inside = report.need.extras.find((f) => f.key === 'need.inside')!
    expect(at).toMatchObject({ value: inside.value, low: inside.low, high: inside.high })
    expect(predicted(target('rise', 20)).at!.value).toBeCloseTo(inside.value! - 22, 9)
  })
  test('airflow, air changes, speed, current, power, weight follow the operating point', () => {
    const { report, at } = predicted(target('airchanges', 10))
    const flow = report.selection!.served.value!
    expect(at!.value).toBeCloseTo((flow * 3600) / 0.5, 9)
    expect(predicted(target('flow', 0.01)).at!.value).toBeCloseTo(flow, 12)
    expect(predicted(target('rotation', 2500)).at!.value).toBeCloseTo(2000, 6)
    expect(predicted(target('current', 1)).at!.value).toBeCloseTo(0.3, 6)
    expect(predicted(target('weight', 1)).at!.value).toBeCloseTo(0.14, 9)
  })
  test('the air speed in an element that the target names', () => {
    const { report, at } = predicted(target('airspeed', 1, { place: 'out' }))
    expect(at!.value).toBeCloseTo(report.selection!.candidate.flow! / 0.005, 9)
  })
  test('pressure inside is that of the chamber, with its sign', () => {
    const { report, at } = predicted(target('pressure', 1))
    expect(at!.value).toBe(report.ribbon.find((s) => s.id === 'box')!.gaugePa)
    expect(at!.value).toBeLessThan(0)
    expect(predicted(target('pressure', 1, { place: 'fan' })).at!.value).toBe(
      report.selection!.candidate.pressure,
    )
  })
  test('nothing is predicted of an idle machine, of humidity or of a number of one’s own', () => {
    expect(predicted(target('level', 30, { stage: 'idle' })).at).toBeUndefined()
    expect(predicted(target('humidity', 0.6)).at).toBeUndefined()
    expect(predicted(target('other', 5)).at).toBeUndefined()
  })
  test('the limit of an idle stage does not bind the search, the strictest of the others does', () => {
    const level = (limit: number, stage: string) => target('level', limit, { stage, id: `l${limit}` })
    expect(upperLimit([level(25, 'idle'), level(40, 'working'), level(38, '')], 'level')).toBe(38)
    expect(upperLimit([level(25, 'idle')], 'level')).toBeNull()
    expect(reportOf(box([level(25, 'idle'), level(40, 'working')])).selectionContext.levelLimit).toBe(40)
  })
  test('chance: half at the middle, 97.5 % at the upper end, the rest beyond it; between two what lies between', () => {
    const p = { value: 30, low: 26, high: 36 }
    expect(chanceOf(target('temperature', 30), p)).toBeCloseTo(0.5, 6)
    expect(chanceOf(target('temperature', 36), p)).toBeCloseTo(0.975, 3)
    expect(chanceOf(target('temperature', 26, { sense: 'least' }), p)).toBeCloseTo(0.975, 3)
    expect(chanceOf(target('temperature', 26, { sense: 'between', upper: 36 }), p)).toBeCloseTo(0.95, 3)
    expect(chanceOf(target('money', 5), { value: 5, low: 5, high: 5 })).toBe(1)
    expect(chanceOf(target('money', 4), { value: 5, low: 5, high: 5 })).toBe(0)
    expect(chanceOf(target('pressure', 4), { value: 5, low: null, high: null })).toBeNull()
  })
  test('a new target of any kind begins with a number that its kind allows', () => {
    const plan = box([])
    const report = reportOf(plan)
    for (const kind of Object.keys(targetKinds) as TargetKind[])
      expect(targetKinds[kind].limit.safeParse(targetStart(kind, seenAt(plan), report)).success, kind).toBe(
        true,
      )
  })
})

test('fans and room each under the wish, together above: how much is over, and what is left for the fans', () => {
  const plan = box([
    newTarget({ id: 't', kind: 'level', limit: 40, place: 'chair', setBy: '', why: '' }, 'main'),
  ])
  const fans = reportOf(plan).selection!.candidate.level!.value
  const limit = Math.ceil(fans)
  plan.targets[0]!.limit = limit
  plan.job.roomDbA = limit - 2
  const told = reportOf(plan).findings.findings.find((f) => f.id === 'noise-sum-missed')!
  const energy = (dB: number) => 10 ** (dB / 10)
  const together = 10 * Math.log10(energy(fans) + energy(limit - 2))
  const left = 10 * Math.log10(energy(limit) - energy(limit - 2))
  expect(together).toBeGreaterThan(limit)
  const said = findingMessage(told).replaceAll('\u00a0', ' ')
  expect(said).toContain(`make ${together.toFixed(1)} dB(A) together`)
  expect(said).toContain(`the fans may make ${left.toFixed(1)} dB(A)`)
})
