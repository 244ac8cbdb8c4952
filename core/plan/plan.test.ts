import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { computeReport, type Report } from './report'
import { defaultRank, modelShelf } from '#core/selection'
import { rankShelf } from '../../tests/ranked'
import { modelFan, pathDrop, pathUncertainty, localResistance } from '#core/system'
import {
  newTarget,
  newConverter,
  newElement,
  newFan,
  newFeedPart,
  newStreamPlan,
  newReading,
  newRun,
  newSource,
  type Fan,
  type StreamPlan,
} from '#core/document'
import { withAlso } from '#core/rules'
import { convertBy, driveAt, feedFrom, hang, pick, selectionOf, tell } from '../../tests/plans'

const m3h = (x: number) => x / 3600

// invented fan: curve typed from a sheet
const fan: Fan = {
  ...newFan('fan-a'),
  maker: 'Testmoor',
  model: 'Whin 80',
  ratedA: 0.2,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  noiseDbA: 28,
  noiseDistanceM: 1,
  price: 9,
  points: [
    [0, 34],
    [10, 31],
    [20, 26],
    [30, 19],
    [40, 10],
    [48, 0],
  ].map(([q, p]) => ({ flowM3s: m3h(q!), pressurePa: p! })),
}

function plan(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('job-t', 'Test box')
  Object.assign(p.job, {
    goal: 'cool',
    heatW: 60,
    heatBasis: 'measured',
    insideMaxC: 40,
    ambientC: 25,
    altitudeM: 0,
    humidity: 0,
  })
  p.path = [
    { ...newElement('in', 'grille'), areaM2: 0.006, freeAreaRatio: 0.5 },
    { ...newElement('fan', 'fan') },
    { ...newElement('box', 'chamber'), areaM2: 0.1 },
    { ...newElement('out', 'opening'), areaM2: 0.004, edge: 'sharp' },
  ]
  pick(p, selectionOf('fan-a'), 12)
  change(p)
  return p
}
function report(p: StreamPlan, fans = [fan]): Report {
  const result = computeReport({ shown: null, plan: p, fans })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const figureOf = (r: Report, key: string) =>
  [...(r.selection?.figures ?? []), ...r.power.figures].find((f) => f.key === key)!

describe('one chain, from the brief to the verdict', () => {
  test('need: 60 W and 15 K of rise in dry air at 25 degC', () => {
    // rho = 101325/(287.05*298.15) = 1.1839 kg/m3; Q = 60/(1.1839*1006*15) = 12.09 m3/h; margin 15 %
    const { need } = report(plan())
    expect(need.flow.value! * 3600).toBeCloseTo(12.09, 2)
    expect(need.design.value! * 3600).toBeCloseTo(12.09 * 1.15, 2)
  })
  test('path: grille by its free area, opening by Cd', () => {
    // intake grille s = 0.5: K = (1.207/0.5)^2 = 5.827; b1 = K rho/(2 A^2); b2 = rho/(2 (0.61 A)^2)
    const rho = 101325 / (287.05 * 298.15)
    const b = (5.8274 * rho) / (2 * 0.006 ** 2) + rho / (2 * (0.61 * 0.004) ** 2)
    const { path } = report(plan())
    expect(pathDrop(path.model, 0.01)).toBeCloseTo(b * 1e-4, 2)
    expect(path.elements.reduce((s, e) => s + (e.share ?? 0), 0)).toBeCloseTo(1, 9)
  })
  test('the operating point follows filter, voltage and altitude at once', () => {
    const base = report(plan()).selection!.candidate
    const filtered = report(plan((p) => p.path.splice(1, 0, { ...newElement('f', 'filter'), areaM2: 0.01 })))
      .selection!.candidate
    const slow = report(
      plan((p) => {
        driveAt(p, 8)
      }),
    ).selection!.candidate
    const high = report(
      plan((p) => {
        p.job.altitudeM = 2500
      }),
    )
    expect(filtered.flow!).toBeLessThan(base.flow!)
    expect(slow.flow!).toBeLessThan(base.flow!)
    expect(slow.level!.value).toBeLessThan(base.level!.value)
    expect(slow.powerW!).toBeLessThan(base.powerW!)
    // a purely quadratic path: thin air changes fan and path alike, the volume flow stays
    expect(high.selection!.candidate.flow! / base.flow!).toBeCloseTo(1, 6)
    expect(high.need.flow.value!).toBeGreaterThan(report(plan()).need.flow.value!)
    expect(base.flowLow!).toBeLessThan(base.flow!)
    expect(base.flowHigh!).toBeGreaterThan(base.flow!)
  })
  test('half speed is 15 dB quieter in the fan law', () => {
    const far = plan((p) => {
      p.path = [{ ...newElement('o', 'opening'), areaM2: 1 }]
      p.job.listenerM = 1
    })
    const loud = { ...fan, noiseDbA: 40, interceptV: 0, minV: 3, startV: 4 }
    const full = report(far, [loud]).selection!.candidate.level!.value
    driveAt(far, 6)
    expect(full - report(far, [loud]).selection!.candidate.level!.value).toBeCloseTo(15.05, 1)
  })
  test('duct friction is met exactly although the solver works with local fits', () => {
    const r = report(
      plan((p) =>
        p.path.push({ ...newElement('d', 'duct'), diameterM: 0.05, lengthM: 3, surface: 'hose', slack: 3 }),
      ),
    )
    const { candidate } = r.selection!
    expect(pathDrop(r.path.model, candidate.flow!)).toBeCloseTo(candidate.pressure!, 4)
    const local = localResistance(r.path.model, candidate.flow!)
    expect((local.a + local.b * candidate.flow!) * candidate.flow!).toBeCloseTo(
      pathDrop(r.path.model, candidate.flow!),
      6,
    )
    expect(pathUncertainty(r.path.model, candidate.flow!)).toBeGreaterThan(0.1)
  })
  test('power: converter input current, wire drop and share', () => {
    const r = report(
      plan((p) => {
        feedFrom(
          p,
          { ...newSource('s', 'rail'), nominalV: 24, lowV: 23, highV: 25, iMaxA: 0.5 },
          { wireAwg: 24, wireLengthM: 2 },
        )
        convertBy(p, { ...newConverter('c', 12), efficiency: 0.9, setFirst: true })
        hang(p, { ...newFeedPart('l', 'load', null), count: 2, currentA: 0.02 })
      }),
    )
    // 24 AWG: 84.22 ohm/km (ASTM B258): 2*2*0.08422 + 2 contacts of 10 mohm = 0.3569 ohm; V + R I(V) = 12
    const v = figureOf(r, 'power.fanV').value!
    const i = 0.2 * (v / 12) ** 1.3
    expect(v + 0.3569 * i).toBeCloseTo(12, 3)
    expect(figureOf(r, 'power.load').value).toBeCloseTo((12 * i) / (0.9 * 24) + 0.04, 4)
    expect(r.power.headroom).toBe('ok')
    expect(r.findings.passed).toContain('power-overload')
  })
  test('quieten keeps the air of the present fan', () => {
    const r = report(
      plan((p) => {
        Object.assign(p.job, {
          goal: 'quieten',
          keepBasis: 'existing-fan',
          existingFanId: 'fan-a',
          existingV: 12,
        })
      }),
    )
    expect(r.need.flow.value).toBeCloseTo(r.selection!.candidate.flow!, 9)
    const measured = report(
      plan((p) => {
        Object.assign(p.job, { goal: 'quieten', keepBasis: 'temperature', measuredRiseK: 15 })
      }),
    )
    expect(measured.need.flow.value! * 3600).toBeCloseTo(12.09, 2)
  })
})

describe('bad and missing input', () => {
  test('an empty job gives a report that asks, and never a number', () => {
    const r = report(newStreamPlan('job-e', 'Empty'), [])
    expect(r.need.flow.value).toBeNull()
    expect(r.need.missing).toBe('the heat inside')
    expect(r.selection).toBeNull()
    expect(r.path.complete).toBe(false)
    expect(r.findings.findings.map((f) => f.id)).toEqual(['need-no-target', 'path-none'])
  })
  test('no figure of any plan is NaN or infinite', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 80, noNaN: true }),
        fc.double({ min: 0, max: 20000, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        (ambientC, heatW, lowV, driveV) => {
          const result = computeReport({
            shown: null,
            plan: plan((p) => {
              Object.assign(p.job, { ambientC, heatW })
              feedFrom(
                p,
                { ...newSource('s', 'adapter'), nominalV: driveV, lowV, iMaxA: 1 },
                { wireAwg: 30, wireLengthM: 50 },
              )
            }),
            fans: [fan],
          })
          if (!result.ok) return
          const { need, power, selection } = result.report
          for (const f of [need.flow, need.design, ...power.figures, ...(selection?.figures ?? [])]) {
            for (const x of [f.value, f.low, f.high])
              expect(x === null || Number.isFinite(x), `${f.key} ${x}`).toBe(true)
          }
        },
      ),
    )
  })
  test('impossible air is refused in words', () => {
    expect(
      computeReport({
        shown: null,
        plan: plan((p) => {
          p.job.altitudeM = 12000
        }),
        fans: [],
      }),
    ).toMatchObject({ ok: false })
  })
  test('a fan without both its ends is estimated from its label, and one point is no curve', () => {
    expect(modelFan({ ...newFan('x'), maxFlowM3s: 0.01 })).toMatchObject({
      ok: true,
      model: { curves: { basis: 'estimated', fromLabel: 'size and airflow' } },
    })
    expect(modelFan({ ...newFan('x'), maxFlowM3s: 0.01, maxPressurePa: 20 })).toMatchObject({
      ok: true,
      model: { curves: { basis: 'estimated', fromLabel: '' } },
    })
    expect(modelFan({ ...newFan('x'), points: [{ flowM3s: 0, pressurePa: 3 }] })).toMatchObject({ ok: false })
  })
  test('a deleted fan leaves a reason', () => {
    expect(report(plan(), []).selectionProblem).toContain('no longer on the shelf')
  })
})

