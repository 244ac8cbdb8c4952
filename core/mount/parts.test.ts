import { describe, expect, test } from 'vitest'
import {
  newElement,
  newFan,
  newFit,
  newStreamPlan,
  newThing,
  planSchema,
  type Fan,
  type Fit,
  seenAt,
  type PlacePlan,
  wholePlan,
} from '#core/document'
import { computeReport } from '#core/plan'
import { countPiece, piecesOf, type MountReport, type Piece } from './index'
import { pick, selectionOf, tell, type Told } from '../../tests/plans'

/** What stands round the fans in their place, by hand. Sizes are usual frames, made millimetres; fans are invented. */

const mm = (x: number) => x / 1000
const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  frameM: mm(80),
  thicknessM: mm(25),
  ratedRpm: 2400,
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
}
function planOf(fit: Partial<Fit> = {}, job: Told = {}): PlacePlan {
  const plan = newStreamPlan('j', 'Box')
  plan.path = [{ ...newElement('in', 'opening'), areaM2: 0.005 }, newElement('fan', 'fan')]
  pick(plan, selectionOf('f'), 12)
  tell(plan, { fit: { ...newFit('fit'), ...fit }, direction: 'out', ...job })
  expect(planSchema.safeParse(wholePlan(plan)).error?.issues ?? []).toEqual([])
  return seenAt(plan)
}
function reportOf(plan: PlacePlan, of = fan) {
  const r = computeReport({ plan, fans: [of], shown: null })
  if (!r.ok || !r.report.mount) throw new Error('no mount')
  return r.report
}
const mountOf = (...told: Parameters<typeof planOf>): MountReport => reportOf(planOf(...told)).mount!

describe('what is in the way', () => {
  const thing = (told: Partial<ReturnType<typeof newThing>>) => [{ ...newThing('t', 'Carriage'), ...told }]
  const roomOf = (told: Parameters<typeof thing>[0], fit: Partial<Fit> = {}) =>
    mountOf({ ...fit, things: thing(told) }).things[0]!.roomM
  test('inside: its place less its travel less what stands behind the panel', () => {
    expect(roomOf({ fromPanelM: mm(60), moving: true, travelM: mm(20) })).toBeCloseTo(mm(15), 9)
    expect(roomOf({ fromPanelM: mm(60), moving: true, travelM: mm(40) })).toBeCloseTo(mm(-5), 9)
    expect(roomOf({ fromPanelM: mm(60) }, { spacerM: mm(10) })).toBeCloseTo(mm(25), 9)
  })
  test('outside: guard and adapter stand there', () => {
    const outside = { fromPanelM: mm(30), side: 'outside' as const }
    expect(roomOf(outside, { guardM: mm(2) })).toBeCloseTo(mm(28), 9)
    expect(roomOf(outside, { guardM: mm(2), adapterLengthM: mm(40) })).toBeCloseTo(mm(-12), 9)
  })
  test('a travel that nobody told is not known, unless it strikes at rest', () => {
    expect(roomOf({ fromPanelM: mm(60), moving: true })).toBeNull()
    expect(roomOf({ fromPanelM: mm(20), moving: true })).toBeCloseTo(mm(-5), 9)
    expect(roomOf({})).toBeNull()
  })
})

describe('an opening that is there', () => {
  const openingOf = (told: Partial<Fit>, job: Told = {}) => mountOf(told, job).opening
  test('round: the disc of its blades at most, larger than the ring without the hub', () => {
    const round = openingOf({ opening: 'round' }, { holeM: mm(90) })!
    expect(round.areaM2).toBeCloseTo((Math.PI / 4) * 0.09 ** 2, 9)
    // blades of 74.4 mm
    expect(round.withinM2 / ((Math.PI / 4) * 0.0744 ** 2)).toBeCloseTo(1, 3)
    expect(round.ringM2).toBeLessThan(round.withinM2)
    expect(openingOf({ opening: 'round' })).toBeNull()
  })
  test('square: what lies within the blades is the circle; its corners stand open', () => {
    const square = openingOf({ opening: 'square', openingWidthM: mm(78), openingHeightM: mm(78) })!
    expect(square.areaM2).toBeCloseTo(0.078 ** 2, 9)
    expect(square.withinM2 / ((Math.PI / 4) * 0.0744 ** 2)).toBeCloseTo(1, 3)
    expect(square.corners).toBe(true)
  })
  test('oval: a slot with round ends', () => {
    const oval = openingOf({ opening: 'oval', openingWidthM: mm(60), openingHeightM: mm(30) })!
    // wholly within the blades but for its ends: 30 · 30 + π/4 · 30²
    expect(oval.areaM2).toBeCloseTo(30e-3 * 30e-3 + (Math.PI / 4) * 0.03 ** 2, 9)
    expect(oval.withinM2 / oval.areaM2).toBeCloseTo(1, 3)
    const standing = openingOf({ opening: 'oval', openingWidthM: mm(30), openingHeightM: mm(60) })!
    expect(standing.withinM2).toBeCloseTo(oval.withinM2, 6)
  })
})

