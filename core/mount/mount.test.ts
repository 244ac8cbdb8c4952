import { describe, expect, test } from 'vitest'
import {
  newElement,
  newFan,
  newFit,
  newStreamPlan,
  planSchema,
  type Fan,
  type Fit,
  seenAt,
  type PlacePlan,
  type StockPart,
  wholePlan,
  type Blows,
} from '#core/document'
import { computeReport } from '#core/plan'
import { partsList } from '#core/supply'
import { countPiece, dropStale, piecesOf, staleOf, holeOption, type MountReport } from './index'
import { pick, selectionOf, tell, type Told } from '../../tests/plans'

/** A fan in its place, by hand. Sizes are the handbook's usual frames, made millimetres. */

const mm = (x: number) => x / 1000
// invented
const fan: Fan = {
  ...newFan('f'),
  maker: 'Testmoor',
  model: 'Whin 80',
  frameM: mm(80),
  thicknessM: mm(25),
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
}
function planOf(fit: Partial<Fit> = {}, job: Told = {}, count = 1): PlacePlan {
  const plan = newStreamPlan('j', 'Box')
  plan.path = [{ ...newElement('o', 'opening'), areaM2: 0.005 }, newElement('fan', 'fan')]
  pick(plan, selectionOf('f', { count, arrangement: count > 1 ? 'parallel' : 'single' }), 12)
  tell(plan, { fit: { ...newFit('fit'), ...fit }, ...job })
  expect(planSchema.safeParse(wholePlan(plan)).error?.issues ?? []).toEqual([])
  return seenAt(plan)
}
function mountOf(...told: Parameters<typeof planOf>): MountReport {
  const r = computeReport({ plan: planOf(...told), fans: [fan], shown: null })
  if (!r.ok || !r.report.mount) throw new Error('no mount')
  return r.report.mount
}
const stack: Partial<Fit> = {
  guardM: mm(1.2),
  panelM: mm(3),
  gasketM: mm(2),
  spacerM: mm(10),
  padM: mm(1),
  filterM: mm(5),
}

describe('the stack', () => {
  test('lies from the outside in; the gasket is pressed to half, pads count on both faces', () => {
    const m = mountOf(stack, { fitDepthM: mm(60), direction: 'out' })
    expect(m.layers.map((l) => [l.key, Number((l.thicknessM * 1000).toFixed(3))])).toEqual([
      ['guard', 1.2],
      ['panel', 3],
      ['gasket', 1],
      ['spacer', 10],
      ['pad', 1],
      ['fan', 25],
      ['far-pad', 1],
      ['filter', 5],
    ])
    // 1 + 10 + 1 + 25 + 1 + 5 behind the panel; 17 mm of 60 mm are left
    expect(m.neededM).toBeCloseTo(mm(43), 9)
    expect(m.leftM).toBeCloseTo(mm(17), 9)
  })
  test('what was told together takes the place of the pieces', () => {
    const m = mountOf(stack, { fitDepthM: mm(60), stackExtraM: mm(6) })
    expect(m.neededM).toBeCloseTo(mm(31), 9)
  })
  test('the gap costs by the side that faces it', () => {
    // 17 mm on blades of 74.4 mm: 0.23 of the diameter, a little nearer than a quarter
    const cost = (direction: Blows) => mountOf(stack, { fitDepthM: mm(60), direction }).cost!
    expect(cost('out').flowLow).toBeGreaterThan(0.1)
    expect(cost('out').noiseLow).toBeGreaterThan(5)
    expect(cost('in').flowLow).toBeLessThan(cost('out').flowLow)
    expect(cost('in').noiseLow).toBe(0)
    expect(mountOf(stack, { fitDepthM: mm(60), direction: null }).cost).toBeNull()
    expect(mountOf(stack, { fitDepthM: mm(30), direction: 'out' }).leftM).toBeLessThan(0)
  })
})

