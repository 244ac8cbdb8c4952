import { describe, expect, test } from 'vitest'
import { calibratedBy, costPerUnit, gainCosts, predictionsOf, testOf, withTest } from './prediction-check'
import { computeReport } from '#core/plan'
import { conversions, convert, rankNoiseSources, upgradeRungs, type Inputs } from '#core/verification'
import {
  parseReadingLine,
  newTarget,
  newElement,
  newFan,
  newStreamPlan,
  newReading,
  newRun,
  type Fan,
  type StreamPlan,
  type Reading,
  type Run,
} from '#core/document'
import { sumLevels } from '#core/noise'
import { preferenceSets } from '#core/units'
import { pick, selectionOf } from '../../tests/plans'

const level = (value: number, source = '', stage = 'working', place = 'chair'): Reading => ({
  ...newReading(`${source}-${stage}-${place}`, 'level', place, value),
  source,
  stage,
})
const run = (kind: Run['kind'], readings: Reading[], rest: Partial<Run> = {}): Run => ({
  ...newRun('r', kind, '2026-01-01T10:00:00.000Z'),
  readings,
  ...rest,
})

describe('the noise ladder', () => {
  const sources = run('baseline', [
    level(38, 'fan A'),
    level(35, 'fan B'),
    level(28, 'pump'),
    level(40.2),
    level(30, 'fan A', 'idle'),
    level(30, '', 'idle'),
  ])
  test('sources add up to the whole; the loudest is next, and what the rest leaves is said', () => {
    const { stages, sources: names, loudest } = rankNoiseSources([sources], 'chair', 36)
    const [idle, working] = stages
    expect(names).toEqual(['fan A', 'fan B', 'pump'])
    expect(loudest).toBe('working')
    expect(working).toMatchObject({ stage: 'working', whole: 40.2, next: 'fan A' })
    expect(working!.sum).toBeCloseTo(sumLevels([38, 35, 28])!, 9)
    expect(working!.gap).toBeCloseTo(40.2 - 40.05, 1)
    expect(working!.drop).toBeCloseTo(40.05 - sumLevels([35, 28])!, 1)
    expect(working!.wanted).toBeGreaterThan(0)
    // without fan A 35.8 is left, within 36: that is enough
    expect(working).toMatchObject({ ends: 'target', steps: [{ source: 'fan A' }] })
    const all = rankNoiseSources([sources], 'chair', null).stages[1]!
    expect(all.ends).toBe('last')
    expect(all.steps.map((s) => s.source)).toEqual(['fan A', 'fan B', 'pump'])
    expect(all.steps[1]!.total).toBeCloseTo(28, 9)
    expect(all.steps[2]!.total).toBeNull()
    expect(working!.cells.reduce((s, c) => s + c.share!, 0)).toBeCloseTo(1, 9)
    // a single source: nothing remains to fall to
    expect(idle!.drop).toBeNull()
  })
  test('the descent ends where the room itself is heard', () => {
    const inRoom = { ...sources, backgroundDbA: 31 }
    const { steps, ends, room } = rankNoiseSources([inRoom], 'chair', 20).stages[1]!
    expect(room).toBe(31)
    expect(ends).toBe('room')
    // the pump alone is under the room: nothing is gained by it
    expect(steps.map((s) => s.source)).toEqual(['fan A', 'fan B'])
    expect(steps[1]!.total!).toBeCloseTo(31, 9)
  })
  test('everything except one source tells that one, where the difference can be told', () => {
    const but = run('baseline', [level(40), level(36, 'all except fan A'), level(39, 'all except pump')])
    const { cells } = rankNoiseSources([but], 'chair', null).stages[0]!
    expect(cells.find((c) => c.source === 'fan A')!.level).toBeCloseTo(10 * Math.log10(1e4 - 10 ** 3.6), 9)
    // 1 dB of difference is less than can be told from a background
    expect(cells.find((c) => c.source === 'pump')!.level).toBeNull()
    expect(parseReadingLine('36 dB(A) chair, everything except the fan A')).toMatchObject({
      parts: [{ source: 'all except fan A', place: 'chair' }],
    })
    expect(parseReadingLine('24 dB(A) without fan')).toMatchObject({ parts: [{ kind: 'condition' }] })
  })
  test('a target that the others alone exceed cannot be met by this source', () => {
    expect(rankNoiseSources([sources], 'chair', 34).stages[1]!.wanted).toBeNull()
    expect(rankNoiseSources([sources], 'chair', 50).stages[1]!.wanted!).toBeLessThan(0)
    expect(rankNoiseSources([], '', null)).toEqual({ stages: [], sources: [], loudest: null, bounds: 0 })
  })
  test('what hides in the background is no level', () => {
    const { stages, bounds } = rankNoiseSources(
      [run('baseline', [level(32, 'pump'), level(40, 'fan')], { backgroundDbA: 30 })],
      '',
      null,
    )
    expect(bounds).toBe(1)
    expect(stages[0]!.cells.map((c) => c.level === null)).toEqual([true, false])
    expect(stages[0]!.cells[1]!.share).toBe(1)
  })
  test('rungs of upgrades with loudness against the first', () => {
    const rungs = upgradeRungs(
      [
        { name: 'baseline', runs: [run('baseline', [level(44), level(40, '', 'idle')])] },
        { name: 'after change 1', runs: [run('after', [level(34)])] },
        { name: 'empty', runs: [] },
      ],
      'chair',
    )
    expect(rungs.map((x) => [x.name, x.level, x.stage])).toEqual([
      ['baseline', 44, 'working'],
      ['after change 1', 34, 'working'],
    ])
    expect(rungs.map((x) => x.ratio)).toEqual([1, 0.5])
  })
})

