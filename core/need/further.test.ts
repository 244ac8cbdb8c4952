import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { airflowForClearOut, clearOutTime } from './clear-out'
import { boxVolume, cylinderVolume, roofVolume } from './shapes'
import { captureDistance, captureFlow, captureGuide, captureSpeedAt, type CaptureOpening } from './capture'
import { flowForJet, jetReach, jetSpeed } from './jet'
import { lidEffect, speedForCooling, waterNetCooling } from './evaporation'
import { wallLoss, walls } from './wall'

const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const openings: CaptureOpening[] = ['plain', 'flanged', 'bench']

describe('capture, forwards and backwards', () => {
  test('the distance is the inverse of the flow', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...openings),
        positive(0.2, 2),
        positive(0.03, 0.5),
        positive(0.002, 0.05),
        (opening, v, x, a) => {
          const q = captureFlow(v, x, a, opening)
          expect(captureDistance(q, v, a, opening) / x).toBeCloseTo(1, 6)
          expect(captureSpeedAt(q, x, a, opening) / v).toBeCloseTo(1, 9)
        },
      ),
    )
  })
  test('far away, twice the distance wants four times the air (common practice)', () => {
    expect(captureFlow(0.5, 0.6, 0.002, 'plain') / captureFlow(0.5, 0.3, 0.002, 'plain')).toBeCloseTo(4, 1)
  })
  test('too little air for its own opening reaches nowhere', () => {
    expect(captureDistance(0.001, 1, 0.02, 'plain')).toBe(0)
  })
  test('guidance rises with the violence of the release', () => {
    for (const [i, row] of captureGuide.entries())
      if (i) expect(row.low).toBeGreaterThanOrEqual(captureGuide[i - 1]!.low)
  })
})

describe('clear-out', () => {
  test('flow and time are each other’s inverse', () => {
    fc.assert(
      fc.property(
        positive(0.05, 100),
        positive(60, 7200),
        positive(1, 10),
        positive(0.001, 0.9),
        (v, t, k, share) => {
          expect(clearOutTime(v, airflowForClearOut(v, t, k, share), k, 1, share)! / t).toBeCloseTo(1, 9)
        },
      ),
    )
  })
  // CDC table of air changes and minutes for 99 % removal, perfect mixing (published, from memory): 6 changes an hour, 46 minutes
  test('six changes an hour clear 99 % in 46 minutes', () => {
    expect((airflowForClearOut(100, 46 * 60, 1, 0.01) * 3600) / 100).toBeCloseTo(6, 1)
  })
})

describe('jets', () => {
  test('keep their core, then fall with distance', () => {
    const v0 = 0.002 / ((Math.PI / 4) * 0.04 ** 2)
    expect(jetSpeed(0.002, 0.04, 0.1)).toBeCloseTo(v0, 9)
    expect(jetSpeed(0.002, 0.04, 1)).toBeCloseTo(6.2 * v0 * 0.04, 9)
  })
  test('reach and flow are inverse beyond the core', () => {
    fc.assert(
      fc.property(positive(0.03, 0.2), positive(0.1, 1), (d, v) => {
        const x = 12 * d
        const q = flowForJet(d, x, v)
        expect(jetSpeed(q, d, x)).toBeCloseTo(v, 6)
        expect(jetReach(q, d, v) / x).toBeCloseTo(1, 6)
      }),
    )
  })
  test('a jet slower than wanted reaches nowhere', () => {
    expect(jetReach(0.0001, 0.1, 0.5)).toBe(0)
  })
})

describe('shapes and walls', () => {
  test('a roof space is half its box, a tub pi quarters', () => {
    expect(roofVolume(4, 3, 2)).toBe(boxVolume(4, 3, 2) / 2)
    expect(cylinderVolume(1, 1)).toBeCloseTo(Math.PI / 4, 12)
  })
  test('wall loss lies in its range, foam below steel', () => {
    for (const wall of walls) {
      const loss = wallLoss(wall, 0.4, 0.3, 0.2, 'free-standing')
      expect(loss.low).toBeLessThan(loss.value)
      expect(loss.high).toBeGreaterThan(loss.value)
    }
    expect(wallLoss(walls.at(-1)!, 1, 1, 1, 'wall').value).toBeLessThan(
      wallLoss(walls[0]!, 1, 1, 1, 'wall').value / 3,
    )
  })
})

describe('a lid over the water', () => {
  const water = { areaM2: 0.24, waterC: 24, airC: 27, relativeHumidity: 0.45, pressurePa: 101325 }
  test('the speed for a cooling gives that cooling', () => {
    const speed = speedForCooling({ ...water, activity: 1 }, 40)!
    expect(waterNetCooling({ ...water, activity: 1, airSpeed: speed })).toBeCloseTo(40, 6)
    expect(speedForCooling({ ...water, activity: 1 }, 1)).toBe(0)
    expect(speedForCooling({ ...water, activity: 1 }, 4000)).toBeNull()
  })
  test('open evaporates most, a closed lid least', () => {
    const at = (lid: keyof typeof lidEffect) =>
      waterNetCooling({ ...water, activity: lidEffect[lid].activity, airSpeed: 0.5 * lidEffect[lid].speed })!
    expect(at('open')).toBeGreaterThan(at('mesh'))
    expect(at('mesh')).toBeGreaterThan(at('still'))
  })
})
