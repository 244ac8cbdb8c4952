import { describe, expect, test } from 'vitest'
import { networkOf, slowing } from './slow'

const HOUR = 3600_000

describe('guesses are slowed', () => {
  test('the first few are free, then each one costs twice the wait of the one before, up to a minute', () => {
    const guesses = slowing()
    let now = HOUR
    const waits: number[] = []
    for (let i = 0; i < 14; i++) {
      const wait = guesses.begin('a', now)
      waits.push(wait)
      now += 1000 * wait
      if (wait) expect(guesses.begin('a', now)).toBe(0)
    }
    expect(waits).toEqual([0, 0, 0, 0, 0, 1, 2, 4, 8, 16, 32, 60, 60, 60])
  })
  test('those sent at once are counted before any of them is checked', () => {
    const guesses = slowing()
    expect(Array.from({ length: 200 }, () => guesses.begin('a', HOUR)).filter((w) => w === 0)).toHaveLength(5)
  })
  test('a wait ends by itself, is only of that address, and is forgotten in time or by success', () => {
    const guesses = slowing()
    for (let i = 0; i < 5; i++) guesses.begin('a', HOUR)
    expect(guesses.begin('a', HOUR + 999)).toBe(1)
    expect(guesses.begin('b', HOUR)).toBe(0)
    expect(guesses.begin('a', HOUR + 1000)).toBe(0)
    expect(guesses.begin('a', HOUR + 1000)).toBe(2)
    expect(guesses.begin('a', 2 * HOUR)).toBe(0)
    expect(guesses.begin('a', 2 * HOUR)).toBe(0)
    for (let i = 0; i < 5; i++) guesses.begin('c', HOUR)
    guesses.succeeded('c')
    expect(guesses.begin('c', HOUR)).toBe(0)
  })
  test('a clock that is set back makes nobody wait longer than a minute', () => {
    const guesses = slowing()
    for (let i = 0; i < 5; i++) guesses.begin('a', 100 * HOUR)
    expect(guesses.begin('a', HOUR)).toBeLessThanOrEqual(60)
  })
  test('however many addresses guess, only so many are remembered', () => {
    const guesses = slowing()
    for (let i = 0; i < 8; i++) guesses.begin('first', HOUR)
    expect(guesses.begin('first', HOUR)).toBe(1)
    for (let i = 0; i < 10_000; i++) guesses.begin(`other ${i}`, HOUR)
    expect(guesses.begin('first', HOUR)).toBe(0)
  })
  test.each([
    ['192.0.2.7', '192.0.2.7'],
    ['::ffff:192.0.2.7', '192.0.2.7'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
    ['2001:db8:1:2::9', '2001:db8:1:2'],
    ['2001:db8::9', '2001:db8:0:0'],
    ['fe80::1%eth0', 'fe80:0:0:0'],
  ])('%s guesses as %s', (address, network) => expect(networkOf(address)).toBe(network))
})
