import { describe, expect, test } from 'vitest'
import { slowing } from './slow'

const HOUR = 3600_000

describe('guesses are slowed', () => {
  test('the first few are free, then each one costs twice the wait of the one before, up to a minute', () => {
    const guesses = slowing()
    const waits: number[] = []
    for (let i = 0; i < 14; i++) {
      waits.push(guesses.waitS('a', HOUR))
      guesses.failed('a', HOUR)
    }
    expect(waits).toEqual([0, 0, 0, 0, 0, 1, 2, 4, 8, 16, 32, 60, 60, 60])
  })
  test('a wait ends by itself, is only of that address, and is forgotten in time or by success', () => {
    const guesses = slowing()
    for (let i = 0; i < 6; i++) guesses.failed('a', HOUR)
    expect(guesses.waitS('a', HOUR + 1999)).toBe(1)
    expect(guesses.waitS('a', HOUR + 2000)).toBe(0)
    expect(guesses.waitS('b', HOUR)).toBe(0)
    guesses.failed('a', HOUR + 2000)
    expect(guesses.waitS('a', HOUR + 2000)).toBe(4)
    expect(guesses.waitS('a', 2 * HOUR)).toBe(0)
    guesses.succeeded('a')
    guesses.failed('a', HOUR + 3000)
    expect(guesses.waitS('a', HOUR + 3000)).toBe(0)
  })
  test('however many addresses guess, only so many are remembered', () => {
    const guesses = slowing()
    for (let i = 0; i < 8; i++) guesses.failed('first', HOUR)
    for (let i = 0; i < 10_000; i++) guesses.failed(`other ${i}`, HOUR)
    expect(guesses.waitS('first', HOUR)).toBe(0)
  })
})
