import { describe, expect, test } from 'vitest'
import { leq } from '#core/noise'
import {
  newControlOf,
  newDay,
  newElement,
  newFan,
  newStreamPlan,
  newSource,
  planSchema,
  type Control,
  type Day,
  type Fan,
  type StreamPlan,
  seenFrom,
  wholePlan,
} from '#core/document'
import { airState } from '#core/air'
import { atOnce } from '#core/numeric'
import { operationOf, selectionContextOf, trustedFans } from '#core/selection'
import { requirementOf } from '#core/requirement'
import { feedOf, powerOf } from '#core/supply'
import { airSystem } from '#core/system'
import {
  ambientDay,
  compareSchools,
  dayModel,
  dayReportSteps,
  drawnDays,
  failuresOf,
  heardSteps,
  quietestCurve,
  replay,
  runDay,
  runWeek,
  settled,
  stepOf,
  thermostatAdvice,
  type DayStream,
} from './index'
import { feedFrom, pick, selectionOf, tell } from '../../tests/plans'

/** The days of a whole plan: one fan in a box, numbers invented. */

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
  wires: 4,
  lifeH: 40000,
  pwmMinDuty: 0.25,
  pwmStartDuty: 0.3,
  points: [
    [0, 40],
    [0.004, 34],
    [0.008, 26],
    [0.012, 14],
    [0.016, 0],
  ].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! })),
}
const core = {
  id: 'core',
  name: 'Core',
  streamId: 'main',
  limitC: 60,
  massKg: null,
  material: null,
  capacityJK: 3000,
  stillWK: 1.5,
  movedWK: 6,
  atM3s: null,
  loadShare: 1,
  basis: 'measured' as const,
}
const WORK = [{ id: 'w', name: 'working', fromS: 8 * 3600, toS: 18 * 3600, watts: 100 }]

function planWith(control: Partial<Control>, day: Partial<Day> = {}): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  tell(plan, {
    goal: 'cool',
    heatW: 100,
    insideMaxC: 40,
    ambientC: 22,
    ambientMaxC: 30,
    direction: 'in',
  })
  plan.path = [
    { ...newElement('in', 'grille'), areaM2: 0.012, freeAreaRatio: 0.6 },
    { ...newElement('fan', 'fan') },
    { ...newElement('box', 'chamber'), areaM2: 0.1 },
    { ...newElement('out', 'opening'), areaM2: 0.006 },
  ]
  pick(plan, selectionOf('f'), 12)
  feedFrom(plan, { ...newSource('s', 'adapter', 12), lowV: 12, highV: 12, iMaxA: 1 })
  plan.controls = [
    { ...newControlOf('c', control.school ?? 'always', [plan.stream]), sensorLagS: 20, ...control },
  ]
  plan.day = {
    ...newDay('d'),
    usualLowC: 20,
    usualHighC: 24,
    hotLowC: 24,
    hotHighC: 32,
    loads: WORK,
    idleW: 5,
    parts: [core],
    ...day,
  }
  return seenFrom(planSchema.parse(wholePlan(plan)))
}
function streamsOf(plan: StreamPlan): DayStream[] {
  const air = airState(plan.job.ambientC, plan.job.altitudeM, plan.job.humidity)!
  const fans = trustedFans([fan], plan.job.trust, null)
  const system = airSystem(plan, air, fans)
  const env = { plan, air, path: system.path, fans, outletBoreM: null }
  const requirement = requirementOf(env)
  const context = selectionContextOf(plan, system, requirement)
  const feed = feedOf(plan, [{ stream: 'main', duty: null, driveV: 12, fanArray: system.fanArray! }], fans)
  const power = powerOf(plan, 12, feed)
  return [
    { plan, system, context, requirement, power, operation: operationOf(plan, system, context, power.fanV) },
  ]
}
const modelOf = (plan: StreamPlan) => dayModel(plan, streamsOf(plan))

const thermostat: Partial<Control> = { school: 'thermostat', actuator: 'relay', onC: 48, offC: 42 }
const curve: Partial<Control> & Pick<Control, 'points'> = {
  school: 'curve',
  actuator: 'pwm-wire',
  points: [
    { temperatureC: 35, duty: 0.3 },
    { temperatureC: 50, duty: 1 },
  ],
}

