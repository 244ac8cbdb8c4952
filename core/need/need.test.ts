import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { saturationPressure } from '#core/air'
import { airflowForExcess, airflowForMoisture, moistureRemoval, steadyExcess, stirEnergy } from './dilution'
import { airflowForHeat, airflowWithWallLoss, effectiveArea, stirredRise } from './heat'
import { captureFlow, captureSpeedAt, openingFlow, openingPressure } from './capture'
import { clearOutTime } from './clear-out'
import { evaporationRate, evaporativeCooling, waterNetCooling } from './evaporation'
import { airChangeGuide, airChangesFlow } from './air-changes'

const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true })

describe('heat', () => {
  test('flow for a rise and rise at a flow are each other’s inverse', () => {
    fc.assert(
      fc.property(positive(1, 2000), positive(1, 50), positive(0.7, 1.3), (heat, rise, rho) => {
        expect(stirredRise(heat, 0, airflowForHeat(heat, 20, 20 + rise, rho)!, rho)).toBeCloseTo(rise, 8)
      }),
    )
  })
  test('the trade’s rule of thumb: 3.1 m3/h per W and K, within 5 % (common practice, no source)', () => {
    expect((airflowForHeat(100, 20, 30, 1.2)! * 3600) / (3.1 * 10)).toBeCloseTo(1, 1)
  })
  test('air cannot cool below its own temperature', () => {
    expect(airflowForHeat(50, 25, 25, 1.2)).toBeNull()
    expect(airflowForHeat(50, 25, 20, 1.2)).toBeNull()
    expect(airflowForHeat(-5, 20, 30, 1.2)).toBeNull()
    expect(airflowForHeat(0, 25, 20, 1.2)).toBe(0)
    expect(stirredRise(50, 0, 0, 1.2)).toBeNull()
  })
  test('walls take their part, and may do it alone', () => {
    fc.assert(
      fc.property(positive(1, 500), positive(0, 10), positive(1, 40), (heat, ua, rise) => {
        const flow = airflowWithWallLoss(heat, ua, 20 + rise, 20, 1.2)!
        if (flow > 0) expect(stirredRise(heat, ua, flow, 1.2)).toBeCloseTo(rise, 6)
        else expect(ua * rise).toBeGreaterThanOrEqual(heat)
      }),
    )
    expect(airflowWithWallLoss(50, 1, 20, 20, 1.2)).toBeNull()
    expect(stirredRise(50, 0, 0, 1.2)).toBeNull()
    // drawn out warm, the same volume carries less: the balance holds with the density of the air that leaves
    const rise = stirredRise(60, 1.5, 0.006, 1.2, 293.15)!
    expect(1.5 * rise + ((1.2 * 293.15) / (293.15 + rise)) * 1006 * 0.006 * rise).toBeCloseTo(60, 9)
    expect(stirredRise(60, 0, 0.006, 1.2, 293.15)!).toBeGreaterThan(stirredRise(60, 0, 0.006, 1.2)!)
  })
  test('a box at the wall cools by less surface than a free one', () => {
    expect(effectiveArea(1, 0.6, 0.4, 'wall')).toBeLessThan(effectiveArea(1, 0.6, 0.4, 'free-standing'))
  })
})

