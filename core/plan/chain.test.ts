import { describe, expect, test } from 'vitest'
import { feedOf, powerOf } from '#core/supply'
import { computeReport } from './report'
import { computeVerdict, latestRun, targetFigure } from '#core/verification'
import { alike, drivenV, modelFan } from '#core/system'
import {
  newConverter,
  newElement,
  newFan,
  newFeedPart,
  newStreamPlan,
  newReading,
  newRun,
  newSource,
  newTarget,
  type Fan,
  type StreamPlan,
  type Reading,
  type Run,
  type Target,
} from '#core/document'
import { sayIn, preferenceSets } from '#core/units'
import { convertBy, feedFrom, hang, pick, selectionOf } from '../../tests/plans'

// invented
const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.24,
  startV: 5,
  minV: 4,
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.016, pressurePa: 0 },
  ],
}
const model = (() => {
  const made = modelFan(fan)
  if (!made.ok) throw new Error(made.reason)
  return made.model
})()
const base = (change: (p: StreamPlan) => void = () => {}): StreamPlan => {
  const plan = newStreamPlan('j', 'Box')
  pick(plan, selectionOf('f'), 12)
  change(plan)
  return plan
}
const fanArray = alike(model, 1, 'single')
const power = (change: (p: StreamPlan) => void) => {
  const plan = base(change)
  const driveV = drivenV(plan, fanArray)
  return powerOf(plan, driveV, feedOf(plan, [{ stream: plan.stream, duty: null, driveV, fanArray }], []))
}

