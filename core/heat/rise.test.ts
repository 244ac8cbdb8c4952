import fc from 'fast-check'
import * as simple from 'simple-statistics'
import { describe, expect, test } from 'vitest'
import { fitRise, temperatureAt, timeTo } from './rise'
import { twoNodeCycle, thermostatCycle } from './thermostat'
import {
  intervalHalfWidth,
  lttbIndices,
  minMaxIndices,
  paired,
  ptResistance,
  ptTemperature,
  slopeOf,
  standardDeviation,
  tQuantile,
  welch,
} from '#core/measure'
import { normal, seeded } from '#core/numeric'

/** Fine steps of a box that warms, with noise, gaps, and a door that may be opened: the truth that the fit is held against. */
function soak({ minutes = 20, tau = 420, final = 61, noise = 0.1, doorAt = Infinity, seed = 5 } = {}) {
  const random = seeded(seed)
  const z = normal(seeded(seed + 1000))
  const times: number[] = []
  const values: number[] = []
  let t = 22
  for (let s = 0; s < minutes * 60; s++) {
    const open = s >= doorAt && s < doorAt + 60
    t += (final - t) / tau - (open ? 0.05 * (t - 22) : 0)
    // every fifth second is read, one in six readings is lost
    if (s % 5 === 0 && random() > 1 / 6) {
      times.push(s)
      values.push(t + noise * z())
    }
  }
  return { times, values }
}

describe('the end of a soak, from its beginning', () => {
  test('twenty minutes of a seven-minute box tell the end within its own interval', () => {
    const { times, values } = soak()
    const fit = fitRise(times, values)!
    expect(fit.trusted).toBe(true)
    expect(Math.abs(fit.final - 61)).toBeLessThan(fit.halfWidth! + 0.2)
    expect(fit.tau).toBeCloseTo(420, -2)
  })
  test('in nine of ten noisy soaks of one and a half time constants the interval holds the truth', () => {
    let held = 0
    for (let seed = 1; seed <= 60; seed++) {
      const { times, values } = soak({ minutes: 10.5, noise: 0.15, seed })
      const fit = fitRise(times, values)!
      if (Math.abs(fit.final - 61) <= fit.halfWidth! + 0.05) held++
    }
    expect(held).toBeGreaterThanOrEqual(51)
  })
  test('three minutes are not believed, whatever they look like', () => {
    const { times, values } = soak({ minutes: 3 })
    expect(fitRise(times, values)?.trusted ?? false).toBe(false)
  })
  test('a door opened half-way is noticed and not believed', () => {
    const { times, values } = soak({ minutes: 12, doorAt: 420 })
    const fit = fitRise(times, values)
    expect(fit?.trusted ?? false).toBe(false)
    if (fit) expect(fit.why).toBe('something changed on the way')
  })
  test('ramps, constants and upward bends have no end', () => {
    const times = Array.from({ length: 30 }, (_, i) => 10 * i)
    expect(
      fitRise(
        times,
        times.map((t) => 20 + 0.01 * t),
      )?.trusted ?? false,
    ).toBe(false)
    expect(
      fitRise(
        times,
        times.map(() => 20),
      ),
    ).toBeNull()
    expect(
      fitRise(
        times,
        times.map((t) => 20 + 1e-4 * t * t),
      )?.trusted ?? false,
    ).toBe(false)
  })
  test('any clean rise is found again, and a hundred thousand readings as well as a hundred', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 2000, noNaN: true }),
        fc.double({ min: 30, max: 90, noNaN: true }),
        (tau, final) => {
          const times = Array.from({ length: 100 }, (_, i) => (i * tau) / 40)
          expect(
            fitRise(
              times,
              times.map((t) => temperatureAt(20, final, tau, t)),
            )!.final,
          ).toBeCloseTo(final, 3)
        },
      ),
      { numRuns: 30 },
    )
    const many = Float64Array.from({ length: 100_000 }, (_, i) => i * 0.01)
    expect(
      fitRise(
        many,
        many.map((t) => temperatureAt(20, 55, 300, t)),
      )!.final,
    ).toBeCloseTo(55, 2)
  })
  test('the time to a temperature is the inverse of the rise', () => {
    expect(timeTo(20, 60, 300, temperatureAt(20, 60, 300, 200))).toBeCloseTo(200, 9)
    expect(timeTo(20, 60, 300, 20)).toBe(0)
    expect(timeTo(20, 60, 300, 70)).toBeNull()
  })
})

describe('thermostats', () => {
  test('two nodes with a stiff link are one node', () => {
    const one = thermostatCycle({
      heat: 40,
      capacity: 900,
      gOn: 2.5,
      gOff: 0.8,
      ambientC: 25,
      onC: 50,
      offC: 44,
    })!
    const two = twoNodeCycle({
      heat: 40,
      capacity1: 1,
      capacity2: 899,
      g12: 50,
      gOn: 2.5,
      gOff: 0.8,
      ambientC: 25,
      onC: 50,
      offC: 44,
    })!
    expect(two.onS / one.onS).toBeCloseTo(1, 2)
    expect(two.offS / one.offS).toBeCloseTo(1, 2)
  })
})

describe('statistics against a general package', () => {
  const numbers = fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 3, maxLength: 30 })
  test('spread and slope', () => {
    fc.assert(
      fc.property(numbers, (values) => {
        expect(standardDeviation(values)!).toBeCloseTo(simple.sampleStandardDeviation(values), 8)
        const times = values.map((_, i) => i)
        expect(slopeOf(times, values)!).toBeCloseTo(simple.linearRegression(values.map((v, i) => [i, v])).m, 8)
      }),
    )
  })
  test('t against its published table, two-sided 95 %', () => {
    for (const [df, t] of [
      [1, 12.706],
      [4, 2.776],
      [7, 2.365],
      [15, 2.131],
      [30, 2.042],
    ] as const)
      expect(tQuantile(df)).toBeCloseTo(t, 3)
  })
  test('Welch of equal spreads is the pooled test; a difference is shown only outside its interval', () => {
    const w = welch([10, 11, 12, 13], [20, 21, 22, 23])!
    expect(w.difference).toBe(10)
    expect(w.df).toBeCloseTo(6, 9)
    expect(w.shown).toBe(true)
    expect(welch([10, 20, 30], [12, 21, 31])!.shown).toBe(false)
    expect(welch([1], [2, 3])).toBeNull()
    expect(paired([10, 20, 30], [12.1, 22, 31.9])!.shown).toBe(true)
    expect(intervalHalfWidth([5])).toBeNull()
  })
})

describe('decimation keeps what matters', () => {
  test('the highest and lowest reading of a long log stay, in order of time', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 50, maxLength: 400 }),
        (values) => {
          const kept = minMaxIndices(values, 20).map((i) => values[i]!)
          expect(Math.max(...kept)).toBe(Math.max(...values))
          expect(Math.min(...kept)).toBe(Math.min(...values))
          const indices = lttbIndices(values, 20)
          expect(indices).toHaveLength(20)
          expect([indices[0], indices.at(-1)]).toEqual([0, values.length - 1])
          expect(indices).toEqual([...indices].sort((a, b) => a - b))
        },
      ),
    )
  })
})

test('platinum there and back', () => {
  for (const t of [-150, -50, 0, 25, 100, 400])
    expect(ptTemperature(ptResistance(t, 1000), 1000)!).toBeCloseTo(t, 6)
  expect(ptTemperature(1e6, 100)).toBeNull()
})
