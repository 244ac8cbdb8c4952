import { describe, expect, test } from 'vitest'
import { airState } from '#core/air'
import { continuedPressure, pressureAt, pushPullBox } from '#core/fan'
import {
  newElement,
  newFan,
  newStreamPlan,
  newSplit,
  planSchema,
  type ElementKind,
  type Fan,
  type PathElement,
  type StreamPlan,
  wholePlan,
  placesInUse,
} from '#core/document'
import { defaultRank, modelShelf } from '#core/selection'
import { rankShelf } from '../../tests/ranked'
import { elementFlows, groupCurve, modelFan, type FanModel } from '#core/system'
import { computeReport, type Report } from '.'
import { labelsOf } from '#core/print'
import { pick, selectionOf, tell, type Picked } from '../../tests/plans'

/** Fans at two places of a box, and openings that stand several times. Invented fans. */
const points = (flow: number, pressure: number) =>
  [0, 0.3, 0.6, 0.85, 1].map((x) => ({ flowM3s: flow * x, pressurePa: pressure * (1 - x ** 1.4) }))
const fanOf = (model: string, flow: number, pressure: number, rest: Partial<Fan> = {}): Fan => ({
  ...newFan(model.replace(' ', '-')),
  model,
  frameM: 0.08,
  thicknessM: 0.025,
  ratedA: 0.15,
  noiseDbA: 28,
  noiseDistanceM: 1,
  curveBasis: 'measured',
  points: points(flow, pressure),
  ...rest,
})
const whin = fanOf('Whin 80', 0.02, 40)
const sedge = fanOf('Sedge 92', 0.026, 55, { frameM: 0.092, noiseDbA: 31 })
const fans = [whin, sedge]
const el = (id: string, kind: ElementKind, rest: Partial<PathElement> = {}): PathElement => ({
  ...newElement(id, kind),
  name: id,
  ...rest,
})
const opening = (id: string, areaM2: number, branchId: string | null = null) =>
  el(id, 'opening', { areaM2, branchId })

