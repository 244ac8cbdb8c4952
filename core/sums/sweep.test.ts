import { describe, expect, test } from 'vitest'
import { convert } from '#core/verification'
import { reachOf, sums, sweep } from './index'

const of = (key: string) => sums.find((s) => s.key === key)!
const inputs = (n: Record<string, number | null>) => ({ n, lists: {}, choice: {}, density: 1.2 })

describe('a sum as one of its fields changes', () => {
  test('from half to twice, through what was typed; each point is the sum itself', () => {
    const speed = inputs({ v: 2, a: 0.01 })
    const curve = sweep(of('flow-speed-area'), speed, 'v')
    expect(curve).toHaveLength(41)
    expect([curve[0]!.at, curve[20]!.at, curve[40]!.at]).toEqual([1, 2, 4])
    for (const { at, value } of curve) {
      const one = convert(of('flow-speed-area'), inputs({ v: at, a: 0.01 }))
      expect(value).toBe(one.ok && one.figures[0]!.value)
    }
  })
  test('a level and a temperature ten to either side, a share up to all of it', () => {
    expect(reachOf({ quantity: 'level' }, 40)).toEqual([30, 50])
    expect(reachOf({ quantity: 'temperature' }, -5)).toEqual([-15, 5])
    expect(reachOf({ quantity: 'ratio' }, 0.8)).toEqual([0.4, 1])
    expect(reachOf({ quantity: 'voltage' }, 12)).toEqual([6, 24])
  })
  test('where there is no answer there is a gap, not a number', () => {
    // 12 V supply: from 12 V at the fan on nothing is left to take away
    const curve = sweep(of('resistor'), inputs({ supply: 12, fan: 8, current: 0.1, ambient: 25 }), 'fan')
    expect(curve.filter((p) => p.at < 12).every((p) => p.value !== null)).toBe(true)
    expect(curve.filter((p) => p.at >= 12).every((p) => p.value === null)).toBe(true)
    expect(curve.some((p) => p.at >= 12)).toBe(true)
  })
  test('a field without a value, an unknown one and zero give no curve', () => {
    expect(sweep(of('resistor'), inputs({ supply: 12, fan: null, current: 0.1 }), 'fan')).toEqual([])
    expect(sweep(of('resistor'), inputs({ supply: 12 }), 'other')).toEqual([])
    expect(sweep(of('thin-air'), inputs({ altitude: 0, temperature: 20, humidity: 0.5 }), 'altitude')).toEqual(
      [],
    )
  })
})
