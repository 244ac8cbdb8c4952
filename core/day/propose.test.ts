import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { DayModel, ModelGroup } from './model'
import { newControlOf, newStreamPlan } from '#core/document'
import { adviceOf, runOnAdvice, thermostatAdvice } from './advice'
import { proposed, slowestDuty, thresholdsFor } from './propose'
import { heardSteps } from './quietest'
import { runDay } from './run'
import { USUAL } from './controls'
import { bearingYears, contactYears } from './life'

/** How a school would be set for a job, from the handbook's relations: one part, one fan, numbers invented. */

const duties = Array.from({ length: 41 }, (_, i) => i / 40)
const weather = { lowC: 20, highC: 24, highestAtS: 50_400, points: [], assumed: false }
function model({ heat = 60, limitC = 60, movedWK = 4, capacityJK = 2000, lagS = 20 } = {}): DayModel {
  const group: ModelGroup = {
    control: newControlOf('c', 'always', ['main']),
    name: 'Fans',
    streams: ['main'],
    table: {
      flowM3s: duties.map((d) => 0.01 * d),
      levelDbA: duties.map((d) => (d === 0 ? -Infinity : 30 + 50 * Math.log10(d))),
      powerW: duties.map((d) => 2 * d ** 2.3),
    },
    planned: 1,
    referenceM3s: 0.01,
    settings: {
      law: { kind: 'thermostat', onC: 50, offC: 42, onDuty: 1, restDuty: 0 },
      minDuty: 0.2,
      startDuty: 0.25,
      capDuty: 1,
      kickDuty: 1,
      kickS: 0,
      fanStop: true,
      filterTauS: 0,
      rampUpPerS: 0,
      rampDownPerS: 0,
      sensorLowC: -40,
      sensorHighC: 150,
      faultDuty: 1,
    },
    problem: null,
    sensed: 0,
    sensorLagS: lagS,
    lagAssumed: false,
  }
  return {
    loadAssumed: false,
    parts: [
      {
        id: 'p',
        name: 'Sink',
        limitC,
        capacityJK,
        stillWK: 0.8,
        movedWK,
        loadShare: 1,
        group: 0,
        basis: 'measured',
        assumed: [],
      },
    ],
    links: [],
    exponent: 0.8,
    groups: [group],
    weather: { cold: weather, usual: weather, hot: { ...weather, lowC: 26, highC: 32 } },
    loads: [],
    idleW: heat,
    light: { fromS: 25_200, toS: 68_400 },
    night: { fromS: 79_200, toS: 21_600 },
    job: newStreamPlan('j', 'J').job,
    pressurePa: 101_325,
    store: null,
    week: [],
    incomplete: [],
  }
}

describe('thresholds', () => {
  test('on below the limit less what the lag lets through, off above what the fans reach on the hottest day', () => {
    const made = thresholdsFor(model(), model().groups[0]!)
    // 60 W in 2000 J/K for 20 s are 0.6 K; 32 °C + 60/4 are 47 °C
    expect(made).toEqual({ onC: 54, offC: 49, problem: '' })
  })
  test('say that there is no room where the fans bring it hardly below its limit', () => {
    expect(thresholdsFor(model({ limitC: 50 }), model().groups[0]!).problem).toMatch(/no room/)
  })
  test('whatever the part, on lies above off, and the simulated part keeps its limit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 120, noNaN: true }),
        fc.double({ min: 2, max: 8, noNaN: true }),
        fc.double({ min: 300, max: 20_000, noNaN: true }),
        fc.double({ min: 45, max: 110, noNaN: true }),
        (heat, movedWK, capacityJK, limitC) => {
          const made = model({ heat, movedWK, capacityJK, limitC })
          const { onC, offC, problem } = thresholdsFor(made, made.groups[0]!)
          expect(onC).toBeGreaterThan(offC)
          if (problem) return
          const law = { kind: 'thermostat', onC, offC, onDuty: 1, restDuty: 0 } as const
          const set = { ...made.groups[0]!.settings!, law }
          const run = runDay({ ...made, groups: [{ ...made.groups[0]!, settings: set }] }, 'hot')
          expect(run.summary.peakC[0]!).toBeLessThanOrEqual(limitC)
        },
      ),
      { numRuns: 25 },
    )
  })
})