describe('spaces', () => {
  test('air changes', () => {
    expect(airChangesFlow(30, 6) * 3600).toBeCloseTo(180, 9)
    for (const row of airChangeGuide) expect(row.low).toBeLessThanOrEqual(row.high)
  })
  test('clear-out: 99 % at six changes an hour takes 46 min, 99.9 % 69 min (CDC table, perfect mixing)', () => {
    expect(clearOutTime(60, 0.1, 1, 1, 0.01)! / 60).toBeCloseTo(46.05, 1)
    expect(clearOutTime(60, 0.1, 1, 1, 0.001)! / 60).toBeCloseTo(69.08, 1)
  })
  test('clear-out: already there, never there, without air', () => {
    expect(clearOutTime(60, 0.1, 1, 1, 1)).toBe(0)
    expect(clearOutTime(60, 0.1, 1, 1, 0.1, 0.2)).toBeNull()
    expect(clearOutTime(60, 0, 1, 1, 0.1)).toBeNull()
    expect(clearOutTime(60, 0.1, 3, 1, 0.1)!).toBeCloseTo(3 * clearOutTime(60, 0.1, 1, 1, 0.1)!, 9)
  })
  test('gas balance', () => {
    expect(steadyExcess(1e-5, airflowForExcess(1e-5, 1200e-6, 420e-6)!)).toBeCloseTo(780e-6, 12)
    expect(airflowForExcess(1e-5, 400e-6, 420e-6)).toBeNull()
    expect(steadyExcess(1e-5, 0)).toBeNull()
  })
  test('moisture: what a flow removes is what it was asked to remove; damp air brings water in', () => {
    const dry = { insideC: 22, insideRh: 0.6, outsideC: 5, outsideRh: 0.8, pressurePa: 101325 }
    expect(moistureRemoval(airflowForMoisture(2e-5, dry)!, dry)).toBeCloseTo(2e-5, 12)
    const damp = { ...dry, outsideC: 28, outsideRh: 0.9 }
    expect(moistureRemoval(0.01, damp)!).toBeLessThan(0)
    expect(airflowForMoisture(2e-5, damp)).toBeNull()
    expect(moistureRemoval(0.01, { ...dry, insideRh: 1.4 })).toBeNull()
  })
  test('stirring: the fan’s heat is pumped out again', () =>
    expect(stirEnergy(2, 1, 0.5) / 3600).toBeCloseTo(48, 9))
})

describe('capture and leaks', () => {
  test('halving the distance saves about three quarters of the flow', () => {
    expect(captureFlow(0.5, 0.15, 0.0001, 'plain') / captureFlow(0.5, 0.3, 0.0001, 'plain')).toBeCloseTo(
      0.25,
      2,
    )
    expect(captureFlow(0.5, 0.2, 0.01, 'flanged')).toBeCloseTo(0.75 * captureFlow(0.5, 0.2, 0.01, 'plain'), 12)
    expect(captureFlow(0.5, 0.2, 0.01, 'bench')).toBeLessThan(captureFlow(0.5, 0.2, 0.01, 'flanged'))
    // at one diameter about 7 % of the face velocity is left
    expect(captureSpeedAt(Math.PI / 4, 1, Math.PI / 4, 'plain')).toBeCloseTo(0.073, 3)
  })
  test('leak: pressure and flow', () => {
    expect(openingPressure(openingFlow(4, 0.002, 0.65, 1.2), 0.002, 0.65, 1.2)).toBeCloseTo(4, 9)
  })
})

describe('a water surface', () => {
  const pond = {
    areaM2: 0.3,
    waterC: 20,
    airC: 24,
    relativeHumidity: 0.5,
    pressurePa: 101325,
    airSpeed: 0.1,
    activity: 1,
  }
  test('evaporates more when it is blown at, nothing into saturated warm air', () => {
    expect(evaporationRate({ ...pond, airSpeed: 0.5 })!).toBeGreaterThan(evaporationRate(pond)!)
    expect(evaporationRate({ ...pond, airC: 35, relativeHumidity: 1 })).toBe(0)
    expect(waterNetCooling({ ...pond, airC: 35, relativeHumidity: 1 })).toBe(0)
    expect(evaporationRate({ ...pond, relativeHumidity: 2 })).toBeNull()
  })
  test('warmer air pays part of the evaporation', () => {
    expect(waterNetCooling(pond)!).toBeLessThan(evaporativeCooling(pond)!)
    expect(waterNetCooling({ ...pond, airC: 20 })).toBeCloseTo(evaporativeCooling({ ...pond, airC: 20 })!, 9)
    expect(saturationPressure(20)).toBeCloseTo(2339, 0)
  })
})
