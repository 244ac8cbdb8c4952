import { create, all } from 'mathjs'
import { describe, expect, test } from 'vitest'
import { dayMaximum } from '#core/heat'
import { leq } from '#core/noise'
import {
  cyclesPerHour,
  dayAmbient,
  leqBetween,
  simulateDay,
  type ControlSettings,
  type DayGroup,
  type DayInput,
} from './index'

type Two = [number, number]
/** The library's types do not know this function of it. */
type Solve = (
  f: (t: number, y: Two) => Two,
  span: Two,
  start: Two,
  options: { tol: number; method: string; maxIter: number },
) => { y: Two[] }

/** A simulated day against formulas, balances and a solver of differential equations from the registry. Numbers invented. */

const always: ControlSettings = {
  law: { kind: 'fixed', duty: 1 },
  filterTauS: 0,
  rampUpPerS: 0,
  rampDownPerS: 0,
  minDuty: 0,
  startDuty: 0,
  kickDuty: 1,
  kickS: 0,
  capDuty: 1,
  fanStop: true,
  sensorLowC: -40,
  sensorHighC: 125,
  faultDuty: 1,
}
const duties = Array.from({ length: 101 }, (_, i) => i / 100)
const fans: DayGroup = {
  referenceM3s: 0.01,
  control: always,
  sensed: 0,
  sensorLagS: 0,
  fans: {
    flowM3s: duties.map((d) => 0.01 * d),
    levelDbA: duties.map((d) => (d === 0 ? -Infinity : 30 + 50 * Math.log10(d))),
    powerW: duties.map((d) => 2 * d ** 2.3),
  },
}
const day: DayInput = {
  parts: [{ capacityJK: 900, stillWK: 1, movedWK: 3, loadShare: 1, group: 0 }],
  links: [],
  groups: [fans],
  exponent: 0.8,
  ambientC: () => 28,
  loadW: () => 60,
  startC: 28,
  seconds: 86_400,
  stepS: 1,
}

describe('a thermostat', () => {
  const law = { kind: 'thermostat', onC: 60, offC: 52, onDuty: 1, restDuty: 0 } as const
  const closed = simulateDay({ ...day, groups: [{ ...fans, control: { ...always, law } }], startC: 52 })
  test('cycles as its formula says', () => {
    const perHour = cyclesPerHour({
      heat: 60,
      capacity: 900,
      gOn: 3,
      gOff: 1,
      ambientC: 28,
      onC: 60,
      offC: 52,
    })!
    // a step of a second delays each of the two switchings by half a second in the mean
    expect(closed.groups[0]!.starts / 24 / perHour).toBeGreaterThan(0.99)
    expect(closed.groups[0]!.starts / 24 / perHour).toBeLessThan(1.005)
    expect(closed.peakC[0]).toBeLessThan(60.1)
  })
  test('a late sensor swings wider and starts less often', () => {
    const late = simulateDay({
      ...day,
      groups: [{ ...fans, control: { ...always, law }, sensorLagS: 60 }],
      startC: 52,
    })
    expect(late.groups[0]!.starts).toBeLessThan(closed.groups[0]!.starts)
    // about the slope at the switching times the lag: (60 − 32)/900 K/s · 60 s = 1.9 K
    expect(late.peakC[0]! - 60).toBeGreaterThan(1)
    expect(late.peakC[0]! - 60).toBeLessThan(2.2)
  })
})

test('what comes in is what goes out and stays, to a thousandth', () => {
  const two: DayInput = {
    ...day,
    parts: [
      { capacityJK: 120, stillWK: 0.1, movedWK: 0.3, loadShare: 0.8, group: 0 },
      { capacityJK: 4000, stillWK: 1, movedWK: 2.5, loadShare: 0.2, group: 0 },
    ],
    links: [{ from: 0, to: 1, conductanceWK: 1.4 }],
    ambientC: dayAmbient(12, 30),
    loadW: (t) => (t % 7200 < 3600 ? 45 : 5),
    groups: [
      {
        ...fans,
        control: { ...always, law: { kind: 'thermostat', onC: 45, offC: 38, onDuty: 0.7, restDuty: 0 } },
      },
    ],
    startC: 15,
  }
  const { inJ, outJ, storedJ } = simulateDay(two).balance
  expect(Math.abs(inJ - outJ - storedJ) / inJ).toBeLessThan(0.001)
  // the load's own sum: half the day at 45 W, half at 5
  expect(inJ / (86_400 * 25)).toBeCloseTo(1, 3)
})

test('the settled day reaches what the formula of the harmonic day gives', () => {
  const slow = { ...day, parts: [{ capacityJK: 30_000, stillWK: 1, movedWK: 3, loadShare: 1, group: 0 }] }
  const harmonic = simulateDay({
    ...slow,
    ambientC: dayAmbient(15, 29),
    startC: 42,
    seconds: 3 * 86_400,
    stepS: 10,
  })
  const lastDay = harmonic.parts[0]!.slice(-8640)
  expect(Math.max(...lastDay)).toBeCloseTo(dayMaximum(60, 3, 30_000, 22, 7), 1)
})