describe('a day of a plan', () => {
  test('its flow over the duty is the operating point of each, not a proportion', () => {
    const [stream] = streamsOf(planWith(curve))
    const { table } = modelOf(planWith(curve)).groups[0]!
    expect(table.flowM3s.at(-1)).toBeCloseTo(stream!.operation.candidate!.flow!, 6)
    expect(table.flowM3s[0]).toBe(0)
    // below the lowest duty the behaviour depends on the fan: nothing is counted
    expect(table.flowM3s[4]).toBe(0)
    expect(table.flowM3s[20]! / table.flowM3s[40]!).toBeLessThan(0.62)
  })
  test('the step follows the sensor, and says how long it is', () => {
    expect(stepOf(modelOf(planWith({ ...thermostat, sensorLagS: 8 })))).toBe(2)
    expect(stepOf(modelOf(planWith({ school: 'always' })))).toBeGreaterThan(20)
  })
  test('a thermostat runs while there is work, and stands at night', () => {
    const { lanes, summary } = runDay(modelOf(planWith(thermostat)), 'usual')
    const duty = (hour: number) => lanes.groups[0]!.duty[Math.round((hour * 3600) / lanes.stepS)]!
    expect(duty(4)).toBe(0)
    expect(summary.groups[0]!.starts).toBeGreaterThan(3)
    expect(summary.nightDbA).toBe(-Infinity)
    expect(summary.peakC[0]!).toBeGreaterThan(48)
    expect(summary.peakC[0]!).toBeLessThan(50)
    expect(summary.leqDbA).toBeCloseTo(
      leq(
        [...lanes.levelDbA],
        Array.from(lanes.levelDbA, () => lanes.stepS),
      )!,
      6,
    )
    const { inJ, outJ, storedJ } = lanes.balance
    expect(Math.abs(inJ - outJ - storedJ) / inJ).toBeLessThan(1e-3)
    expect(inJ).toBeCloseTo(10 * 3600 * 100 + 14 * 3600 * 5, -3)
  })
  test('humidity and light as what it looks at', () => {
    const damp = runDay(
      modelOf(planWith({ ...thermostat, sense: 'humidity', onRh: 0.55, offRh: 0.5 })),
      'usual',
    )
    // the air keeps its moisture: it is dampest when it is coldest
    const at = (hour: number) => damp.lanes.groups[0]!.sensorC[Math.round((hour * 3600) / damp.lanes.stepS)]!
    expect(at(2)).toBeGreaterThan(at(14))
    const lit = runDay(
      modelOf(planWith({ ...thermostat, sense: 'light' }, { lightFromS: 6 * 3600, lightToS: 20 * 3600 })),
      'usual',
    )
    expect(lit.summary.groups[0]!.onS).toBeCloseTo(14 * 3600, -2)
  })
  test('run-on goes on after the load', () => {
    const tool = (runOnS: number) =>
      runDay(modelOf(planWith({ school: 'tool', runOnS })), 'usual').summary.groups[0]!.onS
    expect(tool(0)).toBeCloseTo(10 * 3600, -2)
    expect(tool(1800) - tool(0)).toBeCloseTo(1800, -2)
  })
  test('the formulas tell the starts of the simulated day', () => {
    const model = modelOf(
      planWith({ ...thermostat, sensorLagS: 1 }, { loads: [], idleW: 100, usualLowC: 22, usualHighC: 22 }),
    )
    const advice = thermostatAdvice(model, 0, 22)!
    const made = runDay(model, 'usual').summary.groups[0]!
    expect(made.starts / 24 / advice.perHour!).toBeGreaterThan(0.97)
    expect(made.starts / 24 / advice.perHour!).toBeLessThan(1.03)
  })
  test('bad input is told where it stands, and the fans run as planned until it is mended', () => {
    const told = (control: Partial<Control>) => modelOf(planWith(control)).groups[0]!.problem?.key ?? null
    expect(told({ ...thermostat, onC: 30, offC: 40 })).toBe('offC')
    expect(told({ ...thermostat, onC: null })).toBe('onC')
    expect(told({ ...curve, points: [...curve.points].reverse() })).toBe('points')
    expect(told({ school: 'timer', timerOnS: 7200, timerEveryS: 3600 })).toBe('timerOnS')
    expect(told({ ...curve, minDuty: 0.4, startDuty: 0.3 })).toBe('startDuty')
    expect(told({ ...curve, capDuty: 0.1 })).toBe('capDuty')
    expect(told({ school: 'slow' })).toBe('quietDuty')
    expect(runDay(modelOf(planWith({ school: 'slow' })), 'usual').summary.groups[0]!.highDuty).toBe(1)
  })
  test('a part that lacks a number is left out and named', () => {
    const model = modelOf(
      planWith(thermostat, { parts: [core, { ...core, id: 'b', name: 'Board', capacityJK: null }] }),
    )
    expect(model.parts.map((p) => p.name)).toEqual(['Core'])
    expect(model.incomplete.map((p) => p.name)).toEqual(['Board'])
  })
  test('without parts the plan’s own balance stands in, and says what is assumed', () => {
    const [part] = modelOf(planWith(thermostat, { parts: [] })).parts
    expect(part).toMatchObject({ name: 'Air inside', limitC: 40, basis: 'assumed' })
    expect(part!.assumed).toEqual(['what it gives off without moving air', 'how slowly it warms'])
  })
  test('nothing is made of a load of 0 but the air around', () => {
    const idle = runDay(modelOf(planWith(thermostat, { loads: [], idleW: 0 })), 'hot').summary
    expect(idle.peakC[0]).toBeLessThanOrEqual(32)
    expect(idle.groups[0]!.starts).toBe(0)
  })
})