describe('from the source to the fan', () => {
  test('without a source the fan stands at its picked voltage and nothing is drawn', () => {
    expect(power(() => {})).toMatchObject({ fanV: 12, loadRunA: null })
    expect(powerOf(newStreamPlan('x', 'x'), null, feedOf(newStreamPlan('x', 'x'), [], [])).fanV).toBeNull()
  })
  test('straight from an adapter: its window is the fan’s window', () => {
    const r = power((p) => {
      feedFrom(p, { ...newSource('s', 'adapter'), iMaxA: 1 })
    })
    expect(r).toMatchObject({ fanLowV: 11.4, fanV: 12, fanHighV: 12.6, headroom: 'ok', wireDropV: null })
    expect(r.loadRunA).toBeCloseTo(0.24, 9)
    expect(r.loadStartA).toBeCloseTo(0.48, 9)
  })
  test('a buck keeps its output while the input allows, and sags below', () => {
    const set = (lowV: number) =>
      power((p) => {
        feedFrom(p, { ...newSource('s', 'rail'), nominalV: 24, lowV, highV: 25, iMaxA: 1 })
        convertBy(p, { ...newConverter('c', 9), efficiency: 0.9 })
      })
    expect(set(20).fanLowV).toBeCloseTo(9, 9)
    expect(set(9).fanLowV).toBeCloseTo(7.5, 9)
    expect(set(20).fanHighV).toBeCloseTo(9.45, 9)
  })
  test('a setting is as sure as it was measured, and the fans run within it', () => {
    const runs = (measuredV: number | null) =>
      power((p) => {
        feedFrom(p, { ...newSource('s', 'rail'), nominalV: 24, lowV: 23, highV: 25 })
        convertBy(p, { ...newConverter('c', 9), measuredV })
      })
    expect(runs(null).fanRuns!.low).toBeCloseTo(8.55, 9)
    expect(runs(null).fanRuns!.high).toBeCloseTo(9.45, 9)
    expect(runs(9).fanRuns!.low).toBeCloseTo(8.82, 9)
    expect(runs(9).fanHighV).toBeCloseTo(9.18, 9)
    // what must start is held against what was set
    expect(runs(null).fanLowV).toBeCloseTo(9, 9)
  })
  test('behind a resistor the running voltage is no higher than running makes it, the limit is without load', () => {
    const r = power((p) => {
      feedFrom(p, { ...newSource('s', 'rail'), nominalV: 12, lowV: 11.4, highV: 12.6 })
      convertBy(p, { ...newConverter('c', 8), converterKind: 'resistor', ohm: 25 })
    })
    expect(r.fanV! + 25 * r.fanRunA!).toBeCloseTo(12, 9)
    expect(r.fanRuns!.low).toBeLessThan(r.fanV!)
    expect(r.fanRuns!.high).toBeGreaterThan(r.fanV!)
    expect(r.fanRuns!.high - r.fanV!).toBeLessThan(0.6)
    expect(r.fanHighV).toBeCloseTo(12.6, 9)
  })
  test('an unregulated adapter gives its label’s voltage at its label’s current, and more below', () => {
    const wart = (rest: object, amps: number) =>
      power((p) => {
        feedFrom(p, { ...newSource('s', 'adapter'), regulated: false, iMaxA: 1, openV: 17, ...rest })
        hang(p, { ...newFeedPart('l', 'load', null), currentA: amps, loadKind: 'module', ratedV: 12 })
      })
    // nothing beside the fan: far above the label, on the straight line from 17 V down to 12 V at 1 A
    const light = wart({}, 1e-4)
    expect(light.fanV! + 5 * light.loadRunA!).toBeCloseTo(17, 6)
    expect(light.fanV!).toBeGreaterThan(15)
    expect(light.fanHighV).toBe(17)
    expect(light.fanRuns!.high).toBeLessThan(17)
    const heavy = wart({}, 0.7)
    expect(heavy.fanV!).toBeLessThan(light.fanV! - 2)
    // measured nowhere: between 1.3 and 1.5 times the label, taken in the middle
    const assumed = wart({ openV: null }, 1e-4)
    expect(assumed.fanV! + 4.8 * assumed.loadRunA!).toBeCloseTo(16.8, 6)
    expect(assumed.fanRuns!.low).toBeLessThan(light.fanV! - 1)
    expect(assumed.fanHighV).toBe(18)
    // a highest voltage that was typed is not passed
    expect(wart({ openV: null, highV: 12.4 }, 1e-4).fanV!).toBeLessThan(12.4)
    expect(wart({ openV: null, highV: 12.4 }, 1e-4).fanRuns!.high).toBeLessThanOrEqual(12.4)
    // without the current of its label nobody knows the slope
    expect(wart({ iMaxA: null }, 1e-4).fanV).toBe(12)
    const source = light.feed.nodes.find((n) => n.kind === 'source')!
    expect(source).toMatchObject({ heatW: 0, inV: light.fanV })
    expect(source.powerW).toBeCloseTo(light.fanV! * light.loadRunA!, 9)
  })
  test('a linear regulator passes its current through, a boost multiplies it', () => {
    const through = (kind: 'linear' | 'boost', nominalV: number) =>
      power((p) => {
        feedFrom(p, { ...newSource('s', 'rail'), nominalV, lowV: nominalV, highV: nominalV, iMaxA: 2 })
        convertBy(p, {
          ...newConverter('c', 12),
          converterKind: kind,
          efficiency: kind === 'boost' ? 0.8 : null,
        })
      })
    expect(through('linear', 16).loadRunA).toBeCloseTo(0.24, 9)
    const node = through('linear', 16).feed.nodes.find((n) => n.kind === 'converter')!
    expect(node.heatW).toBeCloseTo(4 * 0.24, 9)
    expect(through('boost', 5).loadRunA).toBeCloseTo((12 * 0.24) / (0.8 * 5), 9)
  })
  test('what was measured at the converter counts, not what was planned', () => {
    const r = power((p) => {
      feedFrom(p, { ...newSource('s', 'rail'), nominalV: 24, lowV: 23, highV: 25 })
      convertBy(p, { ...newConverter('c', 12), measuredV: 11.2 })
    })
    expect(r.fanV).toBeCloseTo(11.2, 9)
    expect(r.utilisation).toBeNull()
  })
  test('other loads stand before or behind the converter', () => {
    const load = (afterConverter: boolean) =>
      power((p) => {
        feedFrom(p, { ...newSource('s', 'rail'), nominalV: 24, lowV: 24, highV: 24, iMaxA: 1 })
        convertBy(p, { ...newConverter('c', 12), efficiency: 1 })
        hang(p, {
          ...newFeedPart('l', 'load', afterConverter ? 'c' : null),
          count: 2,
          currentA: 0.1,
          startA: 0.3,
        })
      })
    expect(load(true).loadRunA).toBeCloseTo((0.24 + 0.2) / 2, 9)
    expect(load(false).loadRunA).toBeCloseTo(0.24 / 2 + 0.2, 9)
    expect(load(false).loadStartA).toBeCloseTo(0.48 / 2 + 0.6, 9)
    expect(load(true).converterOutA).toBeCloseTo(0.44, 9)
  })
  test('the wire’s drop reaches the operating point: thinner wire, less air', () => {
    const flow = (awg: number) => {
      const result = computeReport({
        shown: null,
        fans: [fan],
        plan: base((p) => {
          p.path = [{ ...newElement('o', 'opening'), areaM2: 0.004 }, newElement('fan', 'fan')]
          feedFrom(p, { ...newSource('s', 'adapter'), iMaxA: 1 }, { wireAwg: awg, wireLengthM: 8 })
        }),
      })
      return result.ok ? result.report.selection!.candidate.flow! : 0
    }
    expect(flow(30)).toBeLessThan(flow(24))
    expect(flow(24)).toBeLessThan(flow(16))
  })
})

