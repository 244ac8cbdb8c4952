import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { headroomVerdict } from './budget'
import { voltageBehind } from './fan-on-wire'
import { wireDrop } from './wire'

describe('a fan behind a resistance', () => {
  test('voltages add up, whatever the current does', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 0.001, max: 200, noNaN: true }),
        fc.double({ min: 1, max: 2, noNaN: true }),
        (supply, ohm, exponent) => {
          const current = (v: number) => 0.3 * (v / 12) ** exponent
          const v = voltageBehind(supply, ohm, current)
          expect(v + ohm * current(v)).toBeCloseTo(supply, 6)
        },
      ),
    )
  })
  test('no resistance, no drop', () => expect(voltageBehind(12, 0, () => 5)).toBe(12))
  test('the drop counts both ways', () => expect(wireDrop(3, 0.05, 0.4)).toBeCloseTo(0.12, 12))
  test('head-room limits', () =>
    expect([0.8, 0.81, 1, 1.01].map(headroomVerdict)).toEqual(['ok', 'fix', 'fix', 'stop']))
})