describe('conversions', () => {
  const get = (key: string) => conversions.find((c) => c.key === key)!
  const run1 = (key: string, n: Inputs['n'] = {}, rest: Partial<Inputs> = {}) =>
    convert(get(key), { n, lists: {}, choice: {}, density: 1.2, ...rest })
  const value = (...args: Parameters<typeof run1>) => {
    const result = run1(...args)
    return result.ok ? result.figures[0]!.value! : NaN
  }
  test.each<[string, string, Inputs['n'], Partial<Inputs>, number]>([
    ['two pulses: rpm = 30 f', 'tach', { hz: 50, pulses: 2 }, {}, 1500],
    ['a line of seven blades', 'blade-pass', { hz: 140, blades: 7 }, {}, 1200],
    ['a round opening', 'round', { d: 0.1, hub: 0 }, { lists: { v: [2, 2, 2, 2] } }, (Math.PI / 4) * 0.01 * 2],
    ['a rectangle', 'rectangle', { w: 0.2, h: 0.1 }, { lists: { v: [1, 2, 3] } }, 0.04],
    ['a hood', 'hood', { a: 0.005 }, { lists: { v: [3] } }, 0.015],
    ['2.4 Pa is 2 m/s (docs/physics.md ME3)', 'pitot', { p: 2.4 }, {}, 2],
    [
      '1 mm of water is 9.8 Pa (docs/physics.md ME4)',
      'column',
      { l: 0.001, angle: 90, rho: 1000 },
      {},
      9.80665,
    ],
    ['swapped sensors', 'swap', { d1: 14, d2: -10 }, {}, 12],
    ['an offset taken off', 'offset', { in: 15, zero: 3, dh: null }, {}, 12],
    ['10 dB over the background (ISO 3744: K1 0.46)', 'sound', { read: 40, background: 30 }, {}, 39.54],
    [
      'Pt100 at 38.5 K per 100 °C (IEC 60751: 138.51 Ω)',
      'platinum',
      { ohm: 138.5055, lead: 0 },
      { choice: { r0: '100', kind: 'A' } },
      100,
    ],
    ['NTC at its own 25 °C', 'ntc', { ohm: 10000, r25: 10000, beta: 3950 }, {}, 25],
    [
      'NTC in the middle of its divider',
      'ntc',
      { ohm: null, fraction: 0.5, fixed: 10000, r25: 10000, beta: 3950 },
      {},
      25,
    ],
    ['type K: 1.203 mV over 22 °C (IEC 60584-1)', 'type-k', { v: 1.203e-3, cold: 0 }, {}, 30],
    ['volts and amps', 'power', { v: 12, i: 0.15 }, {}, 1.8],
    ['a shunt', 'shunt', { v: 0.015, r: 0.1 }, {}, 0.15],
    ['one of four openings alike', 'one-of-n', { n: 4 }, { lists: { q: [0.01, 0.012] } }, 0.044],
    ['2 cm of 0.3 m² in 5 days', 'tank', { a: 0.3, h: 0.02, t: 5 * 86400 }, {}, 6 / (5 * 86400)],
    ['a wall meter', 'wall', { with: 62, without: 60.5 }, {}, 1.5],
  ])('%s', (_, key, n, rest, expected) => {
    const got = value(key, n, rest)
    expect(Math.abs(got - expected)).toBeLessThan(
      2e-4 * Math.max(1, Math.abs(expected)) + (key === 'sound' ? 0.01 : 0),
    )
  })
  test('every conversion says what it still wants, and gives no number without a reason', () => {
    for (const c of conversions) {
      const blank = convert(c, { n: {}, lists: {}, choice: {}, density: 1.2 })
      expect(blank.ok, c.key).toBe(false)
      if (!blank.ok) expect(blank.reason, c.key).toMatch(/wanted/i)
    }
  })
  test('values that cannot be are refused where they stand', () => {
    expect(run1('round', { d: 0.1, hub: 0.2 }, { lists: { v: [1] } })).toMatchObject({
      ok: false,
      reason: 'The hub is as large as the opening.',
    })
    expect(run1('round', { d: -0.1 }, { lists: { v: [1] } })).toMatchObject({
      ok: false,
      reason: 'Diameter must be above zero.',
    })
    expect(run1('sound', { read: 40, from: 0.1, to: 1 })).toMatchObject({ ok: false })
    expect(run1('one-of-n', { n: 2 }, { lists: { q: [0.01, 0.01, 0.01] } })).toMatchObject({ ok: false })
    expect(run1('one-of-n', { n: 2.5 }, { lists: { q: [0.01] } })).toMatchObject({ ok: false })
    expect(run1('wall', { with: 5, without: 9 })).toMatchObject({ ok: false })
    expect(run1('type-k', { v: 1, cold: 22 })).toMatchObject({ ok: false })
    expect(run1('ntc', { r25: 10000, beta: 3950 })).toMatchObject({ ok: false })
  })
  test('warnings: few points, slow air, background, leads, small watts', () => {
    const warn = (...args: Parameters<typeof run1>) => {
      const result = run1(...args)
      return result.ok ? (result.warning ?? '') : 'no'
    }
    expect(warn('round', { d: 0.1 }, { lists: { v: [2, 2] } })).toContain('few')
    expect(warn('hood', { a: 0.01 }, { lists: { v: [0.3] } })).toContain('hardly start')
    expect(warn('sound', { read: 32, background: 30 })).toContain('upper bound')
    expect(warn('sound', { read: 31, floor: 30 })).toContain('floor')
    expect(warn('platinum', { ohm: 110, lead: 2 }, { choice: { r0: '100' } })).toContain('leads')
    expect(warn('wall', { with: 2 })).toContain('poor')
  })
})

