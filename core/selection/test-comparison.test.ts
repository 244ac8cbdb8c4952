import { describe, expect, test } from 'vitest'
import { newFan, newTest, type Fan, type FanTest } from '#core/document'
import { claimRows } from './claims'
import { compareTests } from './test-comparison'

const on = (id: string, rest: Partial<FanTest>): FanTest => ({
  ...newTest(id, 12, '2026-01-01T10:00:00.000Z'),
  ...rest,
})
const fan = (id: string, tests: FanTest[], rest: Partial<Fan> = {}): Fan => ({
  ...newFan(id),
  model: id,
  tests,
  ...rest,
})

describe('tests of a shelf side by side', () => {
  const quiet = fan('quiet', [on('a', { levelDbA: 20, levelDistanceM: 1, pressurePa: 20, flowM3s: 0.01 })], {
    price: 10,
  })
  const loud = fan('loud', [on('b', { levelDbA: 30, levelDistanceM: 1, pressurePa: 50, airSpeedMs: 6 })])
  const near = fan('near', [on('c', { levelDbA: 45, levelDistanceM: 0.05, flowM3s: 0.01 })])
  const mute = fan('mute', [on('d', { flowM3s: 0.02 })])
  const rows = compareTests([mute, near, loud, quiet])

  test('the quietest first, ten decibels twice as loud, what was not read last', () => {
    expect(rows.map((r) => r.fan)).toEqual(['quiet', 'loud', 'near', 'mute'])
    expect(rows.map((r) => r.loudness)).toEqual([1, 2, 1, null])
  })
  test('per loudness and per money', () => {
    expect(rows[0]).toMatchObject({ pressurePerLoudness: 20, pressurePerMoney: 2, flowPerMoney: 0.001 })
    expect(rows[1]).toMatchObject({ pressurePerLoudness: 25, speedPerLoudness: 3, pressurePerMoney: null })
  })
  test('a near-field reading is not taken to another distance, nor held against far ones', () => {
    expect(rows[2]).toMatchObject({ nearField: true, levelDbA: 45, loudness: 1 })
  })
  test('at half a metre the level is taken to one', () => {
    const [row] = compareTests([fan('x', [on('e', { levelDbA: 26, levelDistanceM: 0.5 })])])
    expect(row!.levelDbA).toBeCloseTo(26 - 20 * Math.log10(2), 6)
  })
})

test('a claim as read and at equal speed: both are told, at their own voltage', () => {
  const tested = fan('f', [on('1', { volts: 9, rpm: 1500, flowM3s: 0.0168 })], {
    ratedV: 12,
    ratedRpm: 2400,
    maxFlowM3s: 0.02,
    maxPressurePa: 40,
  })
  const flow = claimRows(tested).find((r) => r.figure === 'flow')!
  // 84 % of the printed claim, 134 % of what the claim is at that speed
  expect(flow.plain).toBeCloseTo(0.84, 6)
  expect(flow.ratio).toBeCloseTo(0.84 / (1500 / 2400), 6)
  // what the claim is at the speed that it was tested at: 20 l/s times 1500 of 2400
  expect(flow.claimed).toBeCloseTo(0.0125, 9)
  expect(flow).toMatchObject({ flag: 'far-off', side: 'over' })
})
