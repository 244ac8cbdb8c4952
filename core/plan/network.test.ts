import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { bandAt, elementWhatIfs, planUncertainty, tradeoffsOf, variants } from '#core/advice'
import {
  branchFlows,
  calibrate,
  elementDrop,
  elementFlows,
  endArea,
  fanFlowFor,
  localResistance,
  modelPath,
  pathDrop,
  pathUncertainty,
  usefulShare,
} from '#core/system'
import { computeReport } from './report'
import { concernedElements } from '#core/rules'
import {
  newCalibration,
  newElement,
  newFan,
  newStreamPlan,
  newSplit,
  type Branch,
  type Calibration,
  type ElementKind,
  type Fan,
  type PathElement,
  type StreamPlan,
} from '#core/document'
import { airState } from '#core/air'
import { quadraticParallel } from '#core/airpath'
import { leakyBox, makeCurve } from '#core/fan'
import { pick, selectionOf } from '../../tests/plans'

const air = airState(20, 0, 0.5)!
const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const el = (id: string, kind: ElementKind, rest: Partial<PathElement> = {}): PathElement => ({
  ...newElement(id, kind),
  ...rest,
})
const custom = (id: string, b: number, branchId: string | null = null) =>
  el(id, 'custom', { a: 0, b, branchId })
const way = (id: string, leak = false): Branch => ({ id, splitId: 'split', name: id, leak, times: 1 })
const split = el('split', 'split')
const points = [
  [0, 60],
  [0.006, 52],
  [0.012, 40],
  [0.018, 20],
  [0.022, 0],
].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! }))
const fan: Fan = { ...newFan('f'), model: 'Whin 80', ratedA: 0.2, points }