describe('sizes, soft mounts, cable', () => {
  test('a calliper is surer than a name; a pocket is a millimetre larger', () => {
    const rows = mountOf({ sideMeasuredM: mm(79.8), spacingMeasuredM: mm(71.4) }).sizes
    const side = rows.find((r) => r.key === 'side')!
    expect([side.lowM, side.highM]).toEqual([expect.closeTo(mm(79.7), 9), expect.closeTo(mm(79.9), 9)])
    expect(side.pocketM).toBeCloseTo(mm(80.8), 9)
    const thickness = rows.find((r) => r.key === 'thickness')!
    expect(thickness.measuredM).toBeNull()
    expect(thickness.highM).toBeGreaterThan(mm(26))
    expect(rows.find((r) => r.key === 'spacing')!.pocketM).toBeNull()
  })
  test('soft mounts: 1 mm of give swings at 15.8 Hz, under 40 turns a second a fifth passes', () => {
    // √(9.81/0.001)/2π = 15.76 Hz; 1/((40/15.76)² − 1) = 0.184; a third of 40 Hz wants 1.4 mm
    const soft = mountOf({ sinkM: mm(1) }).soft!
    expect(soft.turnHz).toBeCloseTo(40, 6)
    expect(soft.ownHz).toBeCloseTo(15.76, 2)
    expect(soft.passes).toBeCloseTo(0.184, 2)
    expect(soft.wantedSinkM).toBeCloseTo(mm(1.4), 4)
  })
  test('a lead has its bends and the door', () => {
    const { grommet, neededM } = mountOf({ cableM: mm(4.5), routeM: 0.5, slackM: 0.2 }).cable
    expect(grommet?.holeM).toBeCloseTo(mm(8), 9)
    expect(neededM).toBeCloseTo(0.75, 9)
  })
})

describe('what can stay with another fan', () => {
  const keeps = (of: Fan) =>
    reportOf(
      planOf(
        { screwM: mm(40), panelM: mm(3), behindM: mm(20), panelWidthM: mm(100), panelHeightM: mm(100) },
        { holeM: mm(76), existingHolesM: mm(71.5), fitDepthM: mm(40), mountKind: 'screws' },
      ),
      of,
    ).mount!.keeps.map((k) => [k.what, k.stays])
  test('the same frame keeps all of it', () => {
    expect(keeps(fan)).toEqual([
      ['hole', true],
      ['screw holes', true],
      ['depth', true],
      ['screws in the drawer', true],
      ['panel', true],
    ])
  })
  test('a larger one needs another hole, other screw holes and a larger panel', () => {
    expect(keeps({ ...fan, frameM: mm(120) })).toEqual([
      ['hole', false],
      ['screw holes', false],
      ['depth', true],
      ['screws in the drawer', true],
      ['panel', false],
    ])
  })
})