test('the schools side by side hold what each is for', () => {
  const plan = planWith({ ...curve, onFault: 'full' })
  const rows = compareSchools(plan, modelOf(plan), 0, streamsOf(plan))
  const of = (school: string) => rows.find((r) => r.school === school)!
  expect(rows.map((r) => r.school)).toEqual([
    'always',
    'slow',
    'timer',
    'thermostat',
    'curve',
    'host',
    'boost',
    'tool',
  ])
  expect(rows.filter((r) => r.taken).map((r) => r.school)).toEqual(['curve'])
  const peak = (school: string) => of(school).hot!.peakC[0]!
  for (const { school } of rows) expect(peak('always'), school).toBeLessThanOrEqual(peak(school) + 1e-9)
  expect(of('curve').usual!.leqDbA).toBeLessThan(of('always').usual!.leqDbA)
  expect(of('thermostat').tooHot).toEqual([])
  expect(of('always').bearing!.low).toBeLessThan(of('tool').bearing!.low)
})

describe('the quietest curve', () => {
  const plan = planWith(curve)
  const found = quietestCurve(modelOf(plan), 0, streamsOf(plan))
  test('keeps its margin on the hottest day and is quieter than full speed', () => {
    expect(found.ok).toBe(true)
    if (!found.ok) return
    const better = planWith({ ...curve, points: found.points })
    const hot = runDay(modelOf(better), 'hot').summary
    expect(60 - hot.peakC[0]!).toBeCloseTo(found.marginK, 6)
    expect(found.marginK).toBeGreaterThanOrEqual(2)
    expect(hot.leqDbA).toBeLessThan(
      runDay(modelOf(planWith({ school: 'always', actuator: 'pwm-wire' })), 'hot').summary.leqDbA,
    )
  })
  test('is refused with the reason where none can hold', () => {
    const hard = planWith(curve, { parts: [{ ...core, limitC: 45 }] })
    const refused = quietestCurve(modelOf(hard), 0, streamsOf(hard))
    expect(refused.ok).toBe(false)
    if (!refused.ok)
      expect(refused.reason).toMatch(/^No curve can: even at 100 % .* by \d\.\d K on the hottest day/)
    const blind = planWith(curve, { parts: [{ ...core, limitC: null }] })
    const unlimited = quietestCurve(modelOf(blind), 0, streamsOf(blind))
    expect(!unlimited.ok && unlimited.reason).toMatch(/no limit/)
  })
  test('steps of 3 dB within 3 K are marked as heard', () => {
    const levelAt = (d: number) => 30 + 50 * Math.log10(d)
    const points = [30, 32, 50, 60].map((temperatureC, i) => ({ temperatureC, duty: [0.3, 0.5, 0.9, 1][i]! }))
    expect(heardSteps(points, levelAt)).toEqual([1])
  })
})

