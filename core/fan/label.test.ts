import { describe, expect, test } from 'vitest'
import fc from 'fast-check'
import { estimateFromLabel, type FanLabel } from './label'

const CFM = 0.000471947
const MMH2O = 9.80665
const label = (rest: Partial<FanLabel> = {}): FanLabel => ({
  kind: 'axial',
  frameM: 0.12,
  ratedV: 12,
  ratedA: null,
  ratedW: null,
  ratedRpm: null,
  maxFlowM3s: null,
  maxPressurePa: null,
  ...rest,
})

/**
 * What sheets of small fans usually say: side, label current at 12 V, speed, free delivery, shut-off pressure. Common
 * practice, from memory, no source; no one fan is meant.
 */
const usualSheets: [mm: number, amps: number, rpm: number, cfm: number, mm: number][] = [
  [40, 0.08, 6000, 6.2, 4],
  [60, 0.12, 4000, 19, 4.1],
  [80, 0.12, 2600, 34, 2.9],
  [80, 0.2, 3400, 45, 4.6],
  [92, 0.2, 2800, 52, 3.6],
  [120, 0.1, 1300, 48, 1.4],
  [120, 0.22, 2000, 76, 2.8],
  [140, 0.25, 1500, 90, 2.2],
]

describe('a fan from its label', () => {
  test.each(usualSheets)(
    '%i mm, %d A, %i rpm: the sheet lies in the range, by speed and by current',
    (mm, amps, rpm, cfm, head) => {
      for (const known of [{ ratedRpm: rpm }, { ratedA: amps }, {}]) {
        const e = estimateFromLabel(label({ frameM: mm / 1000, ...known }))!
        expect(cfm * CFM).toBeGreaterThan(e.maxFlow * e.low)
        expect(cfm * CFM).toBeLessThan(e.maxFlow * e.high)
        expect(head * MMH2O).toBeGreaterThan(e.maxPressure * e.low ** 2)
        expect(head * MMH2O).toBeLessThan(e.maxPressure * e.high ** 2)
      }
    },
  )
  test('the more is known, the narrower it is', () => {
    const width = (rest: Partial<FanLabel>) => {
      const e = estimateFromLabel(label(rest))!
      return e.high / e.low
    }
    const byFlow = width({ maxFlowM3s: 0.03 })
    expect(width({ ratedRpm: 2000 })).toBeLessThan(byFlow)
    expect(byFlow).toBeLessThan(width({ ratedA: 0.2 }))
    expect(width({ ratedA: 0.2 })).toBeLessThan(width({}))
  })
  test('what is printed stays as printed', () => {
    expect(estimateFromLabel(label({ maxFlowM3s: 0.03 }))).toMatchObject({
      maxFlow: 0.03,
      from: 'size and airflow',
    })
    expect(estimateFromLabel(label({ maxPressurePa: 40 }))).toMatchObject({ maxPressure: 40 })
  })
  test('current counts with its voltage, and is the same as the power it makes', () => {
    const current = estimateFromLabel(label({ ratedV: 24, ratedA: 0.1 }))!
    expect(current.maxFlow).toBeCloseTo(estimateFromLabel(label({ ratedW: 2.4 }))!.maxFlow, 9)
  })
  test('fan laws hold: flow by n·D³, pressure by n²·D²; a frame of nothing is no fan', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.3, noNaN: true }),
        fc.integer({ min: 300, max: 12000 }),
        (d, rpm) => {
          const one = estimateFromLabel(label({ frameM: d, ratedRpm: rpm }))!
          const two = estimateFromLabel(label({ frameM: d, ratedRpm: 2 * rpm }))!
          expect(two.maxFlow / one.maxFlow).toBeCloseTo(2, 9)
          expect(two.maxPressure / one.maxPressure).toBeCloseTo(4, 9)
        },
      ),
    )
    expect(estimateFromLabel(label({ frameM: 0 }))).toBeNull()
  })
})
