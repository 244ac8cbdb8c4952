import { describe, expect, test } from 'vitest'
import {
  converterOf,
  newElement,
  newFan,
  newSource,
  newStreamPlan,
  setDrive,
  type Fan,
  type StreamPlan,
  type Source,
  plannedFans,
} from '#core/document'
import { slowDownWays, type SlowRow } from '#core/supply'
import { fanArrayOf } from '#core/system'
import { withAlso } from '#core/rules'
import { computeReport } from './report'
import { feedFrom, pick, selectionOf } from '../../tests/plans'

/** A way to slow down that is taken does what its row said: the same voltage, the same heat, the same reason against it. */

// invented
const fan: Fan = {
  ...newFan('f'),
  maker: 'Testmoor',
  model: 'Whin 92',
  frameM: 0.092,
  ratedA: 0.18,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  wires: 4,
  pwmMinDuty: 0.2,
  pwmMinSpeed: 0.2,
  points: [
    { flowM3s: 0, pressurePa: 50 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
}
const sources = {
  'a rail of 24 V': { ...newSource('s', 'rail'), nominalV: 24, lowV: 23.5, highV: 24.5, iMaxA: 2 },
  'a regulated adapter': { ...newSource('s', 'adapter'), nominalV: 12, lowV: 11.8, highV: 12.2, iMaxA: 2 },
  'an unregulated adapter': {
    ...newSource('s', 'adapter'),
    nominalV: 12,
    iMaxA: 1,
    regulated: false,
    openV: 17,
  },
}
function planOn(source: Source, count: number): StreamPlan {
  const plan = newStreamPlan('j', 'Slow')
  plan.path = [{ ...newElement('o', 'opening'), areaM2: 0.006 }, newElement('fan', 'fan')]
  pick(plan, selectionOf('f', { count, arrangement: count > 1 ? 'parallel' : 'single' }), 12)
  feedFrom(plan, structuredClone(source))
  return plan
}
/** The row taken as a person takes it. */
function taken(plan: StreamPlan, row: SlowRow, volts: number): StreamPlan {
  const next = structuredClone(plan)
  const converterId = 'c'
  if (row.take) setDrive(next, { volts, duty: null, by: row.take, converterId })
  else setDrive(next, { volts: row.fanV ?? 12, duty: row.duty, by: 'straight', converterId })
  const made = converterOf(next)
  if (made) made.setFirst = true
  return next
}
const reportOf = (plan: StreamPlan) => {
  const made = computeReport({ plan, fans: [fan], shown: null })
  if (!made.ok) throw new Error(made.reason)
  return made.report
}
const cases = Object.entries(sources).flatMap(([name, source]) =>
  [1, 3].flatMap((count) =>
    [7, 9.5].flatMap((volts) => {
      const plan = planOn(source, count)
      const made = fanArrayOf(plannedFans(plan)!, [fan])
      if (!made.ok) throw new Error(made.reason)
      return slowDownWays(plan, made.fanArray, volts)
        .filter((row) => row.take || row.way === 'straight' || row.way === 'pwm-wire')
        .map((row) => ({ name: `${count} on ${name} to ${volts} V: ${row.name}`, plan, row, volts }))
    }),
  ),
)

describe('a way to slow down, once taken', () => {
  test('there are many to be tried', () => {
    expect(cases.length).toBeGreaterThan(60)
    expect(new Set(cases.map((c) => c.row.way)).size).toBeGreaterThan(6)
  })
  test.each(cases)('$name', ({ plan, row, volts }) => {
    const { power, findings } = reportOf(taken(plan, row, volts))
    // half a diode, a step of the preferred values: what the row promises is held, not what was wished
    expect(power.fanV! / row.fanV!).toBeCloseTo(1, 1)
    expect(Math.abs(power.fanV! - row.fanV!)).toBeLessThan(0.35)
    const converter = power.feed.nodes.find((n) => n.id === 'c')
    if (converter && row.heatW !== null && row.heatW > 0.1)
      expect(converter.heatW / row.heatW, 'heat in it').toBeGreaterThan(0.8)
    if (converter && row.heatW !== null && row.heatW > 0.1)
      expect(converter.heatW / row.heatW, 'heat in it').toBeLessThan(1.25)
    // what the row stops for, the plan stops for, and the other way round
    const stops = withAlso(findings.findings).filter((f) => f.severity === 'stop' && f.group === 'power')
    expect(stops.length > 0, stops.map((f) => f.id).join()).toBe(row.hazard?.severity === 'stop')
  })
})
