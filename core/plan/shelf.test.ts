import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  combinedCurve,
  dropOf,
  highestPressure,
  lastFlow,
  parallelOperatingPoint,
  pressureAt,
  scaleCurve,
  seriesOperatingFlow,
  stableFlow,
} from '#core/fan'
import {
  claimRows,
  defaultRank,
  driveChoices,
  evaluateCandidate,
  meritOf,
  modelShelf,
  noFilter,
  passesFilter,
  railsOf,
  shelfShown,
  spreadOf,
  trustedFan,
  weightedScore,
  evenWeights,
  type RankOptions,
} from '#core/selection'
import { rankShelf } from '../../tests/ranked'
import { computeReport, type Report } from './report'
import {
  alike,
  curveAt,
  driveSpeed,
  dutySpeed,
  fanCurrent,
  fanStartCurrent,
  arrayOf,
  fanArrayOf,
  lifeAt,
  modelFan,
  type FanModel,
  type FanArray,
} from '#core/system'
import {
  newElement,
  newFan,
  newStreamPlan,
  newTest,
  type Fan,
  type StreamPlan,
  type Place,
  newPlace,
  plannedFans,
} from '#core/document'
import { planUncertainty } from '#core/advice'
import { sayIn } from '#core/units'
import { driveAt, pick, selectionOf, stand, tell } from '../../tests/plans'