const reading = (quantity: Reading['quantity'], value: number, place = 'inside'): Reading =>
  newReading(`${quantity}-${place}`, quantity, place, value)
const run = (kind: Run['kind'], takenAt: string, rest: Partial<Run>): Run => ({
  ...newRun(takenAt, kind, takenAt),
  ...rest,
})
const nothing = { cost: null, thicknessM: null, massKg: null }
const target = (kind: Target['kind'], limit: number, place = ''): Target =>
  newTarget({ id: kind, kind, limit, place }, 'main')
const judge = (targets: Target[], after: Partial<Run>, change: (p: StreamPlan) => void = () => {}) =>
  computeVerdict(
    base((p) => {
      p.targets = targets
      p.runs = [run('after', '2026-03-01T10:00:00Z', after)]
      change(p)
    }),
    { cost: 12, thicknessM: 0.025, massKg: null },
  )

describe('targets', () => {
  test('the newest run of its kind counts', () => {
    const plan = base((p) => {
      p.runs = [
        run('after', '2026-03-01T10:00:00Z', {}),
        run('after', '2026-04-01T10:00:00Z', {}),
        run('baseline', '2026-05-01T10:00:00Z', {}),
      ]
    })
    expect(latestRun(plan, 'after')!.takenAt).toContain('2026-04')
    expect(latestRun(base(), 'after')).toBeNull()
  })
  test('the reading at its place is taken, else the worst of its kind', () => {
    const readings = [reading('temperature', 50, 'sink'), reading('temperature', 30, 'intake')]
    expect(judge([target('temperature', 45, 'Intake ')], { readings }).targets[0]).toMatchObject({
      measured: { value: 30 },
      verdict: 'met',
    })
    expect(judge([target('temperature', 45)], { readings }).targets[0]).toMatchObject({
      measured: { value: 50 },
      verdict: 'not-met',
    })
    const flows = [reading('flow', 0.01, 'a'), reading('flow', 0.006, 'b')]
    expect(judge([target('flow', 0.008)], { readings: flows }).targets[0]!.measured!.value).toBe(0.006)
  })
  test('another load is restated within a factor of one half to one and a half, not beyond', () => {
    const at = (heatW: number) =>
      judge(
        [target('temperature', 60)],
        { ambientC: 22, heatW, readings: [reading('temperature', 42)] },
        (p) => {
          p.job.heatW = 60
        },
      ).targets[0]!.measured!
    expect(at(50).value).toBeCloseTo(22 + (20 * 60) / 50, 9)
    expect(at(50).steps).toContain('rise scaled to the plan’s heat')
    expect(at(20).value).toBe(42)
  })
  test('an ambient that is too far off is not restated', () => {
    expect(
      judge([target('temperature', 60)], { ambientC: 2, readings: [reading('temperature', 20)] }).targets[0]!
        .measured!.value,
    ).toBe(20)
  })
  test('a level is freed of its background and moved to the listener', () => {
    const m = judge([target('level', 40)], {
      backgroundDbA: 30,
      distanceM: 0.5,
      instrument: 'class1',
      readings: [reading('level', 40)],
    }).targets[0]!.measured!
    // 40 over 30: 39.54; half a metre to one: -6.02
    expect(m.value).toBeCloseTo(39.54 - 6.02, 1)
    expect(m.halfWidth).toBe(0.7)
    expect(m.steps).toHaveLength(2)
  })
  test('a reading at the meter’s floor decides only when even that is quiet enough', () => {
    const at = (limit: number) =>
      judge([target('level', limit)], { floorDbA: 30, readings: [reading('level', 31)] }).targets[0]!.verdict
    expect(at(35)).toBe('met')
    expect(at(28)).toBe('not-decided')
  })
  test('a temperature or a level without distance that was read elsewhere says nothing of the target’s place', () => {
    const one = judge([target('temperature', 45, 'processor')], {
      readings: [reading('temperature', 30, 'outlet')],
    }).targets[0]!
    expect(one).toMatchObject({ verdict: 'not-measured', measured: null })
    expect(one.why).toBe('Read at “outlet”, not at “processor”.')
    const level = (run: Partial<Run>) =>
      judge([target('level', 40, 'chair')], { ...run, readings: [reading('level', 30, 'bench')] }).targets[0]!
    expect(level({}).verdict).toBe('not-measured')
    expect(level({ distanceM: 1 }).verdict).toBe('met')
    // one air goes through the whole path
    const flow = judge([target('flow', 0.008, 'outlet')], { readings: [reading('flow', 0.012, 'intake')] })
    expect(flow.targets[0]!.measured!.value).toBe(0.012)
  })
  test.each([
    ['class2', 18, 20, 'not-decided', 30],
    ['class2', 18, 35, 'met', 30],
    ['class1', 18, 26, 'met', 20],
    ['phone', 33, 38, 'not-decided', 40],
    ['class2', 36, 40, 'met', 36],
  ] as const)(
    'a %s meter that shows %s dB(A) against %s: %s, taken as %s',
    (instrument, shown, limit, verdict, value) => {
      const t = judge([target('level', limit)], { instrument, readings: [reading('level', shown)] }).targets[0]!
      expect(t).toMatchObject({ verdict, measured: { value, upperBoundOnly: value > shown } })
    },
  )
  test('a temperature that still rises is not met, with what was to come; one that is too warm already is not met', () => {
    const at = (value: number, run: Partial<Run>) =>
      judge([target('temperature', 45)], { ...run, readings: [reading('temperature', value)] }).targets[0]!
    expect(at(40, { steady: true }).verdict).toBe('met')
    expect(at(40, { steady: false }).verdict).toBe('not-decided')
    // 0.3 K a minute with ten minutes of time constant: 3 K to come
    const logged = at(40, { slopeKS: 0.3 / 60, tauS: 600 })
    expect(logged).toMatchObject({ verdict: 'not-decided' })
    expect(logged.why).toContain('about 3.0 K were to come')
    expect(at(40, { slopeKS: 0.01 / 60, tauS: 600 }).verdict).toBe('met')
    expect(at(50, { steady: false }).verdict).toBe('not-met')
    expect(at(50, { slopeKS: -0.8 / 60, tauS: 600 }).why).toContain('Still falling')
    // what is to come does not bring it under
    expect(at(60, { slopeKS: -0.3 / 60, tauS: 600 })).toMatchObject({ verdict: 'not-met', why: '' })
    expect(at(40, { slopeKS: -0.3 / 60, tauS: 600 }).verdict).toBe('met')
  })
  test('of runs that were taken again the one that had furthest to go tells', () => {
    const both = (value: number, slopesKS: number[]) => {
      const taken = (slopeKS: number) => ({ readings: [reading('temperature', value)], slopeKS, tauS: 600 })
      const [first, ...more] = slopesKS
      return judge([target('temperature', 45)], taken(first!), (p) => {
        for (const [i, slope] of more.entries())
          p.runs.push(run('after', `2026-03-0${i + 2}T10:00:00Z`, taken(slope)))
      }).targets[0]!
    }
    expect(both(40, [0, 0.3 / 60]).why).toContain('about 3.0 K were to come')
    expect(both(40, [0.3 / 60, 0]).why).toContain('about 3.0 K were to come')
    expect(both(50, [0, -0.8 / 60]).why).toContain('Still falling')
    expect(both(50, [-0.8 / 60, 0]).why).toContain('Still falling')
  })
  test('one reading with nothing noted only looks met, and what would make it sure is told', () => {
    const looks = (run: Partial<Run>, values = [36]) =>
      judge([target('level', 45)], {
        ...run,
        readings: values.map((v) => reading('level', v)),
      }).targets[0]!.looks
    expect(looks({})).toEqual(['the distance', 'the background', 'the meter', 'a second reading'])
    expect(looks({ distanceM: 1, backgroundDbA: 20, instrument: 'class2' })).toEqual([])
    const soaked = judge([target('temperature', 45)], {
      ambientC: 22,
      soakS: 1800,
      readings: [reading('temperature', 38)],
    }).targets[0]!
    expect(soaked).toMatchObject({ verdict: 'met', looks: [] })
    const missed = judge([target('level', 20)], { readings: [reading('level', 36)] }).targets[0]!
    expect(missed).toMatchObject({ verdict: 'not-met', looks: [] })
  })
  test('money is judged by the price, and not before it is known', () => {
    expect(judge([target('money', 10)], {}).targets[0]!.verdict).toBe('not-met')
    expect(
      computeVerdict(
        base((p) => {
          p.targets = [target('money', 10)]
        }),
        nothing,
      ).targets[0]!.verdict,
    ).toBe('not-measured')
  })
  test('thickness is judged by the sheet, running time by a reading', () => {
    expect(judge([target('thickness', 0.03)], {}).targets[0]!.verdict).toBe('met')
    expect(judge([target('thickness', 0.02)], {}).targets[0]!.verdict).toBe('not-met')
    expect(
      judge([target('runtime', 8 * 3600)], { readings: [reading('duration', 9 * 3600)] }).targets[0]!.verdict,
    ).toBe('met')
    expect(
      judge([target('runtime', 8 * 3600)], { readings: [reading('duration', 7 * 3600)] }).targets[0]!.verdict,
    ).toBe('not-met')
  })
  test('its figure shows what was done to the reading', () => {
    const f = targetFigure(
      judge([target('level', 40, 'chair')], {
        backgroundDbA: 30,
        distanceM: 1,
        readings: [reading('level', 40)],
      }).targets[0]!,
    )
    expect(f).toMatchObject({ label: 'Sound level chair', basis: 'measured', note: 'background removed.' })
    expect(f.low!).toBeLessThan(f.value!)
  })
})