describe('battery and sun', () => {
  const onSun = (greyShare: number, week: Day['week']) => {
    const plan = planWith({ school: 'always' }, { greyShare, week, month: 6, startCharge: 1 })
    feedFrom(plan, { ...newSource('s', 'solar', 12), nominalV: 12, lowV: 12, highV: 12 })
    plan.battery = planSchema.shape.battery.parse({
      id: 'b',
      chemistry: 'lead-acid',
      chargeCoulomb: 12 * 3600,
      depth: 0.5,
    })
    plan.sun = planSchema.shape.sun.parse({ id: 'u', panelW: 10, panelVoc: 21, panelVmp: 18 })
    return modelOf(plan)
  }
  test('the charge falls over grey days and comes back in the sun', () => {
    const days = runWeek(onSun(0.1, ['usual', 'cold', 'cold', 'usual', 'usual', 'usual', 'usual']))
    const end = days.map((d) => d.summary.endCharge!)
    expect(end[2]!).toBeLessThan(end[0]!)
    expect(end[6]!).toBeGreaterThanOrEqual(end[2]!)
  })
  test('energy: what is drawn less what the sun brings is what the charge loses', () => {
    const model = onSun(0, ['cold', 'cold', 'cold', 'cold', 'cold', 'cold', 'cold'])
    const { summary, lanes } = runDay(model, 'cold')
    expect(summary.drawnJ! / 86_400).toBeCloseTo(
      lanes.powerW[0]! / model.store!.efficiency + model.store!.restW,
      6,
    )
    const lost = 1 - summary.endCharge!
    expect(lost * model.store!.usableJ!).toBeCloseTo(Math.min(summary.drawnJ!, model.store!.usableJ!), -2)
  })
})

test('drawn days: the range holds the plain day, and the same seed gives the same', () => {
  const plan = planWith({ school: 'always' })
  const model = modelOf(plan)
  const made = drawnDays(model, 'hot', streamsOf(plan), 60)!
  const peak = runDay(model, 'hot').summary.peakC[0]!
  expect(made.peakC[0]!.low).toBeLessThan(peak)
  expect(made.peakC[0]!.high).toBeGreaterThan(peak)
  expect(made.holds).toBeGreaterThan(0.5)
  expect(drawnDays(model, 'hot', streamsOf(plan), 60)).toEqual(made)
  expect(drawnDays(model, 'hot', streamsOf(plan), 60, (done) => done === 5)).toBeNull()
})

describe('replay', () => {
  const set = settled(planWith(thermostat).controls[0]!, streamsOf(planWith(thermostat)), 1)
  const settings = set.ok ? set.settings : null
  test('a synthetic log gives the synthetic duty', () => {
    const { lanes } = runDay(modelOf(planWith(thermostat)), 'usual')
    const group = lanes.groups[0]!
    const timesS = Float64Array.from(group.duty, (_, i) => i * lanes.stepS)
    const again = replay(settings!, { timesS, temperatureC: group.sensorC, dutyLogged: group.duty })
    expect(again.offBy).toBe(0)
    expect(again.starts).toBe(
      group.duty.reduce((n, d, i) => n + (d > 0 && !(group.duty[i - 1]! > 0) ? 1 : 0), 0),
    )
    expect(again.gaps).toEqual([])
  })
  test('hours are those of the rows in which it runs, each as long as it is', () => {
    // warm from the first row on: every step of the log counts, the first one as the usual one
    const timesS = [0, 10, 20, 45, 55]
    const made = replay(settings!, { timesS, temperatureC: [60, 60, 60, 60, 60], dutyLogged: null })
    expect(made.duty.every((d) => d > 0)).toBe(true)
    // a row that is late counts as long as the control looks, no longer
    expect(made.onS).toBe(50)
    expect(made.starts).toBe(1)
  })
  test('a gap is told, and the control goes to its safe duty in it', () => {
    const timesS = [0, 10, 20, 30, 200, 210]
    const made = replay(settings!, { timesS, temperatureC: [20, 20, 20, 20, 20, 20], dutyLogged: null })
    expect(made.gaps).toEqual([{ fromS: 30, toS: 200 }])
    // the safe duty from a step behind the last value on: 200 − 30 − 10 s
    expect(made.onS).toBe(160)
    expect(made.offBy).toBeNull()
  })
})