describe('one chain: pieces of the place in the air path', () => {
  const guard: Partial<Fit> = { guard: 'mesh', guardOpeningM: mm(4), guardBarM: mm(1) }
  const piece = (plan: PlacePlan, key: Piece['key']) =>
    piecesOf(plan, reportOf(plan).mount!).find((p) => p.key === key)
  const count = (plan: PlacePlan, ...keys: Piece['key'][]) => {
    for (const key of keys) countPiece(plan, piece(plan, key)!)
  }
  const flow = (plan: PlacePlan) => reportOf(plan).selection!.candidate.flow!
  const ids = (plan: PlacePlan) => plan.path.map((e) => e.id.replace('-place-j', '').replace('-place-main', ''))

  test('guard, narrow hole, filter and adapter each take air, and stand on their side', () => {
    const plan = planOf(
      {
        ...guard,
        filterMedium: 'foam30',
        filterAreaM2: 0.01,
        adapterM: mm(60),
        adapterLengthM: mm(80),
      },
      { holeM: mm(66), fitDepthM: mm(45) },
    )
    let before = flow(plan)
    for (const key of ['guard', 'hole', 'filter', 'gap', 'adapter'] as const) {
      count(plan, key)
      expect(piece(plan, key)).toMatchObject({ own: true, off: false })
      // an adapter leads the air on: what was the way out before it no longer is
      if (key !== 'adapter') expect(flow(plan), key).toBeLessThan(before)
      else expect(flow(plan)).not.toBeCloseTo(before, 6)
      before = flow(plan)
    }
    expect(ids(plan)).toEqual(['in', 'fit-gap', 'fit-filter', 'fan', 'fit-hole', 'fit-guard', 'fit-adapter'])
    // blowing in, all stand the other way round
    const inwards = planOf(plan.place.fit!, { holeM: mm(66), fitDepthM: mm(45), direction: 'in' })
    count(inwards, 'adapter', 'hole', 'guard', 'gap', 'filter')
    // the opening before the fan is its hole
    expect(ids(inwards)).toEqual(['fit-adapter', 'fit-filter', 'fit-guard', 'in', 'fan', 'fit-gap'])
  })
  test('a guard’s share by its openings: (4/5)² of a mesh, 0.9069 of that of holes', () => {
    expect(mountOf(guard).guardShare).toBeCloseTo(0.64, 9)
    expect(mountOf({ ...guard, guard: 'perforated' }).guardShare).toBeCloseTo(0.5804, 4)
    expect(mountOf({ ...guard, guard: 'wire' }).guardShare).toBeCloseTo(0.8, 9)
    expect(mountOf({ ...guard, guardBarM: null }).guardShare).toBeNull()
  })
  test('what somebody drew for it is not counted twice, but can take its values', () => {
    const plan = planOf(guard, { holeM: mm(76) })
    plan.path.push({ ...newElement('mine', 'grille'), name: 'Mesh', areaM2: 0.004, freeAreaRatio: 0.5 })
    expect(piece(plan, 'guard')).toMatchObject({ own: false, off: true, found: { id: 'mine' } })
    count(plan, 'guard')
    expect(ids(plan)).toEqual(['in', 'fan', 'mine'])
    expect(plan.path.at(-1)).toMatchObject({ name: 'Mesh', freeAreaRatio: null, holeM: mm(4) })
    expect(piece(plan, 'guard')!.off).toBe(false)
  })
  test('another guard makes what is counted wrong', () => {
    const plan = planOf(guard)
    count(plan, 'guard')
    plan.place.fit!.guardBarM = mm(2)
    expect(piece(plan, 'guard')!.off).toBe(true)
  })
  test('a hole as wide as wanted, and an adapter between equal ends, cost nothing and are not offered', () => {
    const plan = planOf({ adapterM: mm(76), adapterLengthM: mm(40) }, { holeM: mm(76) })
    expect(piecesOf(plan, reportOf(plan).mount!)).toEqual([])
  })
  test('an adapter: ends by their area, its drop by Borda and Carnot', () => {
    // 80 mm square has the area of Ø 90.27: to Ø 60 over 50 mm is 16.8°, narrowing gently, K 0.075
    const { adapter } = mountOf({ adapterFrom: 'square', adapterM: mm(60), adapterLengthM: mm(50) })
    expect(adapter!.way).toBe('narrowing')
    expect(adapter!.steepDeg).toBeCloseTo(16.84, 2)
    expect(adapter!.k).toBeCloseTo(0.075, 9)
    const widening = mountOf({ adapterM: mm(100), adapterLengthM: mm(20) }, { holeM: mm(76) }).adapter!
    expect(widening).toMatchObject({ way: 'widening', tooSteep: true })
  })
})
