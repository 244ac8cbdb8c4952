import { expect, test } from 'vitest'
import { areaPath, laneAt, linePath, niceScale, yOf } from './day-layout'

const lane = (low: number[], high = low) => ({ low: Float32Array.from(low), high: Float32Array.from(high) })
const scale = { from: 0, to: 10, top: 0, height: 100 }

test('round ends hold all values', () => {
  const { from, to, ticks } = niceScale([21.3, 47.9, NaN], 0, 100)
  expect([from, to]).toEqual([20, 50])
  expect(ticks).toEqual([20, 30, 40, 50])
  expect(niceScale([], 0, 10).to).toBeGreaterThan(niceScale([], 0, 10).from)
})
test('a peak within a column is drawn, a gap lifts the pen', () => {
  expect(linePath(lane([2, NaN, 4], [8, NaN, 4]), 0, 30, scale)).toBe('M5 80L5 20M25 60')
})
test('an area stands on its foot, and nothing stands where nothing runs', () => {
  expect(areaPath(lane([0, 5]), 0, 20, scale)).toBe('M10 100V50h10.2V100z')
})
test('a value beyond the scale stays in the drawing', () => {
  expect(yOf(scale, 20)).toBe(0)
  expect(yOf(scale, -3)).toBe(100)
})
test('what the cursor reads', () => {
  expect(laneAt(lane([1, 3], [3, 5]), 0.9)).toBe(4)
  expect(laneAt(lane([NaN]), 0.5)).toBeNull()
})