/** A cabinet: fans in the floor, fans at the back. */
function cabinet(picked: Partial<Picked> = {}): StreamPlan {
  const plan = newStreamPlan('cabinet', 'Cabinet')
  Object.assign(plan.job, { goal: 'cool', heatW: 80, insideMaxC: 38, ambientC: 24, altitudeM: 0 })
  plan.path = [
    opening('floor-slots', 0.012),
    el('floor', 'fan'),
    el('inside', 'chamber', { areaM2: 0.2 }),
    el('back', 'fan'),
    opening('back-slots', 0.009),
  ]
  pick(plan, selectionOf(picked.fanId ?? whin.id, { count: 4, arrangement: 'places', ...picked }), 12)
  return plan
}
function reportOf(plan: StreamPlan): Report {
  const checked = planSchema.safeParse(wholePlan(plan))
  if (!checked.success) throw new Error(JSON.stringify(checked.error.issues))
  const result = computeReport({ plan, fans, shown: null })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const pressureOf = (report: Report, id: string) => report.ribbon.find((s) => s.id === id)!
const air = airState(24, 0, 0.5)!

describe('fans at two places', () => {
  test('two in and two out: each fan carries half of the air, and the pressures of both places add', () => {
    const report = reportOf(cabinet())
    const { flow, pressure } = report.selection!.candidate
    const model = modelOf(whin)
    const one = groupCurve({ model, count: 1 }, 'places', { volts: 12, duty: null }, air)!
    expect(2 * pressureAt(one, flow! / 2)!).toBeCloseTo(pressure!, 6)
    // half of it at either place, so that the box lies between the room and the fans' half
    expect(pressureOf(report, 'floor').deltaPa).toBeCloseTo(pressure! / 2, 6)
    expect(pressureOf(report, 'back').deltaPa).toBeCloseTo(pressure! / 2, 6)
  })
  test('pressures along the row come back to the room’s; a stronger floor puts the box over it, a stronger back under', () => {
    const over = reportOf(cabinet({ count: 4, others: 1 }))
    const under = reportOf(cabinet({ count: 4, others: 3 }))
    for (const report of [over, under]) expect(report.ribbon.at(-2)!.gaugePa).toBeCloseTo(0, 3)
    expect(pressureOf(over, 'inside').gaugePa).toBeGreaterThan(0)
    expect(pressureOf(under, 'inside').gaugePa).toBeLessThan(0)
    expect(pressureOf(over, 'floor').fans).toMatchObject({ count: 3 })
    expect(pressureOf(over, 'back').fans).toMatchObject({ count: 1 })
  })
  test('the sealed limit of the supply and exhaust formula: the same flow and box pressure', () => {
    const report = reportOf(cabinet({ fanId: sedge.id, other: whin.id, count: 2 }))
    const coefficient = (id: string, q: number) => {
      const element = report.path.elements.find((e) => e.id === id)!
      return element.figure.value! / q ** 2
    }
    const q = report.selection!.candidate.flow!
    const drive = { volts: 12, duty: null }
    const curves = [sedge, whin].map((f) => groupCurve({ model: modelOf(f), count: 1 }, 'places', drive, air)!)
    // a crack so narrow that it hardly passes air
    const sealed = pushPullBox(
      curves[0]!,
      coefficient('floor-slots', q),
      curves[1]!,
      coefficient('back-slots', q),
      1e12,
    )!
    expect(sealed.boxPressure).toBeCloseTo(pressureOf(report, 'inside').gaugePa!, 1)
    expect(continuedPressure(curves[0]!, q)! + continuedPressure(curves[1]!, q)!).toBeCloseTo(
      report.selection!.candidate.pressure!,
      2,
    )
  })
  test('currents, cost and level count every fan of both places', () => {
    const { candidate } = reportOf(cabinet({ fanId: sedge.id, other: whin.id, count: 5, others: 3 })).selection!
    expect(candidate.currentA).toBeCloseTo(5 * 0.15, 9)
    expect(candidate.model).toBe('2 × Sedge 92 and 3 × Whin 80')
    const [a, b] = candidate.level!.pair!
    expect(a.parts.count).toBeCloseTo(10 * Math.log10(2), 9)
    expect(b.parts.count).toBeCloseTo(10 * Math.log10(3), 9)
    expect(candidate.level!.exact).toBeCloseTo(10 * Math.log10(10 ** (a.exact / 10) + 10 ** (b.exact / 10)), 9)
  })
  test('a place’s own limit is held against the fans that stand there', () => {
    const plan = cabinet({ fanId: sedge.id, other: whin.id, count: 2 })
    plan.path.find((e) => e.id === 'floor')!.widthM = 0.08
    const told = reportOf(plan).selection!.candidate.reasons.map((r) => r.text[0])
    expect(told).toContain('floor: frame of ')
    const turned = cabinet({ fanId: whin.id, other: sedge.id, count: 2 })
    turned.path.find((e) => e.id === 'floor')!.widthM = 0.08
    expect(reportOf(turned).selection!.candidate.reasons.map((r) => r.text[0])).not.toContain(
      'floor: frame of ',
    )
  })
  test('fans for one place are sought with those at the other one held', () => {
    const plan = cabinet()
    const { selectionContext } = reportOf(plan)
    const [floor, back] = placesInUse(plan)
    const others = [{ placeId: floor!.id, fanId: whin.id, count: 2 }]
    const place = { placeId: back!.id, others }
    const { rows } = rankShelf(selectionContext, modelShelf(fans), { ...defaultRank, places: true, place })
    expect(rows.length).toBe(2 * defaultRank.counts.length)
    for (const row of rows) {
      expect(row.arrangement).toBe('places')
      expect(row.fans[0]).toEqual(others[0])
      expect(row.fans[1]!.placeId).toBe(back!.id)
    }
    expect(new Set(rows.map((r) => r.fans[1]!.fanId))).toEqual(new Set([whin.id, sedge.id]))
  })
  test('what labels promise is told of fans alike, as many at each place; of others nobody can say', () => {
    const ofLabel = (picked: Partial<Picked> = {}) => reportOf(cabinet(picked)).streams[0]!.ofLabel
    expect(ofLabel()).toBeGreaterThan(0)
    expect(ofLabel({ others: 1 })).toBeNull()
    expect(ofLabel({ other: sedge.id })).toBeNull()
  })
  test('never more fans than one stream may have', () => {
    const plan = cabinet({ count: 15, others: 1 })
    const { selectionContext } = reportOf(plan)
    const [floor, back] = placesInUse(plan)
    const others = [{ placeId: floor!.id, fanId: whin.id, count: 14 }]
    const place = { placeId: back!.id, others }
    const { rows } = rankShelf(selectionContext, modelShelf(fans), { ...defaultRank, places: true, place })
    expect(new Set(rows.map((r) => r.count))).toEqual(new Set([15, 16]))
  })
  test('of one place alone nothing is held, and the other stays empty', () => {
    const plan = cabinet()
    const { selectionContext } = reportOf(plan)
    const [, back] = placesInUse(plan)
    const place = { placeId: back!.id, others: [] }
    const { rows } = rankShelf(selectionContext, modelShelf(fans), { ...defaultRank, places: true, place })
    expect(rows.length).toBeGreaterThan(0)
    for (const { fans } of rows) expect(fans.map((f) => f.placeId)).toEqual([back!.id])
  })
  test('a place that is put aside is passed as if nothing stood there; taken up again all is as before', () => {
    const plan = cabinet()
    const both = reportOf(plan).selection!.candidate
    const [floor, back] = placesInUse(plan)
    back!.aside = true
    const alone = reportOf(plan)
    expect(alone.selection!.candidate).toMatchObject({ count: 2, arrangement: 'parallel' })
    expect(alone.selection!.candidate.flow!).toBeLessThan(both.flow!)
    expect(pressureOf(alone, 'back')).toMatchObject({ fans: null, deltaPa: 0 })
    expect(alone.mounts.map((m) => m.place)).toEqual([floor!.id])
    back!.aside = false
    expect(reportOf(plan).selection!.candidate.flow).toBe(both.flow)
  })
  test('what one blows in the other draws out: neither side is starved, and each is labelled its own way', () => {
    const plan = cabinet()
    tell(plan, { direction: 'in' })
    placesInUse(plan)[1]!.direction = 'out'
    const report = reportOf(plan)
    expect(report.findings.findings.map((f) => f.id)).not.toContain('air-unbalanced')
    expect(
      labelsOf(plan, report, '2026-01-01')
        .filter((l) => l.arrow)
        .map((l) => l.lines),
    ).toMatchObject([
      [['blows in'], ['floor']],
      [['draws out'], ['back']],
    ])
  })
})

/** A roof with four outlets alike, so many fans in each. */
function roof(times: number, count: number, alone = false): StreamPlan {
  const plan = newStreamPlan('roof', 'Roof')
  Object.assign(plan.job, { goal: 'ventilate', ambientC: 24, altitudeM: 0, volumeM3: 20, airChangesPerH: 6 })
  const { element, branches } = newSplit('outlets', [{ id: 'one', name: 'Outlet', leak: false, times }])
  const share = alone ? 0.02 / 4 : 0.02
  plan.path = [
    opening('eaves', share),
    el('room', 'chamber'),
    ...(alone ? [] : [element]),
    el('fans', 'fan', { branchId: alone ? null : 'one' }),
    opening('outlet', 0.008, alone ? null : 'one'),
  ]
  plan.branches = alone ? [] : branches
  pick(plan, selectionOf(whin.id, { count, arrangement: count > 1 ? 'parallel' : 'single' }), 12)
  return plan
}
const modelOf = (fan: Fan): FanModel => {
  const made = modelFan(fan)
  if (!made.ok) throw new Error(made.reason)
  return made.model
}

describe('openings alike', () => {
  test('four outlets with a pair in each move four times the air of one with a quarter of the intake', () => {
    const whole = reportOf(roof(4, 8)).selection!.candidate
    const one = reportOf(roof(1, 2, true)).selection!.candidate
    expect(whole.flow! / one.flow!).toBeCloseTo(4, 6)
    expect(whole.pressure!).toBeCloseTo(one.pressure!, 6)
  })
  test('common elements see the sum, each opening its share', () => {
    const report = reportOf(roof(4, 8))
    const flows = elementFlows(report.path.model, report.selection!.candidate.flow!)
    expect(flows.get('eaves')! / flows.get('outlet')!).toBeCloseTo(4, 9)
    expect(report.path.elements.find((e) => e.id === 'outlet')!.flow).toBe(flows.get('outlet'))
    const shares = report.path.elements.map((e) => e.share ?? 0)
    expect(shares.reduce((sum, s) => sum + s, 0)).toBeCloseTo(1, 6)
    const outlets = report.ribbon.find((s) => s.id === 'outlets')!
    expect(outlets.branches[0]).toMatchObject({ times: 4 })
    expect(outlets.branches[0]!.segments[0]).toMatchObject({ kind: 'fan', fans: { count: 2 } })
    expect(report.ribbon.at(-2)!.gaugePa).toBeCloseTo(0, 3)
    expect(report.ribbon.find((s) => s.id === 'room')!.gaugePa).toBeLessThan(0)
  })
  test('delivered over the label is that of one fan', () => {
    const [stream] = reportOf(roof(4, 8)).streams
    expect(stream!.ofLabel).toBeCloseTo(stream!.flow! / (8 * 0.02), 9)
  })
  test('the search tries as many for every opening, up to sixteen', () => {
    const { selectionContext } = reportOf(roof(4, 8))
    const { rows } = rankShelf(selectionContext, modelShelf(fans), {
      ...defaultRank,
      counts: [1, 2, 3, 4, 5],
      pairs: true,
    })
    expect(new Set(rows.map((r) => r.count))).toEqual(new Set([4, 8, 12, 16]))
    expect(rows.every((r) => r.arrangement === 'parallel')).toBe(true)
  })
  test('six fans for four openings are told, beside the choice and as a finding', () => {
    const report = reportOf(roof(4, 6))
    expect(report.findings.findings.map((f) => f.id)).toContain('own-openings-uneven')
    expect(report.selection!.candidate.reasons.map((r) => r.text[0])).toContain(
      '6 fans cannot be shared out evenly to 4 openings',
    )
  })
  test('a fan in one of two unlike ways is refused where it stands', () => {
    const plan = roof(4, 8)
    plan.branches.push({ id: 'other', splitId: 'outlets', name: 'Other', leak: false, times: 1 })
    const checked = planSchema.safeParse(wholePlan(plan))
    expect(checked.success).toBe(false)
    expect(checked.error!.issues[0]).toMatchObject({ path: ['streams', 0, 'path'] })
  })
})