describe('findings of whole plans', () => {
  const ids = (p: StreamPlan) => withAlso(report(p).findings.findings).map((f) => f.id)
  test('a 12 V fan straight on 24 V is stopped', () => {
    const found = ids(
      plan((p) => {
        feedFrom(p, {
          ...newSource('s', 'adapter'),
          nominalV: 24,
          lowV: 22.8,
          highV: 25.2,
          iMaxA: 2,
          polarityChecked: false,
        })
      }),
    )
    expect(found).toEqual(
      expect.arrayContaining(['power-over-voltage', 'power-direct-too-high', 'wire-polarity-unchecked']),
    )
  })
  test('a fan below its start voltage, a closed grille, a target under ambient', () => {
    expect(
      ids(
        plan((p) => {
          driveAt(p, 4.5)
        }),
      ),
    ).toContain('fan-will-not-start')
    expect(
      ids(
        plan((p) => {
          p.path[0]!.freeAreaRatio = 0.2
        }),
      ),
    ).toContain('air-grille-closed')
    expect(
      ids(
        plan((p) => {
          p.job.insideMaxC = 20
        }),
      ),
    ).toContain('own-below-ambient')
  })
  test('at least 40 rules are judged on a well-described plan', () => {
    const r = report(
      plan((p) => {
        feedFrom(
          p,
          { ...newSource('s', 'adapter'), iMaxA: 1, polarityChecked: true, fuseFitted: true, fuseA: 0.5 },
          { wireAwg: 22, wireLengthM: 1 },
        )
        tell(p, {
          direction: 'in',
          fitDepthM: 0.03,
          fitWidthM: 0.1,
          inletClearM: 0.1,
          outletClearM: 0.1,
          openingGapM: 1,
          baffled: true,
          mustNotFail: false,
          mains: false,
          flammable: false,
          openFlue: false,
          wet: false,
          roomDbA: 25,
          ambientMaxC: 28,
        })
      }),
    )
    expect(r.findings.passed.length + r.findings.findings.length).toBeGreaterThanOrEqual(80)
  })
})

