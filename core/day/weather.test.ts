import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { newDay, newStreamPlan, type Day } from '#core/document'
import { ambientOf, humidityOf, lightOf, loadOf, sunShape, weatherOf, weekOf } from './weather'
import { thinned } from './view'

/** The air, the load and the light of a day. Numbers invented. */

const HOUR = 3600
const DAY = 86_400
const { job } = newStreamPlan('j', 'J')
const dayOf = (change: Partial<Day>): Day => ({ ...newDay('d'), ...change })

describe('air', () => {
  test('a sine reaches its lowest and highest, twelve hours apart, and comes back', () => {
    const air = ambientOf(
      weatherOf(job, dayOf({ usualLowC: 14, usualHighC: 26, hottestAtS: 15 * HOUR }), 'usual'),
    )
    expect(air(15 * HOUR)).toBeCloseTo(26, 9)
    expect(air(3 * HOUR)).toBeCloseTo(14, 9)
    expect(air(DAY + 5000)).toBeCloseTo(air(5000), 9)
  })
  test('points are passed through, straight between, over midnight too, however the times are asked for', () => {
    const ambient = [
      { atS: 6 * HOUR, temperatureC: 10 },
      { atS: 12 * HOUR, temperatureC: 22 },
      { atS: 18 * HOUR, temperatureC: 16 },
    ]
    const air = ambientOf(weatherOf(job, dayOf({ ambient }), 'usual'))
    for (const p of ambient) expect(air(p.atS)).toBeCloseTo(p.temperatureC, 9)
    expect(air(9 * HOUR)).toBeCloseTo(16, 9)
    expect(air(0)).toBeCloseTo(13, 9)
    expect(air(-HOUR)).toBeCloseTo(air(23 * HOUR), 9)
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -DAY, max: 2 * DAY }), { minLength: 1, maxLength: 20 }),
        (times) => {
          const fresh = times.map((t) => ambientOf(weatherOf(job, dayOf({ ambient }), 'usual'))(t))
          // what was asked before changes nothing
          expect(times.map(air)).toEqual(fresh)
        },
      ),
    )
  })
  test('points count for the usual day only', () => {
    const ambient = [
      { atS: 0, temperatureC: 10 },
      { atS: 12 * HOUR, temperatureC: 22 },
    ]
    expect(weatherOf(job, dayOf({ ambient }), 'usual').points).toHaveLength(2)
    expect(weatherOf(job, dayOf({ ambient }), 'hot').points).toHaveLength(0)
  })
  test('one end that was typed stands, whatever is assumed of the other', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('cold' as const, 'usual' as const, 'hot' as const),
        fc.double({ min: -30, max: 60, noNaN: true }),
        fc.boolean(),
        (kind, value, low) => {
          const w = weatherOf(job, dayOf({ [`${kind}${low ? 'Low' : 'High'}C`]: value }), kind)
          expect(low ? w.lowC : w.highC).toBe(value)
          expect(w.highC).toBeGreaterThanOrEqual(w.lowC)
          expect(w.assumed).toBe(true)
        },
      ),
    )
  })
  test('the moisture of the air stays: warmer is drier, and the given hour is as given', () => {
    const rh = humidityOf((t) => 20 + t / HOUR, { ...job, ambientC: 20, humidity: 0.6 }, 101_325)
    expect(rh(0)).toBeCloseTo(0.6, 3)
    expect(rh(10 * HOUR)).toBeLessThan(rh(5 * HOUR))
    expect(humidityOf(() => -5, { ...job, ambientC: 20, humidity: 0.9 }, 101_325)(0)).toBe(1)
  })
})

describe('load and light', () => {
  const loads = [
    { fromS: 8 * HOUR, toS: 17 * HOUR, watts: 60 },
    { fromS: 12 * HOUR, toS: 13 * HOUR, watts: 5 },
    { fromS: 22 * HOUR, toS: 2 * HOUR, watts: 30 },
  ]
  test.each([
    [9, 60],
    [12.5, 5],
    [13, 60],
    [17, 2],
    [23, 30],
    [1, 30],
    [2, 2],
    [25, 30],
  ])('at %d h: %d W', (hour, watts) => {
    expect(loadOf(loads, 2)(hour * HOUR)).toBe(watts)
  })
  test('light over midnight', () => {
    const polar = lightOf(20 * HOUR, 4 * HOUR)
    expect([21, 3, 5, 19].map((h) => polar(h * HOUR))).toEqual([true, true, false, false])
  })
  test('the sun of a day is one day of it, and none at night', () => {
    const sun = sunShape(6 * HOUR, 20 * HOUR)
    let sum = 0
    for (let t = 30; t < DAY; t += 60) sum += 60 * sun(t)
    expect(sum).toBeCloseTo(1, 4)
    expect([sun(0), sun(5 * HOUR), sun(21 * HOUR)]).toEqual([0, 0, 0])
    expect(sunShape(20 * HOUR, 20 * HOUR)(20 * HOUR)).toBe(0)
  })
  test('a week is seven days, rests told, kinds filled up', () => {
    const week = weekOf(dayOf({ week: ['hot', 'cold'], restDays: [0, 6] }))
    expect(week.map((d) => d.kind)).toEqual(['hot', 'cold', 'usual', 'usual', 'usual', 'usual', 'usual'])
    expect(week.map((d) => d.works)).toEqual([false, true, true, true, true, true, false])
    expect(weekOf(null)).toHaveLength(7)
  })
})

test('thinning keeps least and most of everything, and gaps', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.double({ min: -50, max: 150, noNaN: true }), { minLength: 1, maxLength: 60 }), {
        minLength: 1,
        maxLength: 4,
      }),
      fc.integer({ min: 1, max: 40 }),
      (lists, columns) => {
        const lane = thinned(
          lists.map((l) => Float64Array.from(l)),
          columns,
        )
        const all = lists.flat()
        const known = (list: Float32Array) => [...list].filter((x) => !Number.isNaN(x))
        expect(Math.min(...known(lane.low))).toBe(Math.fround(Math.min(...all)))
        expect(Math.max(...known(lane.high))).toBe(Math.fround(Math.max(...all)))
        for (let i = 0; i < columns; i++)
          if (!Number.isNaN(lane.low[i]!)) expect(lane.low[i]!).toBeLessThanOrEqual(lane.high[i]!)
      },
    ),
  )
  expect(thinned([Float64Array.of(-Infinity, -Infinity)], 2).low.every(Number.isNaN)).toBe(true)
})