describe('screws', () => {
  const held = (mountKind: Told['mountKind'], fit: Partial<Fit> = {}) =>
    mountOf({ ...stack, spacerM: null, filterM: null, ...fit }, { mountKind }).screw!
  test('through both flanges: the whole frame with its pads', () => {
    // 1.2 + 3 + 1 + 1 + 25 + 1 = 32.2; two washers of 0.8, a nut of 3.2, two pitches of 0.7: 38.4, so 40
    const s = held('screws')
    expect(s.gripM).toBeCloseTo(mm(32.2), 9)
    expect(s.leastM).toBeCloseTo(mm(38.4), 9)
    expect(s.lengthM).toBeCloseTo(mm(40), 9)
  })
  test('on the near flange: one ear of 4 mm', () => {
    // 1.2 + 3 + 1 + 1 + 4 = 10.2, and 6.2 beyond it
    expect(held('near-flange').leastM).toBeCloseTo(mm(16.4), 9)
    expect(held('near-flange').lengthM).toBeCloseTo(mm(20), 9)
    // with a board 8 mm behind the flange no usual length holds and stays clear
    expect(held('near-flange', { behindM: mm(8) }).lengthM).toBeNull()
  })
  test('self-tapping: 5 to 6 mm in the ear, the blades behind it', () => {
    // 6.2 + 5 = 11.2, at most 12.2: 12
    expect(held('self-tapping').lengthM).toBeCloseTo(mm(12), 9)
    // one washer more of 0.8: 12 to 13, which no usual length is... 12 is
    expect(held('self-tapping', { washers: 1 }).lengthM).toBeCloseTo(mm(12), 9)
    expect(held('self-tapping', { washers: 2 }).lengthM).toBeNull()
  })
  test('held otherwise there are none to be worked out', () => {
    expect(mountOf({}, { mountKind: 'clips' }).screw).toBeNull()
  })
})

describe('holes and frames', () => {
  test('a hole: its share, its web, what it costs', () => {
    // 80 mm frame: wanted 76, pattern 71.5, screw holes 4.5
    const place = { wantedM: mm(76), spacingM: mm(71.5), screwHoleM: mm(4.5) }
    const exact = holeOption(place, mm(76), 0.01, 1.2)
    expect(exact).toMatchObject({ share: 1, dropPa: 0 })
    // 71.5/1.41421 - 38 - 2.25 = 10.31
    expect(exact.webM).toBeCloseTo(mm(10.308), 5)
    const small = holeOption(place, mm(0.9 * 76), 0.01, 1.2)
    // K 0.4 on 0.01 m3/s through 45.4 cm2: 2.204 m/s, 1.17 Pa
    expect(small.share).toBeCloseTo(0.81, 9)
    expect(small.dropPa).toBeCloseTo(1.166, 2)
    expect(holeOption(place, mm(50), 0.01, 1.2).dropPa).toBeNull()
    expect(holeOption(place, mm(110), 0.01, 1.2).webM).toBeLessThan(0)
  })
  test('a calliper tells the frame, or that it is another one', () => {
    const measured = (side: number, spacing: number) =>
      mountOf({ sideMeasuredM: mm(side), spacingMeasuredM: mm(spacing) })
    expect(measured(79.9, 71.4).measuredProblem).toBe('')
    expect(measured(91.9, 82.4).measuredProblem).toContain('a frame of 92 mm')
    expect(measured(100, 90).measuredProblem).toContain('No usual frame')
  })
  test('a guard’s least distance follows from its openings', () => {
    const guard = (opening: number, kind: Fit['guard'] = 'wire') =>
      mountOf({ guard: kind, guardOpeningM: mm(opening) }).guardM
    expect(guard(8)).toBeCloseTo(mm(20), 9)
    expect(guard(8, 'mesh')).toBeCloseTo(mm(15), 9)
    expect(guard(8, 'perforated')).toBeCloseTo(mm(5), 9)
    expect(guard(8, 'none')).toBeNull()
  })
})

describe('what is bought', () => {
  const stock = (kind: StockPart['kind'], name: string): StockPart => ({
    id: name.replaceAll(/\W+/g, '-'),
    kind,
    name,
    volts: null,
    amps: null,
    price: 5,
    owned: true,
    notes: '',
  })
  const rows = (mount: MountReport, drawer: StockPart[] = []) =>
    partsList(newStreamPlan('j', 'J'), { nodes: [], settled: true }, [], [], drawer, [mount]).rows
  test('four screws a fan, the gasket, and the saw where its size exists', () => {
    const mount = mountOf({ ...stack, spacerM: null, filterM: null }, { mountKind: 'screws', holeM: mm(76) }, 2)
    expect(rows(mount).map((r) => [r.what, r.count, r.owned])).toEqual([
      ['M4 × 40 mm', 8, false],
      ['Gasket', 2, false],
      ['Hole saw 76 mm', 1, false],
    ])
    const owned = rows(mount, [stock('screw', 'M4 × 40 mm'), stock('saw', 'Hole saw 76 mm')])
    expect(owned.map((r) => r.owned)).toEqual([true, false, true])
  })
  test('screws that lie in the drawer cost nothing; a hole of an odd size buys no saw', () => {
    const mount = mountOf({ screwM: mm(45) }, { mountKind: 'screws', holeM: mm(77) })
    expect(rows(mount).map((r) => [r.what, r.owned])).toEqual([['M4 × 45 mm', true]])
  })
})