describe('ranking', () => {
  test('what meets the need comes first, quietest first, and every row that fails says why', () => {
    const strong = {
      ...fan,
      id: 'fan-b',
      model: 'Whin 80 loud',
      noiseDbA: 45,
      points: fan.points.map((p) => ({ flowM3s: p.flowM3s * 1.5, pressurePa: p.pressurePa * 2 })),
    }
    const weak = {
      ...fan,
      id: 'fan-c',
      model: 'Whin 40',
      points: fan.points.map((p) => ({ flowM3s: p.flowM3s / 9, pressurePa: p.pressurePa / 9 })),
    }
    const { selectionContext: context } = report(plan())
    const { rows, skipped, looked } = rankShelf(
      context,
      modelShelf([fan, strong, weak, { ...newFan('fan-d'), points: [{ flowM3s: 0, pressurePa: 3 }] }]),
      defaultRank,
    )
    expect(skipped.map((s) => s.fanId)).toEqual(['fan-d'])
    expect(looked).toBe(3 * 5 * 10)
    const good = rows.filter((r) => r.verdict !== 'fail')
    expect(rows.slice(0, good.length)).toEqual(good)
    const levels = good.map((r) => r.level!.value)
    expect(levels).toEqual([...levels].sort((a, b) => a - b))
    for (const r of rows.filter((x) => x.verdict === 'fail'))
      expect(r.reasons.some((x) => x.verdict === 'fail')).toBe(true)
    expect(rows.filter((r) => r.fans[0]!.fanId === 'fan-c' && r.count === 1)[0]!.reasons[0]!.text[0]).toContain(
      'lacks',
    )
  })
  test('the drive level is the lowest that gives the planned flow', () => {
    const { selectionContext: context } = report(plan())
    const [row] = rankShelf(context, modelShelf([fan]), { ...defaultRank, counts: [1], series: false }).rows
    expect(row!.flow!).toBeGreaterThanOrEqual(context.designFlow!)
    expect(row!.driveV).toBeLessThan(12)
  })
})