test('two linked parts follow an independent solver to a thousandth', () => {
  const parts = [
    { capacityJK: 90, stillWK: 0.2, movedWK: 0.6, loadShare: 1, group: 0 },
    { capacityJK: 2500, stillWK: 0.9, movedWK: 2.2, loadShare: 0, group: 0 },
  ]
  const ambient = dayAmbient(10, 26)
  const load = (t: number) => 30 + 20 * Math.sin((2 * Math.PI * t) / 5400)
  const made = simulateDay({
    ...day,
    parts,
    links: [{ from: 0, to: 1, conductanceWK: 1.1 }],
    ambientC: ambient,
    loadW: load,
    startC: 12,
    seconds: 6 * 3600,
  })
  const { solveODE } = create(all!) as unknown as { solveODE: Solve }
  const solved = solveODE(
    (t, [a, b]) => [
      (load(t) - 0.6 * (a - ambient(t)) - 1.1 * (a - b)) / 90,
      (1.1 * (a - b) - 2.2 * (b - ambient(t))) / 2500,
    ],
    [0, 6 * 3600],
    [12, 12],
    { tol: 1e-8, method: 'RK45', maxIter: 1e6 },
  )
  const end = solved.y.at(-1)!
  const rise = (c: number) => c - 12
  expect(rise(made.parts[0]!.at(-1)!) / rise(end[0]!)).toBeCloseTo(1, 3)
  expect(rise(made.parts[1]!.at(-1)!) / rise(end[1]!)).toBeCloseTo(1, 3)
})

test('a fast part is followed by steps of its own', () => {
  const fast = simulateDay({
    ...day,
    parts: [{ capacityJK: 2, stillWK: 1, movedWK: 3, loadShare: 1, group: 0 }],
    seconds: 600,
    stepS: 5,
  })
  expect(fast.innerSteps).toBeGreaterThan(50)
  // settled: 28 + 60/3
  expect(fast.parts[0]!.at(-1)).toBeCloseTo(48, 6)
})

test('sound: equivalent level, the loudest five minutes, silence', () => {
  const timer = { ...always, law: { kind: 'timer', onS: 600, everyS: 3600, onDuty: 1, restDuty: 0 } as const }
  const made = simulateDay({ ...day, groups: [{ ...fans, control: timer }] })
  expect(made.leqDbA).toBeCloseTo(leq([30, -Infinity], [600, 3000])!, 6)
  expect(made.loudestDbA).toBeCloseTo(30, 6)
  expect(made.groups[0]!.onS).toBe(24 * 600)
  expect(made.groups[0]!.starts).toBe(24)
  expect(made.energyJ).toBeCloseTo(2 * 24 * 600, 3)
  const never = simulateDay({
    ...day,
    groups: [{ ...fans, control: { ...always, law: { kind: 'fixed', duty: 0 } } }],
  })
  expect([never.leqDbA, never.loudestDbA, never.groups[0]!.starts]).toEqual([-Infinity, -Infinity, 0])
})

test('two groups of fans, each with its own part, add their sound', () => {
  const part = { capacityJK: 900, stillWK: 1, movedWK: 3, loadShare: 0.5 }
  const two = simulateDay({
    ...day,
    parts: [
      { ...part, group: 0 },
      { ...part, group: 1 },
    ],
    groups: [fans, { ...fans, sensed: 1, control: { ...always, law: { kind: 'fixed', duty: 0.5 } } }],
  })
  expect(two.leqDbA).toBeCloseTo(10 * Math.log10(10 ** 3 + 10 ** (3 + 5 * Math.log10(0.5))), 6)
  // 30 W: full air 28 + 30/3; half of it moves 0.5^0.8 of the further 2 W/K
  expect(two.parts[0]!.at(-1)).toBeCloseTo(38, 6)
  expect(two.parts[1]!.at(-1)).toBeCloseTo(28 + 30 / (1 + 2 * 0.5 ** 0.8), 6)
})

test('on demand: while it is asked for, for so long at most, and a while after', () => {
  const asked = (law: object) =>
    simulateDay({
      ...day,
      groups: [
        {
          ...fans,
          demand: (t) => t >= 36_000 && t < 39_600,
          control: {
            ...always,
            law: { kind: 'demand', mostS: null, runOnS: 0, onDuty: 1, restDuty: 0, ...law },
          },
        },
      ],
    }).groups[0]!
  expect(asked({}).onS).toBe(3600)
  expect(asked({ runOnS: 600 }).onS).toBe(4200)
  expect(asked({ mostS: 900 }).onS).toBe(900)
  const quiet = asked({ restDuty: 0.3 })
  expect([quiet.onS, quiet.duty[0], quiet.duty[37_000]]).toEqual([86_400, 0.3, 1])
})

test('the level of a night is that of its hours, over midnight too', () => {
  const sound = Float64Array.from({ length: 24 }, (_, h) => (h >= 22 || h < 6 ? 100 : 10_000))
  expect(leqBetween({ sound, stepS: 3600 }, 22 * 3600, 6 * 3600)).toBeCloseTo(20, 9)
  expect(leqBetween({ sound, stepS: 3600 }, 6 * 3600, 22 * 3600)).toBeCloseTo(40, 9)
})

test('a day that was led in begins where the day before it ended', () => {
  const slow = { ...day, parts: [{ capacityJK: 9000, stillWK: 1, movedWK: 3, loadShare: 1, group: 0 }] }
  const led = simulateDay({ ...slow, leadS: 5 * 3000 })
  expect(led.parts[0]![0]).toBeCloseTo(48, 0)
  expect(Math.abs(led.balance.inJ - led.balance.outJ - led.balance.storedJ) / led.balance.inJ).toBeLessThan(
    0.001,
  )
})
