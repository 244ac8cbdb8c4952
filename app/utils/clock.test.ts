import { expect, test } from 'vitest'
import { parseClock, printClock } from './clock'

test.each([
  ['8', 28_800],
  ['8:30', 30_600],
  ['08.30', 30_600],
  ['8 h 30', 30_600],
  ['24:00', 86_400],
  ['24:01', null],
  ['8:75', null],
  ['noon', null],
  ['', null],
])('%s', (text, seconds) => {
  expect(parseClock(text)).toBe(seconds)
  if (seconds !== null) expect(parseClock(printClock(seconds))).toBe(seconds)
})