describe('verdict', () => {
  const withRuns = (change: (p: StreamPlan) => void = () => {}) =>
    plan((p) => {
      p.targets = [
        newTarget({ id: 't1', kind: 'temperature', limit: 40, place: 'inside' }, 'main'),
        newTarget({ id: 't2', kind: 'level', limit: 32, place: 'chair' }, 'main'),
      ]
      p.runs = [
        {
          ...newRun('a', 'baseline', '2026-01-01T10:00:00Z'),
          ambientC: 20,
          heatW: 60,
          soakS: 1800,
          distanceM: 1,
          lid: 'closed',
          backgroundDbA: 20,
          readings: [
            newReading('1', 'temperature', 'inside', 48),
            newReading('2', 'level', 'chair', 40),
            newReading('3', 'flow', 'outlet', 0.005),
          ],
        },
        {
          ...newRun('b', 'after', '2026-01-02T10:00:00Z'),
          ambientC: 24,
          heatW: 60,
          soakS: 1800,
          distanceM: 1,
          lid: 'closed',
          backgroundDbA: 20,
          instrument: 'class2',
          readings: [
            newReading('1', 'temperature', 'inside', 34),
            newReading('2', 'level', 'chair', 30),
            newReading('3', 'flow', 'outlet', 0.007),
          ],
        },
      ]
      change(p)
    })
  test('a rise is restated to the plan’s ambient and judged with its range', () => {
    // 10 K over 24 degC, plan at 25 degC: 35 degC
    const [t, l] = report(withRuns()).verdict.targets
    expect(t).toMatchObject({ verdict: 'met', measured: { value: 35 } })
    expect(l).toMatchObject({ verdict: 'met' })
    expect(
      report(
        withRuns((p) => {
          p.targets[0]!.limit = 35.5
        }),
      ).verdict.targets[0]!.verdict,
    ).toBe('not-decided')
    expect(
      report(
        withRuns((p) => {
          p.targets[0]!.limit = 30
        }),
      ).verdict.targets[0]!.verdict,
    ).toBe('not-met')
  })
  test('before against after: rise in K, dB as difference, flow in per cent of before', () => {
    const { comparisons, unfair } = report(withRuns()).verdict
    expect(comparisons[0]).toMatchObject({ asRise: true, before: 28, after: 10, difference: -18 })
    // 50 to 70 is +40 %, not 33 %
    expect(comparisons[2]!.change).toBeCloseTo(0.4, 9)
    expect(comparisons[1]!.change).toBeNull()
    // 10 dB sounds about twice as loud (common practice, no source)
    expect(comparisons[1]!.loudness).toBeCloseTo(0.5, 1)
    expect(unfair.map((u) => u.what)).toEqual(['ambient'])
  })
  test('a level under the background is an upper bound', () => {
    const r = report(
      withRuns((p) => {
        p.runs[1]!.backgroundDbA = 28.5
      }),
    ).verdict.targets[1]!
    expect(r.measured!.upperBoundOnly).toBe(true)
    expect(r.verdict).toBe('met')
  })
  test('without a run nothing is judged', () => {
    expect(
      report(
        withRuns((p) => {
          p.runs = []
        }),
      ).verdict.targets.map((t) => t.verdict),
    ).toEqual(['not-measured', 'not-measured'])
  })
})