describe('what fails', () => {
  const of = (control: Partial<Control>, part: string) => {
    const plan = planWith(control)
    return failuresOf(plan.controls[0]!, plan).find((f) => f.part === part) ?? null
  }
  test.each([
    [{ ...curve, onFault: 'full' }, 'sensor', true],
    [{ ...curve, onFault: 'off' }, 'sensor', false],
    [{ ...curve }, 'sensor', null],
    [{ ...thermostat }, 'sensor', false],
    [{ ...thermostat, onFault: 'off', secondC: 55 }, 'sensor', true],
    [{ ...curve }, 'controller', true],
    [{ ...thermostat }, 'controller', false],
    [{ ...thermostat, secondC: 55 }, 'controller', true],
    [{ ...curve, tachAlarm: false }, 'fan', false],
    [{ ...curve, tachAlarm: true }, 'fan', true],
    [{ ...curve }, 'fan', null],
    [{ ...curve, interlock: true }, 'supply', true],
    [{ ...curve, school: 'host', hostSleeps: true }, 'host', false],
  ] as [Partial<Control>, string, boolean | null][])('%j: %s', (control, part, safe) => {
    expect(of(control, part)!.safe).toBe(safe)
  })
  test('what is always on has no sensor and no controller', () => {
    expect(of({ school: 'always' }, 'sensor')).toBeNull()
    expect(of({ school: 'always' }, 'controller')).toBeNull()
  })
})

test('the report says what it assumed, and tells the same days again without running them', () => {
  const plan = planWith(thermostat, { parts: [] })
  const made = atOnce(dayReportSteps(plan, streamsOf(plan)))!
  expect(made.figures.find((f) => f.key === 'day.on')!.note).toMatch(/Assumed, measure it: Air inside/)
  expect(atOnce(dayReportSteps(plan, streamsOf(plan)))!.usual).toBe(made.usual)
  expect(atOnce(dayReportSteps({ ...plan, controls: [], day: null }, streamsOf(plan)))).toBeNull()
})

test('a day of air from a log: means of half hours, gaps counted, too little refused', () => {
  const n = 2 * 86_400
  const times = Float64Array.from({ length: n / 60 }, (_, i) => i * 60)
  const values = times.map((t) => 20 + ((t + 6 * 3600) % 86_400) / 3600)
  const whole = ambientDay(times, values, 6 * 3600)!
  expect([whole.points.length, whole.missing, whole.longestGapS]).toEqual([48, 0, 0])
  expect(whole.points[0]!.temperatureC).toBeCloseTo(20.24, 1)
  const holed = ambientDay(
    times,
    values.map((v) => (v > 30 && v < 33 ? NaN : v)),
    6 * 3600,
  )!
  expect([holed.missing, holed.longestGapS]).toEqual([5, 2.5 * 3600])
  expect(ambientDay(times.slice(0, 60), values.slice(0, 60), 0)).toBeNull()
})

test('a hottest day that nobody told is no cooler than a usual one, typed or not', () => {
  const hotOf = (change: Partial<Day>, ambientMaxC: number | null) => {
    const plan = planWith(thermostat, {
      usualLowC: null,
      usualHighC: null,
      hotLowC: null,
      hotHighC: null,
      ...change,
    })
    plan.job.ambientMaxC = ambientMaxC
    return modelOf(plan).weather
  }
  for (const [change, most] of [
    [{}, null],
    [{}, 22],
    [{}, 30],
    [{ usualHighC: 33 }, null],
    [{ usualHighC: 33 }, 30],
  ] as const) {
    const { hot, usual, cold } = hotOf(change, most)
    expect(hot.highC).toBeGreaterThanOrEqual(usual.highC)
    expect(cold.highC).toBeLessThan(usual.highC)
    expect(hot.assumed).toBe(true)
  }
  expect(hotOf({}, 30).hot.highC).toBe(30)
})