describe('the gap in the air path', () => {
  const reportOf = (plan: PlacePlan) => {
    const r = computeReport({ plan, fans: [fan], shown: null })
    if (!r.ok) throw new Error(r.reason)
    return r.report
  }
  const tight = (depth: number, direction: Blows = 'out') => {
    const plan = planOf({}, { fitDepthM: mm(depth), direction })
    return { plan, mount: reportOf(plan).mount! }
  }
  const gapOf = (plan: PlacePlan, mount: MountReport) => piecesOf(plan, mount).find((p) => p.key === 'gap')
  const countGap = (plan: PlacePlan, mount: MountReport) => {
    const gap = gapOf(plan, mount)
    if (gap) countPiece(plan, gap)
  }
  const countedGap = (plan: PlacePlan) => plan.path.find((e) => e.id.startsWith('fit-gap'))
  const gapIsOff = (plan: PlacePlan, mount: MountReport) => gapOf(plan, mount)!.off
  const flow = (plan: PlacePlan) => reportOf(plan).selection!.candidate.flow!
  test('is the free ring, on the side that faces the wall, and moves the operating point', () => {
    // 10 mm left behind 25 mm of frame: π · 74.4 mm · 10 mm = 23.4 cm2
    const { plan, mount } = tight(35)
    const free = flow(plan)
    countGap(plan, mount)
    expect(countedGap(plan)).toMatchObject({ name: 'Gap before the fan' })
    expect(countedGap(plan)!.areaM2).toBeCloseTo(23.37e-4, 5)
    expect(plan.path.findIndex((e) => e.id.startsWith('fit-gap'))).toBe(
      plan.path.findIndex((e) => e.kind === 'fan') - 1,
    )
    expect(flow(plan)).toBeLessThan(0.95 * free)
    // and the noise goes by it: 10 mm before blades of 74 mm
    expect(plan.place.inletClearM).toBeCloseTo(mm(10), 9)
    expect(gapIsOff(plan, mount)).toBe(false)
  })
  test('blowing in it stands behind the fan; a deeper place makes it wrong, and correcting it leaves one', () => {
    const { plan, mount } = tight(35, 'in')
    countGap(plan, mount)
    expect(countedGap(plan)!.name).toBe('Gap behind the fan')
    plan.place.fitDepthM = mm(60)
    const deeper = reportOf(plan).mount!
    expect(gapIsOff(plan, deeper)).toBe(true)
    countGap(plan, deeper)
    expect(plan.path.filter((e) => e.id.startsWith('fit-gap'))).toHaveLength(1)
    expect(gapIsOff(plan, deeper)).toBe(false)
  })
  test('where nothing is left, or the depth is not told, none is counted', () => {
    const { plan, mount } = tight(20)
    countGap(plan, mount)
    expect(countedGap(plan)).toBeUndefined()
    // one that was counted before is named, and taken out
    const deep = tight(35)
    countGap(deep.plan, deep.mount)
    deep.plan.place.fitDepthM = mm(20)
    const stale = staleOf(deep.plan, piecesOf(deep.plan, reportOf(deep.plan).mount!))
    expect(stale.map((e) => e.name)).toEqual(['Gap before the fan'])
    dropStale(deep.plan, stale)
    expect(countedGap(deep.plan)).toBeUndefined()
  })
  test.each([
    [0.5, 0.02, 0.05],
    [0.25, 0.1, 0.2],
    [0.1, 0.3, 0.5],
  ])('at %d of the diameter it takes about what practice says', (ratio, least, most) => {
    const plan = planOf({}, { direction: 'out', fitDepthM: mm(25 + ratio * 0.93 * 80) })
    const free = flow(plan)
    countGap(plan, reportOf(plan).mount!)
    const lost = 1 - flow(plan) / free
    // an easy path is the worst case: a little over the upper end of the tabled range
    expect(lost).toBeGreaterThan(least)
    expect(lost).toBeLessThan(1.5 * most)
  })
})