/** A fan drawing out of a box by an intake and a leak, all quadratic. */
const box = (bIn: number, bLeak: number, bOut: number) => ({
  path: [
    split,
    custom('in', bIn, 'wanted'),
    custom('crack', bLeak, 'leak'),
    el('fan', 'fan'),
    custom('out', bOut),
  ],
  branches: [way('wanted'), way('leak', true)],
})
function planOf(
  part: { path: PathElement[]; branches: Branch[] },
  change: (p: StreamPlan) => void = () => {},
): StreamPlan {
  const plan = { ...newStreamPlan('j', 'Box'), ...part }
  Object.assign(plan.job, {
    goal: 'quieten',
    keepBasis: 'typed',
    typedFlowM3s: 0.008,
    ambientC: 20,
    altitudeM: 0,
    humidity: 0.5,
  })
  pick(plan, selectionOf('f'), 12)
  change(plan)
  return plan
}
const reportOf = (plan: StreamPlan) => {
  const result = computeReport({ shown: null, plan, fans: [fan] })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const density = air.density / 1.2

describe('ways side by side', () => {
  test('share one drop; the closed form of quadratic ways agrees', () => {
    const model = modelPath(box(4e5, 1e6, 2e5), air)
    const b = (quadraticParallel([4e5, 1e6]) + 2e5) * density
    expect(pathDrop(model, 0.01) / (b * 1e-4)).toBeCloseTo(1, 3)
    const flows = branchFlows(model.main[0]!, 0.01)
    expect(flows[0]! + flows[1]!).toBeCloseTo(0.01, 6)
    expect(flows[0]! / flows[1]!).toBeCloseTo(Math.sqrt(1e6 / 4e5), 4)
  })
  test('an exhaust fan on a leaky box: same flows as the two-opening formula', () => {
    const made = makeCurve(points.map((p) => ({ q: p.flowM3s, p: p.pressurePa * density })))
    if (!made.ok) throw new Error(made.message)
    const expected = leakyBox(made.curve, 4e5 * density, 2e5 * density, 1e6 * density)!
    const report = reportOf(planOf(box(4e5, 1e6, 2e5)))
    expect(report.selection!.served.value! / expected.wanted).toBeCloseTo(1, 3)
    expect(report.path.useful!.value! / (expected.wanted / report.selection!.candidate.flow!)).toBeCloseTo(1, 3)
    expect(report.ribbon.find((s) => s.kind === 'split')!.gaugePa! / expected.boxPressure).toBeCloseTo(1, 2)
  })
  test('what leaks must be moved too: the fan is asked for more than the job', () => {
    const model = modelPath(box(4e5, 1e6, 2e5), air)
    const asked = fanFlowFor(model, 0.008)
    expect(asked * usefulShare(model, asked)).toBeCloseTo(0.008, 9)
    expect(asked).toBeGreaterThan(0.008)
    expect(reportOf(planOf(box(4e5, 1e6, 2e5))).selectionContext.needFlow).toBeCloseTo(asked, 9)
  })
  test('a duct in a way: the local fit meets drop and slope', () => {
    const part = {
      path: [
        split,
        el('hose', 'duct', { diameterM: 0.05, lengthM: 2, surface: 'hose', branchId: 'a' }),
        custom('hole', 3e6, 'b'),
        custom('out', 1e5),
      ],
      branches: [way('a'), way('b')],
    }
    const model = modelPath(part, air)
    expect(model.complete).toBe(true)
    for (const q of [0.003, 0.01, 0.02]) {
      const { a, b, staticHead } = localResistance(model, q)
      expect(staticHead + (a + b * q) * q).toBeCloseTo(pathDrop(model, q), 6)
      const slope = (pathDrop(model, q * 1.001) - pathDrop(model, q * 0.999)) / (0.002 * q)
      expect((a + 2 * b * q) / slope).toBeCloseTo(1, 2)
      const flows = elementFlows(model, q)
      expect(flows.get('hose')! + flows.get('hole')!).toBeCloseTo(q, 6)
      expect(
        elementDrop(
          model.elements.find((e) => e.element.id === 'hose')!,
          flows.get('hose')!,
        ) / elementDrop(model.main[0]!, q),
      ).toBeCloseTo(1, 2)
    }
  })
  test('shares of what the path takes add up to one, ways or not', () => {
    const shares = reportOf(planOf(box(4e5, 1e6, 2e5))).path.elements.map((e) => e.share ?? 0)
    expect(shares.reduce((s, x) => s + x, 0)).toBeCloseTo(1, 2)
  })
  test.each([
    [
      'one way only',
      { path: [split, custom('x', 1e5, 'wanted')], branches: [way('wanted')] },
      'a second way, or how many stand alike',
    ],
    [
      'an empty way',
      { path: [split, custom('x', 1e5, 'wanted')], branches: [way('wanted'), way('other')] },
      'an element in “other”',
    ],
    [
      'a way without its size',
      {
        path: [split, custom('x', 1e5, 'wanted'), el('y', 'opening', { branchId: 'other' })],
        branches: [way('wanted'), way('other')],
      },
      'the size of an element in it',
    ],
  ])('%s is not counted', (_, part, missing) => {
    const model = modelPath(part, air)
    expect(model.complete).toBe(false)
    expect(model.main[0]!.missing).toBe(missing)
  })
})

describe('properties of any path', () => {
  const kinds = fc.constantFrom<PathElement>(
    el('a', 'opening', { areaM2: 0.006 }),
    el('b', 'grille', { areaM2: 0.01, freeAreaRatio: 0.5 }),
    el('c', 'filter', { areaM2: 0.03, medium: 'coarse' }),
    el('d', 'duct', { diameterM: 0.08, lengthM: 1, surface: 'hose' }),
    el('e', 'bend', { diameterM: 0.08, style: 'mitre' }),
    el('f', 'reducer', { diameterM: 0.1, diameter2M: 0.06 }),
    el('g', 'damper', { diameterM: 0.08, angleDeg: 30 }),
    el('h', 'flap', { diameterM: 0.08 }),
    el('i', 'slot', { widthM: 0.2, gapM: 0.006, lengthM: 0.02 }),
    el('k', 'fins', { count: 12, gapM: 0.003, heightM: 0.03, lengthM: 0.08 }),
    el('l', 'adapter', { widthM: 0.03, heightM: 0.025, diameter2M: 0.04 }),
    el('m', 'hood', { diameterM: 0.08 }),
    el('n', 'outlet', { diameterM: 0.08, style: 'louvre' }),
    el('o', 'wye', { diameterM: 0.08 }),
    el('p', 'filter', { areaM2: 0.02, medium: 'bed', lengthM: 0.03, grainM: 0.003 }),
    el('r', 'duct', { widthM: 0.1, heightM: 0.03, lengthM: 0.5, diameterM: null }),
  )
  const rows = fc.uniqueArray(kinds, { minLength: 1, maxLength: 6, selector: (e) => e.id })
  const drop = (path: PathElement[], q: number) => pathDrop(modelPath({ path, branches: [] }, air), q)
  test('the loss grows with the flow', () => {
    fc.assert(
      fc.property(rows, positive(1e-4, 0.05), (path, q) => {
        expect(drop(path, q * 1.02)).toBeGreaterThan(drop(path, q))
      }),
    )
  })
  test('a chamber and one more element never raise the flow', () => {
    fc.assert(
      fc.property(rows, kinds, (path, extra) => {
        const more = [...path, el('room', 'chamber', { areaM2: 0.5 }), { ...extra, id: 'extra' }]
        const flow = (p: PathElement[]) =>
          reportOf(planOf({ path: p, branches: [] })).selection!.candidate.flow ?? 0
        expect(flow(more)).toBeLessThanOrEqual(flow([...path, el('room', 'chamber', { areaM2: 0.5 })]) + 1e-9)
      }),
      { numRuns: 30 },
    )
  })
  test('another opening beside one never lowers the flow', () => {
    fc.assert(
      fc.property(positive(1e5, 1e7), positive(1e5, 1e8), (b1, b2) => {
        const alone = reportOf(planOf({ path: [custom('in', b1), custom('out', 2e5)], branches: [] }))
          .selection!.candidate.flow!
        const both = reportOf(
          planOf({
            path: [split, custom('in', b1, 'x'), custom('in2', b2, 'y'), custom('out', 2e5)],
            branches: [way('x'), way('y')],
          }),
        ).selection!.candidate.flow!
        expect(both).toBeGreaterThanOrEqual(alone * (1 - 1e-4))
      }),
      { numRuns: 30 },
    )
  })
  test('a fan behind a guard and a short duct delivers about two thirds of its free air (common practice, no source)', () => {
    const part = {
      path: [
        el('g', 'grille', { areaM2: 0.0064, freeAreaRatio: 0.55 }),
        el('fan', 'fan'),
        el('d', 'duct', { diameterM: 0.08, lengthM: 0.5 }),
      ],
      branches: [],
    }
    const share = reportOf(planOf(part)).selection!.candidate.flow! / 0.022
    expect(share).toBeGreaterThan(0.5)
    expect(share).toBeLessThan(0.85)
  })
  test('60 elements are one plan like any other', () => {
    const path = Array.from({ length: 60 }, (_, i) => custom(`c${i}`, 5e3))
    const report = reportOf(planOf({ path, branches: [] }))
    expect(report.ribbon).toHaveLength(62)
    expect(report.selection!.candidate.flow).toBeGreaterThan(0)
  })
})

describe('calibrating', () => {
  const part = { path: [custom('in', 4e5), el('fan', 'fan'), custom('out', 2e5)], branches: [] }
  const withCalibration = (rest: Partial<Calibration>) =>
    planOf(part, (p) => {
      p.calibration = { ...newCalibration('c'), fanId: 'f', volts: 12, ...rest }
    })
  test('pairs on twice the guess give a factor of two, and the plan follows', () => {
    const pairs = [0.004, 0.008, 0.012].map((q) => ({ flowM3s: q, pressurePa: 2 * 6e5 * density * q * q }))
    const report = reportOf(withCalibration({ kind: 'pairs', points: pairs }))
    expect(report.path.calibration!.factor).toBeCloseTo(2, 6)
    expect(report.path.calibration!.exponent).toBeCloseTo(2, 6)
    expect(report.path.calibration!.residuals.every((r) => Math.abs(r.measured - r.scaled) < 1e-9)).toBe(true)
    expect(report.path.guessDrop! * 2).toBeCloseTo(report.path.drop.value!, 6)
    expect(pathUncertainty(report.path.model, 0.01)).toBeLessThan(0.1)
    expect(report.selection!.candidate.flow!).toBeLessThan(reportOf(planOf(part)).selection!.candidate.flow!)
  })
  test('a delivered flow puts the operating point where it was measured', () => {
    const report = reportOf(withCalibration({ kind: 'flow', flowM3s: 0.0095 }))
    expect(report.selection!.candidate.flow).toBeCloseTo(0.0095, 6)
    expect(report.path.calibration!.figure.low!).toBeLessThan(report.path.calibration!.factor!)
  })
  test('heat and rise are a flow by another road', () => {
    const rise = 5
    const flow = 60 / (air.density * 1006 * rise)
    const report = reportOf(withCalibration({ kind: 'rise', heatW: 60, riseK: rise }))
    expect(report.selection!.candidate.flow! / flow).toBeCloseTo(1, 3)
  })
  test('not used: the guess counts, the factor is still told', () => {
    const report = reportOf(withCalibration({ kind: 'flow', flowM3s: 0.0095, used: false }))
    expect(report.path.model.factor).toBe(1)
    expect(report.path.calibration!.factor).not.toBeNull()
  })
  test.each([
    [{ kind: 'flow' as const }, 'Type the flow'],
    [{ kind: 'flow' as const, flowM3s: 0.05 }, 'more air than this fan'],
    [{ kind: 'flow' as const, flowM3s: 0.01, fanId: 'gone' }, 'Choose the fan'],
    [{ kind: 'flow' as const, flowM3s: 0.01, volts: 1 }, 'stands still'],
    [{ kind: 'pairs' as const }, 'Add a flow'],
    [{ kind: 'rise' as const, heatW: 60 }, 'Type the heat'],
  ])('%j asks instead of guessing', (rest, message) => {
    const { report, path } = calibrate(withCalibration(rest), modelPath(part, air), air, [fan])
    expect(report!.problem).toContain(message)
    expect(report!.factor).toBeNull()
    expect(path.factor).toBe(1)
  })
  test('a factor that no list explains is a finding', () => {
    const ids = reportOf(
      withCalibration({ kind: 'pairs', points: [{ flowM3s: 0.01, pressurePa: 6e5 * 8 * 1e-4 }] }),
    ).findings.findings.map((f) => f.id)
    expect(ids).toContain('path-factor-odd')
  })
})

describe('doubt, sampled', () => {
  const plan = planOf(box(4e5, 1e6, 2e5), (p) => {
    Object.assign(p.job, { goal: 'cool', heatW: 60, heatBasis: 'estimate', insideMaxC: 40 })
  })
  test('the same seed gives the same answer, another nearly', () => {
    const one = planUncertainty({ shown: null, plan, fans: [fan] }, 400, 7)!
    expect(planUncertainty({ shown: null, plan, fans: [fan] }, 400, 7)).toEqual(one)
    const other = planUncertainty({ shown: null, plan, fans: [fan] }, 400, 8)!
    expect(other.need!.middle / one.need!.middle).toBeCloseTo(1, 1)
  })
  test('the band holds the middle and grows with the flow', () => {
    const { band } = planUncertainty({ shown: null, plan, fans: [fan] })!
    const model = modelPath(plan, air)
    for (const [i, p] of band.entries()) {
      const drop = pathDrop(model, p.flow)
      expect(p.low).toBeLessThan(drop)
      expect(p.high).toBeGreaterThan(drop)
      if (i) expect(p.high).toBeGreaterThan(band[i - 1]!.high)
    }
  })
  test('between its points the band has no steps', () => {
    const { band } = planUncertainty({ shown: null, plan, fans: [fan] })!
    const model = modelPath(plan, air)
    const at = (q: number) => bandAt(band, q, pathDrop(model, q), (x) => pathDrop(model, x))
    for (const p of band) {
      expect(at(p.flow).high).toBeCloseTo(p.high, 6)
      expect(at(p.flow * 1.0001).high / at(p.flow * 0.9999).high).toBeCloseTo(1, 2)
    }
    expect(bandAt([], 0.01, 5, () => 5)).toEqual({ low: 5, high: 5 })
  })
  test('a guessed heat of ±30 % is that range of need, nine times of ten', () => {
    const { need } = planUncertainty({ shown: null, plan, fans: [fan] }, 2000)!
    const flow = reportOf(plan).need.flow.value!
    expect(need!.low / flow).toBeCloseTo(0.7, 1)
    expect(need!.high / flow).toBeCloseTo(1.3, 1)
  })
  test('chance goes from sure to hopeless as the need grows', () => {
    const chance = (heat: number) =>
      planUncertainty({ shown: null, plan: { ...plan, job: { ...plan.job, heatW: heat } }, fans: [fan] })!
        .chance!
    expect(chance(15)).toBe(1)
    expect(chance(400)).toBe(0)
    expect(chance(150)).toBeGreaterThan(chance(200))
  })
  test('the picked flow’s middle is the operating point', () => {
    const uncertainty = planUncertainty({ shown: null, plan, fans: [fan] }, 1000)!
    expect(uncertainty.flow!.middle / reportOf(plan).selection!.served.value!).toBeCloseTo(1, 1)
    expect(uncertainty.flow!.low).toBeLessThan(uncertainty.flow!.high)
  })
  test('without path or need there is nothing to tell', () => {
    const empty = planUncertainty({ shown: null, plan: newStreamPlan('j', 'x'), fans: [] })!
    expect(empty).toMatchObject({ need: null, band: [], flow: null, chance: null })
  })
})

describe('what if, schools, openings', () => {
  const row = [
    el('in', 'grille', { areaM2: 0.012, freeAreaRatio: 0.4 }),
    el('f', 'filter', { areaM2: 0.02, medium: 'fine', loadFactor: 2 }),
    el('fan', 'fan'),
    el('box', 'chamber', { areaM2: 0.1 }),
    el('hose', 'duct', { diameterM: 0.08, lengthM: 2, surface: 'hose', slack: 3 }),
  ]
  const plan = planOf({ path: row, branches: [] }, (p) => {
    p.job.heatW = 50
  })
  test('every change of the filter lowers the drop, and taking it out most', () => {
    const model = modelPath(plan, air)
    const list = elementWhatIfs(plan, air, model, row[1]!, 0.008, () => null)
    expect(list.map((w) => w.key)).toEqual(['area', 'grade', 'clean', 'remove'])
    for (const w of list) expect(w.dropPa).toBeLessThan(pathDrop(model, 0.008))
    expect(Math.min(...list.map((w) => w.dropPa))).toBe(list.at(-1)!.dropPa)
  })
  test('a chamber and the fan have nothing to try, a hose has much', () => {
    expect(variants(row[3]!, 'cool')).toEqual([])
    expect(variants(row[2]!, 'cool')).toEqual([])
    expect(variants(row[4]!, 'cool').map((v) => v.key)).toEqual(['bore', 'stretch', 'smooth', 'half', 'remove'])
  })
  test('push and pull have the box on the two sides of the room’s pressure', () => {
    const [pushPull, outside, several] = tradeoffsOf(plan, modelPath(plan, air), air, 0.008)
    expect(pushPull!.ways[0]!.figures[0]!.value!).toBeGreaterThan(0)
    expect(pushPull!.ways[1]!.figures[0]!.value!).toBeLessThan(0)
    expect(pushPull!.ways[1]!.figures[1]!.value!).toBeGreaterThan(pushPull!.ways[0]!.figures[1]!.value!)
    expect(outside!.ways[0]!.figures[0]!.value!).toBeGreaterThan(0)
    expect(several!.ways[1]!.figures[0]!.value!).toBeGreaterThan(several!.ways[0]!.figures[0]!.value!)
    expect(tradeoffsOf(plan, modelPath(plan, air), air, null)).toEqual([])
  })
  test('free area of both ends, ways added up', () => {
    expect(endArea(plan, 'in')).toBeCloseTo(0.0048, 9)
    expect(endArea(plan, 'out')).toBeCloseTo((Math.PI / 4) * 0.0064, 9)
    const two = planOf({
      path: [
        split,
        el('a', 'opening', { areaM2: 0.002, branchId: 'x' }),
        el('b', 'slot', { widthM: 0.1, gapM: 0.01, branchId: 'y' }),
        custom('out', 1e5),
      ],
      branches: [way('x'), way('y')],
    })
    expect(endArea(two, 'in')).toBeCloseTo(0.003, 9)
    expect(endArea(two, 'out')).toBeNull()
  })
  test('a box without an opening on one side has no way in or out', () => {
    const ids = (path: PathElement[]) =>
      reportOf(planOf({ path, branches: [] })).findings.findings.map((f) => f.id)
    expect(ids([el('box', 'chamber', { areaM2: 0.1 }), el('fan', 'fan'), custom('out', 1e5)])).toContain(
      'air-no-way-in',
    )
    expect(
      ids([el('in', 'opening', { areaM2: 0.01 }), el('fan', 'fan'), el('box', 'chamber', { areaM2: 0.1 })]),
    ).toContain('air-no-way-out')
    expect(ids(row).filter((id) => id.startsWith('air-no-way'))).toEqual([])
  })
  test('a finding names its element', () => {
    expect(concernedElements(plan, 'air-grille-closed')).toEqual(['in'])
    expect(concernedElements(plan, 'air-duct-slack')).toEqual(['hose'])
    expect(concernedElements(plan, 'need-no-target')).toEqual([])
    expect(
      reportOf(plan)
        .path.elements.find((e) => e.id === 'hose')!
        .findings.map((f) => f.id),
    ).toContain('air-duct-slack')
  })
  test('a new split waits for its ways', () => {
    const made = newSplit('s', [
      { id: 'w1', name: 'One', leak: false },
      { id: 'w2', name: 'Two', leak: true },
    ])
    expect(made.branches.every((b) => b.splitId === 's')).toBe(true)
    expect(modelPath({ path: [made.element], branches: made.branches }, air).complete).toBe(false)
  })
})