describe('the slowest duty', () => {
  test('settles just below the limit: one step less would not', () => {
    const made = model()
    const duty = slowestDuty(made, 0, 60, 32)!
    const settles = (d: number) => 32 + 60 / (0.8 + 3.2 * d ** 0.8)
    expect(settles(duty)).toBeLessThanOrEqual(60)
    expect(settles(duty - 1 / 40)).toBeGreaterThan(60)
  })
  test('is none where not even all of it would do', () => {
    expect(slowestDuty(model({ limitC: 40 }), 0, 60, 32)).toBeNull()
  })
})

test('what the person set of a school stays, another is proposed', () => {
  const made = model()
  const own = { ...newControlOf('c', 'timer', ['main']), timerOnS: 600, timerEveryS: 1800 }
  const steered = { ...made, groups: [{ ...made.groups[0]!, control: own }] }
  expect(proposed('timer', steered, 0, [])).toBe(own)
  const curve = proposed('curve', steered, 0, [])
  expect(curve.points).toHaveLength(2)
  expect(curve.points[1]!.duty).toBe(1)
  expect(curve.points[0]!.temperatureC).toBeLessThan(curve.points[1]!.temperatureC)
  expect(proposed('thermostat', steered, 0, [])).toMatchObject({ onC: 54, offC: 49 })
})

describe('advice', () => {
  test('a late sensor widens the swing by rate times lag on both sides', () => {
    const made = model({ lagS: 60 })
    const advice = thermostatAdvice(made, 0, 24)!
    expect(advice.state).toBe('cycles')
    expect(advice.overK).toBeCloseTo(((60 - 0.8 * (50 - 24)) / 2000) * 60, 9)
    expect(advice.underK).toBeCloseTo(((4 * (42 - 24) - 60) / 2000) * 60, 9)
    expect(advice.promptS!).toBeLessThan(3600 / advice.perHour!)
  })
  test('names the band that keeps it to six starts an hour', () => {
    const busy = model({ capacityJK: 800, movedWK: 8, lagS: 0 })
    const { perHour, bandK } = thermostatAdvice(busy, 0, 24)!
    expect(perHour!).toBeGreaterThan(6)
    const law = { kind: 'thermostat', onC: 50, offC: 50 - bandK!, onDuty: 1, restDuty: 0 } as const
    const wide = { ...busy, groups: [{ ...busy.groups[0]!, settings: { ...busy.groups[0]!.settings!, law } }] }
    expect(thermostatAdvice(wide, 0, 24)!.perHour!).toBeLessThanOrEqual(6)
  })
  test('runs on until the part is nearly as cool as the air', () => {
    const made = { ...model(), idleW: 0, loads: [{ id: 'w', name: 'w', fromS: 0, toS: 3600, watts: 60 }] }
    const advice = runOnAdvice(made, 0, undefined)!
    // from 24 + 15 K to 5 K over the air, tau 500 s
    expect(advice).toMatchObject({ why: 'heat' })
    expect(advice.seconds).toBeCloseTo(500 * Math.log(15 / 5), 6)
  })
  test('there is none for a group that is not there', () => {
    expect(adviceOf(newStreamPlan('j', 'J'), model(), 3, [])).toBeNull()
  })
})

describe('life', () => {
  test('a contact makes its operations; what never switches lasts', () => {
    const relay = { ...newControlOf('c', 'thermostat', ['main']), actuator: 'relay' as const }
    expect(contactYears(relay, 20)!.years).toBeCloseTo(USUAL.operations / (20 * 365), 9)
    expect(contactYears(relay, 20)!.assumed).toBe(true)
    expect(contactYears({ ...relay, operations: 1e6 }, 20)).toEqual({ years: 1e6 / 7300, assumed: false })
    expect(contactYears(relay, 0)!.years).toBe(Infinity)
    expect(contactYears({ ...relay, actuator: 'pwm-wire' }, 20)).toBeNull()
  })
  test('bearings without a stated life, or that never turn, have none', () => {
    expect(bearingYears([], 3600, 30)).toBeNull()
  })
})

test('a small step, or one far away, is not heard', () => {
  const levelAt = (d: number) => 40 + 50 * Math.log10(d)
  const at = (pairs: [number, number][]) =>
    heardSteps(
      pairs.map(([temperatureC, duty]) => ({ temperatureC, duty })),
      levelAt,
    )
  expect(
    at([
      [30, 0.5],
      [31, 0.52],
    ]),
  ).toEqual([])
  expect(
    at([
      [30, 0.5],
      [40, 1],
    ]),
  ).toEqual([])
  expect(
    at([
      [30, 0.5],
      [31, 0.8],
    ]),
  ).toEqual([1])
})