describe('is it fair?', () => {
  const compare = (before: Partial<Run>, after: Partial<Run>) =>
    computeVerdict(
      base((p) => {
        const usual = {
          ambientC: 22,
          heatW: 60,
          distanceM: 1,
          soakS: 1800,
          lid: 'closed' as const,
          readings: [reading('temperature', 40), reading('rotation', 1500)],
        }
        p.runs = [
          run('baseline', '2026-03-01T10:00:00Z', { ...usual, ...before }),
          run('after', '2026-03-02T10:00:00Z', { ...usual, ...after }),
        ]
      }),
      nothing,
    )
  test.each([
    ['ambient', { ambientC: 26 }],
    ['equipment load', { heatW: 70 }],
    ['listening distance', { distanceM: 1.2 }],
    ['soak time', { soakS: 900 }],
    ['lid', { lid: 'open' as const }],
    ['changes', { changes: 3 }],
  ])('%s', (what, after) => {
    expect(compare({}, after).unfair.map((u) => u.what)).toEqual([what])
    expect(compare({}, {}).unfair).toEqual([])
  })
  test('what was not stated is said, and steady runs may have soaked differently', () => {
    expect(compare({ heatW: null, fanV: 12 }, { fanV: 12 }).notStated).toEqual(['equipment load'])
    expect(compare({ steady: true }, { steady: true, soakS: 900 }).unfair).toEqual([])
  })
  test('the sentence is in the person’s units', () => {
    const [u] = compare({}, { ambientC: 27 }).unfair
    expect(sayIn(u!.text, preferenceSets.imperial).replaceAll('\u00a0', ' ')).toBe(
      'Ambient 71.6 °F before, 80.6 °F after',
    )
  })
  test('a change inside the instruments’ range is not shown as one', () => {
    const [same] = compare({}, { readings: [reading('temperature', 40.5)] }).comparisons
    expect(same!.shown).toBe(false)
    const [other] = compare({}, { readings: [reading('temperature', 34)] }).comparisons
    expect(other).toMatchObject({ shown: true, asRise: true, difference: -6 })
    expect(other!.change).toBeCloseTo(-6 / 18, 9)
  })
  test('without ambients a temperature has a difference but no per cent', () => {
    const [c] = compare({ ambientC: null }, { readings: [reading('temperature', 34)] }).comparisons
    expect(c).toMatchObject({ asRise: false, difference: -6, change: null })
  })
})