// invented: a fan on an ordinary path
const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.15,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  noiseDbA: 26,
  noiseDistanceM: 1,
  bearing: 'ball',
  price: 12,
  lifeH: 40000,
  lifeC: 40,
  maxFlowM3s: 0.016,
  maxPressurePa: 40,
  points: [
    [0, 40],
    [0.004, 34],
    [0.008, 26],
    [0.012, 14],
    [0.016, 0],
  ].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! })),
}
function plan(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Box')
  Object.assign(p.job, { goal: 'cool', heatW: 60, insideMaxC: 45, ambientC: 22 })
  p.targets = [newTarget({ id: 't', kind: 'level', limit: 36, place: 'chair' }, 'main')]
  p.path = [
    { ...newElement('in', 'grille'), areaM2: 0.012, freeAreaRatio: 0.6 },
    newElement('fan', 'fan'),
    { ...newElement('out', 'opening'), areaM2: 0.006 },
  ]
  pick(p, selectionOf('f'), 12)
  change(p)
  return p
}
const report = (p: StreamPlan, f: Fan = fan) => {
  const result = computeReport({ shown: null, plan: p, fans: [f] })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const flow = (value: number) => newReading('q', 'flow', 'outlet', value)

describe('what a run teaches', () => {
  test('prediction against measurement', () => {
    const p = plan((x) => x.runs.push(run('after', [flow(0.002), level(29)], { fanV: 12, ambientC: 22 })))
    const rows = predictionsOf(report(p))
    expect(rows.map((x) => x.label)).toEqual(['Airflow', 'Sound level'])
    expect(rows[0]).toMatchObject({ agrees: false, measured: 0.002 })
    expect(rows[0]!.teaches).toContain('Less air than predicted')
    expect(predictionsOf(report(plan()))).toEqual([])
  })
  test('one press calibrates the path: the plan then predicts the flow that was measured', () => {
    const measured = run('after', [flow(0.009)], { fanV: 12 })
    const p = plan((x) => x.runs.push(measured))
    const taught = calibratedBy(p, measured, 'c')!
    expect(report(taught).selection!.candidate.flow!).toBeCloseTo(0.009, 5)
    expect(calibratedBy(p, { ...measured, fanV: null }, 'c')).toBeNull()
    expect(calibratedBy(p, { ...measured, readings: [{ ...flow(0.009), method: 'jet' }] }, 'c')).toBeNull()
  })
  test('a bench run becomes a test of the fan itself', () => {
    const bench = run('bench', [flow(0.0128), newReading('n', 'rotation', 'fan', 2350)], {
      fanV: 12,
      ambientC: 21,
    })
    const test1 = testOf(bench, 't')!
    expect(test1).toMatchObject({ volts: 12, flowM3s: 0.0128, rpm: 2350, pressurePa: null })
    expect(report(plan(), withTest(fan, test1)).selection!.candidate.flow!).toBeLessThan(
      report(plan()).selection!.candidate.flow!,
    )
    expect(testOf({ ...bench, kind: 'after' }, 't')).toBeNull()
    expect(testOf({ ...bench, readings: [] }, 't')).toBeNull()
  })
  test('what the gain cost: per kelvin, per dB, per halving', () => {
    const p = plan((x) => {
      x.runs = [
        run('baseline', [newReading('t', 'temperature', 'inside', 52), level(46)], {
          id: 'b',
          ambientC: 22,
          lid: 'closed',
          steady: true,
          instrument: 'class1',
        }),
        run('after', [newReading('t', 'temperature', 'inside', 42), level(36)], {
          id: 'a',
          ambientC: 22,
          lid: 'closed',
          steady: true,
          instrument: 'class1',
        }),
      ]
    })
    const costs = gainCosts(report(p), 20)
    expect(costs.map((c) => costPerUnit(c, preferenceSets.metric))).toEqual([
      { money: 2, per: 'per K' },
      { money: 2, per: 'per dB' },
      { money: expect.closeTo(20, 9), per: 'per halving' },
    ])
    expect(costPerUnit(costs[0]!, preferenceSets.imperial)!.money).toBeCloseTo(2 / 1.8, 9)
    expect(gainCosts(report(p), null).every((c) => c.perUnit === null)).toBe(true)
  })
})
