import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { computeReport, type Report } from '#core/plan'
import { inputRange } from '../doubts'
import { goalNeeds } from '../requirement'
import {
  newElement,
  newFan,
  newStreamPlan,
  newPort,
  type Uncertainty,
  type Fan,
  type Goal,
  type Job,
  type StreamPlan,
} from '#core/document'
import { pick, selectionOf, type Told, tell } from '../../../tests/plans'

const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 92',
  frameM: 0.092,
  ratedA: 0.2,
  points: [
    [0, 60],
    [0.01, 45],
    [0.02, 20],
    [0.028, 0],
  ].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! })),
}
function planFor(goal: Goal, job: Told, change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const plan = newStreamPlan('j', 'Job')
  tell(plan, { goal, ambientC: 20, altitudeM: 0, humidity: 0.5, ...job })
  plan.path = [
    { ...newElement('in', 'opening'), areaM2: 0.008 },
    newElement('fan', 'fan'),
    { ...newElement('box', 'chamber'), areaM2: 0.1 },
    { ...newElement('out', 'opening'), areaM2: 0.008 },
  ]
  pick(plan, selectionOf('f'), 12)
  change(plan)
  return plan
}
function report(goal: Goal, job: Told, change?: (p: StreamPlan) => void): Report {
  const result = computeReport({ shown: null, plan: planFor(goal, job, change), fans: [fan] })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const extra = (r: Report, key: string) => r.need.extras.find((f) => f.key === `need.${key}`)!
const m3h = (q: number | null) => q! * 3600

/** Inputs that settle each goal. */
const settled: Record<Goal, Told> = {
  cool: { heatW: 60, heatBasis: 'measured', insideMaxC: 40, wallLossWK: 1 },
  part: { heatW: 30, heatBasis: 'measured', partMaxC: 55 },
  ventilate: { volumeM3: 2, airChangesPerH: 20 },
  fume: { captureSpeedMs: 0.5, captureDistanceM: 0.1, nozzleAreaM2: 0.01 },
  stir: { volumeM3: 0.2, turnoversPerH: 50 },
  chill: { waterAreaM2: 0.2, waterC: 22, crossAreaM2: 0.02, coolingW: 40 },
  quieten: { keepBasis: 'typed', typedFlowM3s: 0.01 },
}
const sink = (p: StreamPlan) => {
  p.sink = [
    { flowM3s: 0.004, kPerW: 1.2 },
    { flowM3s: 0.016, kPerW: 0.6 },
  ]
}

describe('every goal', () => {
  const goals = Object.keys(settled) as Goal[]
  test.each(goals)('%s: asks while something is missing, then answers with its working', (goal) => {
    const nothing = report(goal, goal === 'quieten' ? { keepBasis: 'typed' } : {}, (p) => {
      p.path = []
    })
    expect(nothing.need.missing).not.toBeNull()
    expect(nothing.need.flow.value).toBeNull()
    const r = report(goal, settled[goal], sink)
    expect(r.need.missing).toBeNull()
    expect(r.need.flow.value).toBeGreaterThan(0)
    expect(r.need.flow.formula).not.toBe('')
    expect(r.need.flow.source).not.toBe('')
    expect(r.need.design.value!).toBeGreaterThan(r.need.flow.value!)
  })
  test.each(goals)('%s: a doubted input widens the need around its value', (goal) => {
    for (const key of goalNeeds[goal].uncertainties) {
      if (settled[goal][key] === undefined) continue
      const r = report(goal, settled[goal], (p) => {
        sink(p)
        p.uncertainties = [{ id: key, grade: 'good-guess', low: null, high: null }]
      })
      expect(r.need.flow.low!, key).toBeLessThanOrEqual(r.need.flow.value!)
      expect(r.need.flow.high!, key).toBeGreaterThanOrEqual(r.need.flow.value!)
      expect(r.need.flow.high!, key).toBeGreaterThan(r.need.flow.low!)
    }
  })
  test.each(goals)('%s: no figure of it is NaN, whatever is left out', (goal) => {
    const keys = Object.keys(settled[goal]) as (keyof Job)[]
    fc.assert(
      fc.property(fc.subarray(keys), (kept) => {
        const r = report(goal, Object.fromEntries(kept.map((k) => [k, settled[goal][k]])), sink)
        for (const f of [r.need.flow, r.need.design, ...r.need.extras])
          for (const x of [f.value, f.low, f.high]) expect(x === null || Number.isFinite(x)).toBe(true)
      }),
      { numRuns: 20 },
    )
  })
})

describe('cool a box', () => {
  test('both directions: the flow the plan gets gives the inside back', () => {
    const r = report('cool', settled.cool)
    // heat balance by hand: (60 - 1 x dt) = rho cp Q dt
    const q = r.selection!.served.value!
    const rise = 60 / (1 + r.air.density * 1006 * q)
    expect(extra(r, 'inside').value).toBeCloseTo(20 + rise, 6)
    expect(extra(r, 'closed').value).toBeCloseTo(80, 6)
  })
  test('below ambient there is no flow, and it says why', () => {
    const r = report('cool', { ...settled.cool, insideMaxC: 18, activeCooling: false })
    expect(r.need.flow.value).toBeNull()
    expect(r.need.flow.note).toContain('cannot cool below')
    expect(r.findings.findings.map((f) => f.id)).toContain('need-below-ambient')
  })
  test('with refrigeration it is no stop', () => {
    expect(
      report('cool', { ...settled.cool, insideMaxC: 18, activeCooling: true }).findings.findings.map(
        (f) => f.id,
      ),
    ).not.toContain('need-below-ambient')
  })
})

describe('cool a part', () => {
  test('35 K at 30 W wants the flow whose resistance is 1.167 K/W', () => {
    const r = report('part', settled.part, sink)
    expect(m3h(r.need.flow.value)).toBeCloseTo(m3h(0.004 * (1.2 / (35 / 30)) ** 2) / r.air.densityRatio, 6)
  })
  test('what the part’s inside takes, no air gives back', () => {
    const r = report('part', { ...settled.part, partInnerKPerW: 2 }, sink)
    expect(r.need.flow.value).toBeNull()
    expect(r.need.flow.note).toContain('no air cools that')
  })
})

describe('ventilate', () => {
  test('the strongest wish rules, and the others are told', () => {
    const r = report('ventilate', {
      volumeM3: 2,
      airChangesPerH: 5,
      co2M3s: 0.31e-3 / 60,
      co2Max: 800e-6,
      clearS: 1800,
    })
    // 0.31 L/min over 380 ppm: 49 m3/h; 10 m3/h by changes; 2 x 3/0.5 h x ln 20 = 36 m3/h to clear
    expect(m3h(r.need.flow.value)).toBeCloseTo((0.31e-3 / 60 / 380e-6) * 3600, 3)
    expect(r.need.flow.note).toContain('CO₂ rules')
    expect(m3h(extra(r, 'ask.clearOut').value)).toBeCloseTo(((2 * 3) / 0.5) * Math.log(20), 3)
    expect(extra(r, 'co2Reached').value!).toBeGreaterThan(420e-6)
  })
  test('moisture: damp fresh air takes nothing out, and the rule says so', () => {
    const dry = report('ventilate', {
      waterKgS: 0.05 / 3600,
      insideC: 24,
      insideRhMax: 0.6,
      ambientC: 10,
      humidity: 0.8,
    })
    expect(dry.need.flow.value).toBeGreaterThan(0)
    const damp = report('ventilate', {
      waterKgS: 0.05 / 3600,
      insideC: 20,
      insideRhMax: 0.5,
      ambientC: 26,
      humidity: 0.8,
    })
    expect(damp.need.missing).toContain('drier')
    expect(damp.findings.findings.map((f) => f.id)).toContain('need-brings-moisture')
  })
  test('a warm inside takes heat with the air and with the water', () => {
    const dry = { insideC: 40, insideRhMax: 0.4, waterKgS: 0.05 / 3600 }
    const r = report('ventilate', dry)
    // by hand: Q·ρ·cp·20 K, and 50 g an hour at about 2406 kJ/kg (steam tables, 40 °C)
    const warmth = extra(r, 'warmth')
    const flow = r.selection!.candidate.flow!
    expect(warmth.value).toBeCloseTo(flow * r.needEnv.air.density * 1006 * 20 + 33.4, 0)
    expect(warmth.low).toBeLessThan(warmth.value!)
    expect(warmth.high).toBeGreaterThan(warmth.value!)
    // nothing to keep warm
    expect(extra(report('ventilate', { ...dry, insideC: 20 }), 'warmth')).toBeUndefined()
    expect(extra(report('ventilate', { ...dry, insideC: null }), 'warmth')).toBeUndefined()
  })
  test('a surface near the dew point is a finding', () => {
    expect(
      report('ventilate', {
        ...settled.ventilate,
        insideC: 20,
        insideRhMax: 0.7,
        surfaceC: 15,
      }).findings.findings.map((f) => f.id),
    ).toContain('need-condensation')
  })
})

describe('fumes', () => {
  test('a nozzle twice as far wants nearly four times the air', () => {
    const at = (x: number) =>
      report('fume', { ...settled.fume, captureDistanceM: x, nozzleAreaM2: 0.001 }).need.flow.value!
    expect(at(0.2) / at(0.1)).toBeGreaterThan(3.9)
  })
  test('how far the nozzle may be: at that distance the flow gives just the speed', () => {
    const r = report('fume', settled.fume)
    const x = extra(r, 'nozzleReach').value!
    expect(0.5 * (10 * x * x + 0.01)).toBeCloseTo(r.selection!.served.value!, 6)
  })
  test('an enclosure: every opening counts, the stronger of face speed and pressure rules', () => {
    const face = report('fume', { fumeWay: 'enclosure', workOpeningM2: 0.02, faceSpeedMs: 0.5 })
    expect(face.need.flow.value).toBeCloseTo(0.01, 6)
    const leaky = report('fume', {
      fumeWay: 'enclosure',
      workOpeningM2: 0.02,
      faceSpeedMs: 0.5,
      leakAreaM2: 0.002,
    })
    expect(leaky.need.flow.value).toBeCloseTo(0.011, 6)
    const pressed = report('fume', { fumeWay: 'enclosure', leakAreaM2: 0.002, boxPressurePa: 5 })
    expect(pressed.need.flow.value).toBeCloseTo(0.61 * 0.002 * Math.sqrt(10 / pressed.air.density), 9)
  })
  test('too slow at the source, back into the room, leaking, near a window: each a finding', () => {
    const ids = report('fume', {
      ...settled.fume,
      captureDistanceM: 0.4,
      airOutlet: 'same-room',
      fumeRated: false,
      gasketed: false,
      outletToOpeningM: 1,
      carbonHours: 300,
      carbonLifeH: 200,
    })
      .findings.findings.flatMap((f) => [f, ...f.also])
      .map((f) => f.id)
    for (const id of [
      'need-capture-slow',
      'need-fume-recirculated',
      'air-fume-leaks',
      'air-outlet-near-opening',
      'air-carbon-spent',
    ])
      expect(ids).toContain(id)
  })
  test('the room behind: its own air changes clear it', () => {
    const r = report('fume', { ...settled.fume, roomVolumeM3: 50, roomChangesPerH: 2 })
    expect(extra(r, 'roomClear').value! / 3600).toBeCloseTo((3 / 2) * Math.log(20), 6)
  })
})

describe('stir', () => {
  test('turnover, heat and pull-down at the flow it gets', () => {
    const r = report('stir', {
      ...settled.stir,
      wallLossWK: 0.9,
      insideMaxC: 12,
      boxPowerW: 40,
      contentsJK: 40000,
      warmedK: 4,
      dutyShare: 0.5,
      cop: 1,
    })
    expect(extra(r, 'turnover').value).toBeCloseTo((r.selection!.served.value! * 3600) / 0.2, 6)
    expect(extra(r, 'stirEnergy').value! / 3600).toBeCloseTo(2.4 * 2 * 24 * 0.5, 3)
    expect(extra(r, 'fanRise').value).toBeCloseTo((2.4 * 0.5) / 0.9, 3)
    expect(extra(r, 'pullDown').value!).toBeGreaterThan(600)
  })
  test('a cooling that hardly holds the box never pulls it down', () => {
    const r = report('stir', {
      ...settled.stir,
      wallLossWK: 5,
      insideMaxC: 12,
      boxPowerW: 30,
      contentsJK: 40000,
      warmedK: 1.5,
    })
    expect(extra(r, 'pullDown').value).toBeNull()
    expect(extra(r, 'pullDown').note).toContain('hardly holds')
  })
})

describe('chill water', () => {
  test('open loses most, a closed lid least; reserve and visit make a finding', () => {
    const r = report('chill', {
      ...settled.chill,
      coolingW: null,
      surfaceSpeedMs: 0.4,
      ambientC: 27,
      humidity: 0.4,
      reserveM3: 0.001,
      daysUnattended: 7,
      hoursPerDay: 12,
    })
    expect(extra(r, 'water.open').value!).toBeGreaterThan(extra(r, 'water.mesh').value!)
    expect(extra(r, 'water.mesh').value!).toBeGreaterThan(extra(r, 'water.still').value!)
    expect(r.findings.findings.map((f) => f.id)).toContain('need-evaporation-topup')
    expect(extra(r, 'topUp').value! * extra(r, 'water.open').value! * 86400).toBeCloseTo(1, 6)
  })
  test('wanted watts become a speed; too many are refused', () => {
    const r = report('chill', { ...settled.chill, ambientC: 27, humidity: 0.4 })
    expect(r.need.flow.value!).toBeGreaterThan(0)
    const wild = report('chill', { ...settled.chill, coolingW: 5000 })
    expect(wild.need.flow.value).toBeNull()
    expect(wild.need.flow.note).toContain('No air speed')
  })
})

describe('grades and ranges of inputs', () => {
  const job = planFor('cool', { heatW: 60, heatBasis: 'nameplate', ambientC: 20 }).job
  const of = (uncertainty: Partial<Uncertainty> & Pick<Uncertainty, 'id'>) =>
    inputRange(job, [{ grade: 'measured', low: null, high: null, ...uncertainty }], uncertainty.id)
  test('an ungraded label is 40 to 100 % of itself, other numbers are taken as sure', () => {
    expect(inputRange(job, [], 'heatW')).toEqual([24, 60])
    expect(inputRange(job, [], 'ambientC')).toBeNull()
    expect(inputRange(job, [], 'volumeM3')).toBeNull()
  })
  test('grades are shares, of temperatures kelvins', () => {
    expect(of({ id: 'heatW', grade: 'rough-guess' })).toEqual([30, 90])
    expect(of({ id: 'ambientC', grade: 'good-guess' })).toEqual([18, 22])
  })
  test('a typed range always holds its value', () => {
    expect(of({ id: 'heatW', grade: 'range', low: 50, high: 55 })).toEqual([50, 60])
  })
})

describe('fumes', () => {
  const keys = (job: Told) => report('fume', { ...settled.fume, ...job }).need.extras.map((f) => f.key)
  test('of a nozzle what it reaches is told, of a box its pressure', () => {
    expect(keys({})).toEqual(['need.captureReached', 'need.nozzleReach'])
    const boxed = keys({ fumeWay: 'enclosure', leakAreaM2: 0.002, boxPressurePa: 5 })
    expect(boxed).toContain('need.boxPressure')
    expect(boxed).not.toContain('need.captureReached')
  })
  test('how soon box and room are clear is told where their volume is', () => {
    const at = (job: Told) => keys(job).filter((key) => /clear/i.test(key)).length
    expect(at({})).toBe(0)
    expect(at({ volumeM3: 0.2 })).toBe(1)
    expect(at({ volumeM3: 0.2, roomVolumeM3: 40, roomChangesPerH: 2 })).toBe(2)
  })
})

describe('where it breathes', () => {
  const ids = (job: Told, change: (p: StreamPlan) => void = () => {}) =>
    report('cool', { ...settled.cool, ...job }, (p) => {
      p.ports = [
        { ...newPort('a', 'in'), side: 'front', areaM2: 0.01 },
        { ...newPort('b', 'out'), side: 'back', areaM2: 0.004 },
      ]
      change(p)
    })
      .findings.findings.flatMap((f) => [f, ...f.also])
      .map((f) => f.id)
  test('openings on the wrong sides, too small, unbalanced', () => {
    const found = ids({ intakeSide: 'left', outletSide: 'top' }, (p) => {
      p.path[0]!.areaM2 = 0.002
      p.path[3]!.areaM2 = 0.002
    })
    for (const id of [
      'port-intake-unserved',
      'port-outlet-unserved',
      'port-intake-starved',
      'port-outlet-starved',
      'port-unbalanced',
    ])
      expect(found).toContain(id)
  })
  test('served sides raise nothing', () => {
    expect(
      ids({ intakeSide: 'front', outletSide: 'back' }).filter(
        (id) => id.startsWith('port-') && id !== 'port-unbalanced',
      ),
    ).toEqual([])
  })
  test('one side for both, nothing between: short circuit', () => {
    expect(ids({ intakeSide: 'front', outletSide: 'front', baffled: false })).toContain('port-short-circuit')
  })
  test('its own fan against the planned one: unbalanced when they differ by more than a third', () => {
    const found = ids({ direction: 'in' }, (p) => {
      p.ports[1]!.flowM3s = 0.0005
    })
    expect(found).toContain('air-unbalanced')
  })
  test('measured warm intake, wrong way round, low intake without filter', () => {
    const found = ids({ intakeAirC: 26, direction: 'in', mountedDirection: 'out', intakeHeightM: 0.1 })
    for (const id of ['air-recirculates', 'air-wrong-way', 'air-floor-no-filter']) expect(found).toContain(id)
  })
})