// invented
const strong: Fan = {
  ...newFan('strong'),
  maker: 'Testmoor',
  model: 'Whin 80',
  ratedA: 0.2,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  noiseDbA: 30,
  noiseDistanceM: 1,
  price: 10,
  wires: 4,
  pwmMinDuty: 0.2,
  pwmStartDuty: 0.3,
  pwmMinSpeed: 0.25,
  blades: 7,
  lifeH: 40000,
  points: [
    { flowM3s: 0, pressurePa: 60 },
    { flowM3s: 0.01, pressurePa: 40 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
}
const weak: Fan = {
  ...strong,
  id: 'weak',
  model: 'Whin 60',
  noiseDbA: 24,
  price: 6,
  wires: 3,
  points: [
    { flowM3s: 0, pressurePa: 25 },
    { flowM3s: 0.006, pressurePa: 18 },
    { flowM3s: 0.012, pressurePa: 0 },
  ],
}
const model = (f: Fan): FanModel => {
  const made = modelFan(f)
  if (!made.ok) throw new Error(made.reason)
  return made.model
}
const single = (f: Fan): FanArray => alike(model(f), 1, 'single')
function plan(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Box')
  tell(p, { heatW: 60, heatBasis: 'measured', insideMaxC: 40, direction: 'out' })
  p.path = [
    { ...newElement('o', 'opening'), areaM2: 0.004 },
    newElement('fan', 'fan'),
    { ...newElement('c', 'chamber'), areaM2: 0.1 },
  ]
  pick(p, selectionOf('strong'), 12)
  change(p)
  return p
}
function report(p: StreamPlan, fans: Fan[] = [strong, weak]): Report {
  const result = computeReport({ shown: null, plan: p, fans })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const at = (volts: number, duty: number | null = null) => ({ volts, duty })

describe('an unlike pair is one curve', () => {
  const [a, b] = [model(strong).curves.middle, model(weak).curves.middle]
  test('in series it meets a path where the two-fan solution meets it', () => {
    const both = combinedCurve(a, b, 'series')!
    for (const k of [3e5, 1e6, 4e6])
      expect(
        stableFlow(both, { a: 0, b: k }, { speed: 1, densityRatio: 1, parallel: 1, series: 1 }),
      ).toBeCloseTo(seriesOperatingFlow(a, b, { a: 0, b: k })!, 5)
  })
  test('side by side as well, also where the weaker one is driven backwards', () => {
    const both = combinedCurve(a, b, 'parallel')!
    for (const k of [2e4, 1e5, 4e5]) {
      const truth = parallelOperatingPoint(a, b, { a: 0, b: k }, { flap: false })!
      expect(
        stableFlow(both, { a: 0, b: k }, { speed: 1, densityRatio: 1, parallel: 1, series: 1 }) / truth.total,
      ).toBeCloseTo(1, 2)
    }
    const steep = { a: 0, b: 3e6 }
    expect(
      dropOf(steep, stableFlow(both, steep, { speed: 1, densityRatio: 1, parallel: 1, series: 1 })),
    ).toBeGreaterThan(highestPressure(b))
  })
  test('two of the same are the scaled curve', () => {
    const twice = combinedCurve(a, a, 'parallel')!
    const scaled = scaleCurve(a, 2, 1)
    for (const q of [0.005, 0.015, 0.03])
      expect(pressureAt(twice, q)! / pressureAt(scaled, q)!).toBeCloseTo(1, 2)
    expect(lastFlow(twice)).toBeCloseTo(lastFlow(scaled), 9)
  })
  test('a pair runs through the whole chain: current, level, cost, findings', () => {
    const r = report(
      plan((p) => {
        stand(p, selectionOf('strong', { other: 'weak', count: 2, arrangement: 'parallel' }))
      }),
    )
    const c = r.selection!.candidate
    expect(c.currentA).toBeCloseTo(0.4, 6)
    expect(c.cost).toBe(16)
    expect(c.level!.value).toBeGreaterThan(report(plan()).selection!.candidate.level!.value)
    expect(c.flow!).toBeGreaterThan(report(plan()).selection!.candidate.flow!)
    expect(r.findings.findings.map((f) => f.id)).toContain('fan-parallel-unlike')
    expect(
      planUncertainty({
        shown: null,
        plan: plan((p) => {
          stand(p, selectionOf('strong', { other: 'weak', count: 2, arrangement: 'series' }))
        }),
        fans: [strong, weak],
      })!.chance,
    ).not.toBeNull()
  })
  test('a pair whose other fan is gone says so', () => {
    const p = plan((x) => stand(x, selectionOf('strong', { other: 'gone', count: 2, arrangement: 'parallel' })))
    expect(fanArrayOf(plannedFans(p)!, [strong])).toEqual({
      ok: false,
      reason: 'The picked fan is no longer on the shelf.',
    })
  })
})

describe('two places', () => {
  const places = plan((p) => {
    p.path.push(newElement('fan2', 'fan'))
    stand(p, selectionOf('strong', { count: 2, arrangement: 'places' }))
  })
  test('pressures add as in series, without the loss between stages and without stacking', () => {
    const two = report(places).selection!.candidate
    const behind = structuredClone(places)
    stand(behind, selectionOf('strong', { count: 2, arrangement: 'series' }))
    const series = report(behind).selection!.candidate
    expect(two.flow).toBeCloseTo(series.flow!, 9)
    expect(two.flowLow!).toBeGreaterThan(series.flowLow!)
    expect(two.thicknessM).toBe(0.025)
    expect(series.thicknessM).toBe(0.05)
  })
  test('the ribbon shows half of the gain at each, and a missing place is told', () => {
    const gains = report(places)
      .ribbon.filter((s) => s.kind === 'fan')
      .map((s) => s.deltaPa!)
    expect(gains).toHaveLength(2)
    expect(gains[0]! + gains[1]!).toBeCloseTo(report(places).selection!.candidate.pressure!, 9)
    const one = report(
      plan((p) => {
        stand(p, selectionOf('strong', { count: 2, arrangement: 'places' }))
      }),
    )
    expect(one.selection!.candidate.reasons.map((r) => sayIn(r.text)).join()).toContain('second place')
  })
})

describe('curves at several voltages', () => {
  const two: Fan = {
    ...strong,
    curves: [
      {
        volts: 6,
        basis: 'curve',
        points: [
          { flowM3s: 0, pressurePa: 12 },
          { flowM3s: 0.005, pressurePa: 8 },
          { flowM3s: 0.009, pressurePa: 0 },
        ],
      },
    ],
  }
  test('the driven curve goes through what the sheet shows, and speed is interpolated between', () => {
    const m = model(two)
    expect(driveSpeed(m, 6)).toBeCloseTo(0.45, 9)
    expect(driveSpeed(m, 9)).toBeCloseTo((0.45 + 1) / 2, 9)
    expect(driveSpeed(m, 3)).toBe(0)
    const low = scaleCurve(curveAt(m, 6, 'middle'), 0.45, 0.45 ** 2)
    expect(pressureAt(low, 0.005)).toBeCloseTo(8, 6)
    expect(curveAt(m, 12, 'low')).toBe(m.curves.low)
  })
  test('between two voltages the shape lies between the two', () => {
    const m = model(two)
    const [a, mid, b] = [6, 9, 12].map((v) => pressureAt(curveAt(m, v, 'middle'), 0.008)!)
    expect(mid!).toBeGreaterThanOrEqual(Math.min(a!, b!))
    expect(mid!).toBeLessThanOrEqual(Math.max(a!, b!))
  })
})

describe('PWM', () => {
  test('the duty slows it in a line from its lowest, and saves more current than speed', () => {
    const m = model(strong)
    expect(dutySpeed(m, 0.2)).toBeCloseTo(0.25, 9)
    expect(dutySpeed(m, 1)).toBe(1)
    expect(dutySpeed(m, 0.1)).toBe(0)
    // three wires: nothing takes the duty, it runs as fast as its voltage lets it
    expect(dutySpeed({ ...m, fan: { ...m.fan, wires: 3 } }, 0.2)).toBe(1)
    expect(fanCurrent(m, 12, 0.6)!).toBeLessThan(0.2 * dutySpeed(m, 0.6))
    expect(
      evaluateCandidate(report(plan()).selectionContext, single(strong), at(12, 0.1))
        .reasons.map((r) => sayIn(r.text))
        .join(),
    ).toContain('keeps turning from')
  })
  test('only 4-wire fans are tried with it, and a start current that was measured is used', () => {
    expect(driveChoices(single(weak), { ...defaultRank, drive: 'pwm' })).toEqual([])
    const duties = driveChoices(single(strong), { ...defaultRank, drive: 'pwm', levels: 8 }).map((d) => d.duty!)
    expect(duties[0]).toBeCloseTo(0.3, 9)
    expect(duties.at(-1)).toBe(1)
    expect(
      fanStartCurrent(
        model({ ...strong, tests: [{ ...newTest('t', 12, '2026-01-01T00:00:00Z'), startA: 0.31 }] }),
        6,
      ),
    ).toBeCloseTo(0.155, 9)
    expect(fanStartCurrent(model(strong), 12)).toBeCloseTo(0.4, 9)
  })
})

describe('tests on the bench', () => {
  const tested = (id: string, rest: Partial<Fan['tests'][number]>, specimen = 'A') => ({
    ...newTest(id, 12, '2026-04-01T10:00:00Z'),
    specimen,
    ...rest,
  })
  const fan: Fan = {
    ...strong,
    maxFlowM3s: 0.02,
    maxPressurePa: 60,
    tests: [
      tested('1', {
        rpm: 2160,
        currentA: 0.16,
        flowM3s: 0.0162,
        pressurePa: 43.74,
        levelDbA: 29,
        levelDistanceM: 1,
      }),
      tested('2', { rpm: 2280 }, 'B'),
    ],
  }
  test('each claim is taken to the test’s conditions first: flow by n, pressure by n²', () => {
    const rows = claimRows(fan)
    const of = (figure: string) => rows.find((r) => r.figure === figure)!
    expect(of('rotation').ratio).toBeCloseTo(0.9, 9)
    expect(of('flow').ratio).toBeCloseTo(0.9, 9)
    expect(of('pressure').ratio).toBeCloseTo(0.9, 9)
    // a label's current is the most it takes: 80 % of it is as claimed
    expect(of('current')).toMatchObject({ flag: 'as-claimed', side: null })
    expect(of('flow')).toMatchObject({ read: 0.0162, claim: 0.02 })
    expect(of('flow').plain).toBeCloseTo(0.81, 9)
    // 50·lg 0.9 = -2.3 dB from the lower speed
    expect(of('level').claimed).toBeCloseTo(30 + 50 * Math.log10(0.9), 6)
  })
  test('half the voltage is no miss: the claim is halved with it', () => {
    const half = claimRows({ ...strong, tests: [tested('1', { volts: 6, rpm: 1200 })] })
    expect(half[0]!.ratio).toBeCloseTo(1, 9)
    expect(half[0]!.flag).toBe('as-claimed')
  })
  test('specimens count once each and show their spread', () => {
    const [rotation] = spreadOf(fan)
    expect(rotation).toMatchObject({ figure: 'rotation', specimens: 2 })
    expect(rotation!.mean).toBeCloseTo(0.925, 9)
    expect(rotation!.sd).toBeCloseTo(0.025 * Math.SQRT2, 9)
  })
  test('a level in the background’s noise is not held against anything', () => {
    expect(claimRows({ ...strong, tests: [tested('1', { levelDbA: 30, backgroundDbA: 29 })] })).toEqual([])
  })
  test('own numbers move the curve, the current and the level; claims leave it', () => {
    const own = trustedFan(fan, 'own', null)
    expect(trustedFan(fan, 'claims', null)).toBe(fan)
    const [before, after] = [model(fan), model(own)]
    expect(lastFlow(after.curves.middle) / lastFlow(before.curves.middle)).toBeCloseTo(0.925 * 0.9, 9)
    expect(highestPressure(after.curves.middle) / highestPressure(before.curves.middle)).toBeCloseTo(
      0.925 ** 2 * 0.9,
      9,
    )
    expect(fanCurrent(after, 12)).toBeCloseTo(0.16, 9)
    expect(lastFlow(after.curves.low)).toBeLessThan(lastFlow(after.curves.middle))
    const level = (trust: 'claims' | 'own') =>
      report(
        plan((p) => {
          p.job.trust = trust
        }),
        [fan],
      ).selection!.candidate.level!
    expect(level('own').value).toBeLessThan(level('claims').value)
  })
  test('untested fans are discounted by what three tested ones have shown, and doubted by their range', () => {
    const shelf = [0.8, 0.9, 1].map((x, i): Fan => ({
      ...strong,
      id: `t${i}`,
      maxFlowM3s: 0.02,
      tests: [tested('1', { rpm: 2400, flowM3s: 0.02 * x })],
    }))
    const shown = shelfShown(shelf)
    expect(shown.flow).toMatchObject({
      median: expect.closeTo(0.9, 9),
      low: expect.closeTo(0.8, 9),
      high: expect.closeTo(1, 9),
      fans: 3,
    })
    const discounted = trustedFan(strong, 'discounted', shown)
    expect(lastFlow(model(discounted).curves.middle)).toBeCloseTo(0.018, 9)
    expect(trustedFan(strong, 'own', shown)).toBe(strong)
    expect(trustedFan(strong, 'discounted', shelfShown(shelf.slice(0, 2)))).toBe(strong)
    expect(
      trustedFan({ ...strong, curveBasis: 'measured' }, 'discounted', { flow: shown.flow! }).trusted,
    ).toBeUndefined()
    const chance = (trust: 'claims' | 'discounted') =>
      planUncertainty({
        plan: plan((p) => {
          Object.assign(p.job, { trust, heatW: 330 })
        }),
        fans: [strong],
        shown,
      })!.chance!
    expect(chance('discounted')).toBeLessThan(chance('claims'))
  })
})

describe('what a shelf is narrowed to', () => {
  const passes = (filter: Partial<typeof noFilter>, fan: Fan = strong, place: Partial<Place> = {}) =>
    passesFilter(fan, { ...noFilter, ...filter }, { ...newPlace('here'), ...place })
  test.each([
    ['nothing narrows', {}, {}, true],
    ['owned', { owned: true }, {}, false],
    ['wires', { wires: 3 }, {}, false],
    ['wires that fit', { wires: 4 }, {}, true],
    ['an unknown connector', { connector: 'usb' }, {}, false],
    ['words', { text: ' WHIN ' }, {}, true],
    ['other words', { text: 'sorrel' }, {}, false],
    ['a price', { priceMost: 9 }, {}, false],
    ['another frame', { frameM: strong.frameM + 0.01 }, {}, false],
    ['the same frame', { frameM: strong.frameM }, {}, true],
    ['kind', { kind: 'blower' }, {}, false],
    ['depth', { fits: true }, { fitDepthM: 0.02 }, false],
    ['depth with parts', { fits: true }, { fitDepthM: 0.03, stackExtraM: 0.01 }, false],
    ['width', { fits: true }, { fitWidthM: 0.08 }, true],
    ['an unknown bearing', { bearing: 'no-sleeve' }, {}, false],
  ] as const)('%s', (_, filter, place, expected) => expect(passes(filter, strong, place)).toBe(expected))
  test('an owned fan passes any price, a calliper beats the sheet', () => {
    expect(passes({ priceMost: 1 }, { ...strong, owned: true })).toBe(true)
    expect(passes({ fits: true }, { ...strong, thicknessMeasuredM: 0.028 }, { fitDepthM: 0.026 })).toBe(false)
    expect(passes({ bearing: 'no-sleeve' }, { ...strong, bearing: 'ball' })).toBe(true)
  })
})

describe('the search', () => {
  const { selectionContext: context } = report(plan())
  const rank = (options: Partial<RankOptions>, fans: Fan[] = [strong, weak]) =>
    rankShelf(context, modelShelf(fans), { ...defaultRank, ...options })
  test('rails: only voltages that are there, among them an under-run fan of a higher voltage', () => {
    const high: Fan = {
      ...strong,
      id: 'high',
      ratedV: 24,
      startV: 9,
      minV: 7,
      points: strong.points.map((p) => ({ flowM3s: 3 * p.flowM3s, pressurePa: 9 * p.pressurePa })),
    }
    const rows = rank({ drive: 'rails', rails: [5, 12, 24], counts: [1], series: false }, [strong, high]).rows
    for (const c of rows) expect([5, 12, 24]).toContain(c.driveV)
    const under = rows.find((c) => c.fans[0]!.fanId === 'high')!
    expect(under.driveV).toBe(12)
    expect(sayIn(meritOf(context, single(high), under)!)).toContain('under-run')
  })
  test('the rails of a plan are its source, its converter and the common taps', () => {
    const p = plan()
    expect(railsOf(p)).toEqual([5, 12, 24])
  })
  test('rated and PWM', () => {
    for (const c of rank({ drive: 'rated' }).rows) expect(c.driveV).toBe(12)
    const pwm = rank({ drive: 'pwm' }).rows
    expect(new Set(pwm.flatMap((c) => c.fans.map((f) => f.fanId)))).toEqual(new Set(['strong']))
    for (const c of pwm) expect(c.duty).toBeGreaterThanOrEqual(0.3)
  })
  test('a pair is driven at what both stand and what starts both', () => {
    const low: Fan = { ...weak, id: 'low', ratedV: 12, maxV: 9, startV: 5 }
    const slow: Fan = { ...weak, id: 'slow', startV: 7 }
    const voltsOf = (of: Fan[]) => {
      const groups = of.map((f) => ({ ...single(f).groups[0]!, count: 1 }))
      return driveChoices(arrayOf(groups, 'parallel'), defaultRank).map((d) => d.volts)
    }
    expect(Math.max(...voltsOf([strong, low]))).toBeLessThanOrEqual(9)
    expect(Math.max(...voltsOf([strong, weak]))).toBe(12)
    expect(Math.min(...voltsOf([strong, slow]))).toBeGreaterThanOrEqual(1.2 * 7)
  })
  test('unlike pairs are tried side by side and behind each other', () => {
    const pairs = rank({ pairs: true }).rows.filter((c) => !c.ofOneKind)
    expect(new Set(pairs.map((c) => c.arrangement))).toEqual(new Set(['parallel', 'series']))
  })
  test('a huge shelf is looked at whole, the best rows are the same as when all are worked out', () => {
    const many = Array.from({ length: 60 }, (_, i): Fan => ({
      ...strong,
      id: `f${i}`,
      noiseDbA: 50 + ((i * 7) % 61) / 2,
      points: strong.points.map((p) => ({
        flowM3s: p.flowM3s * (0.5 + (i % 13) / 8),
        pressurePa: p.pressurePa * (0.5 + (i % 7) / 5),
      })),
    }))
    const all = rank({ rows: 1e6 }, many)
    const few = rank({ rows: 40 }, many)
    expect(few.arrays).toBe(all.arrays)
    expect(few.rows).toHaveLength(40)
    const usable = all.rows.filter((c) => c.verdict !== 'fail').slice(0, 15)
    expect(few.rows.slice(0, 15).map((c) => c.level!.value)).toEqual(usable.map((c) => c.level!.value))
  })
  test('weights: all on quiet is the quietest, all on price the cheapest', () => {
    const only = (key: keyof typeof evenWeights) => ({
      ...{ quiet: 0, margin: 0, power: 0, cheap: 0, thin: 0 },
      [key]: 1,
    })
    const first = (options: Partial<RankOptions>) => rank(options).rows[0]!
    expect(first({ objective: 'weights', weights: only('quiet') }).level!.value).toBe(
      first({ objective: 'quietest' }).level!.value,
    )
    expect(first({ objective: 'weights', weights: only('cheap') }).cost).toBe(
      first({ objective: 'cheapest' }).cost,
    )
  })
  test('the weighted score falls with each wish that is fulfilled', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 60, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 80, noNaN: true }),
        (level, powerW, cost) => {
          const c = { flow: 0.01, level, powerW, cost, margin: 0.2, thicknessM: 0.025 }
          const base = weightedScore(c, { ...evenWeights, thin: 1 })
          for (const better of [
            { level: level - 1 },
            { powerW: powerW / 2 },
            { cost: cost - 1 },
            { margin: 0.4 },
            { thicknessM: 0.02 },
          ])
            expect(weightedScore({ ...c, ...better }, { ...evenWeights, thin: 1 })).toBeLessThan(base)
        },
      ),
    )
  })
})

describe('life', () => {
  test('ten kelvin more halve it in the short view', () => {
    expect(lifeAt(strong, 50)).toMatchObject({ low: 20000 })
    expect(lifeAt(strong, 40)).toEqual({ low: 40000, high: 40000 })
    expect(lifeAt({ ...strong, lifeH: null }, 40)).toBeNull()
  })
  test('more air is cooler air at the fan, and a longer life', () => {
    const at = (driveV: number) =>
      report(
        plan((p) => {
          driveAt(p, driveV)
        }),
      ).selection!.life!.value!
    expect(at(12)).toBeGreaterThan(at(7))
  })
})
