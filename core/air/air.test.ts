import psychrolib from 'psychrolib'
import { describe, expect, test } from 'vitest'
import { airDensity, dewPoint, humidityRatio, saturationPressure, wetBulb } from './moist'
import { airState } from './state'
import { isaPressure, isaTemperature } from './atmosphere'

// psychrolib 1.1 implements ASHRAE docs/physics.md, Fundamentals 2017, chapter 1: the outside reference of this file
psychrolib.SetUnitSystem(psychrolib.SI)

const temperatures = [-20, -5, 0.5, 10, 20, 35, 60]
const humidities = [0.1, 0.5, 0.9]

describe('against psychrolib', () => {
  test.each(temperatures)('saturation pressure at %s degC within 0.1 %%', (t) => {
    expect(saturationPressure(t)! / psychrolib.GetSatVapPres(t)).toBeCloseTo(1, 3)
  })
  test.each([0, 500, 1500, 3000])('standard pressure at %s m', (h) => {
    expect(isaPressure(h)! / psychrolib.GetStandardAtmPressure(h)).toBeCloseTo(1, 4)
    expect(isaTemperature(h)! - 273.15).toBeCloseTo(psychrolib.GetStandardAtmTemperature(h), 2)
  })
  for (const t of temperatures.filter((x) => x > 0)) {
    test.each(humidities)(`density, humidity ratio, dew point, wet bulb at ${t} degC and %s`, (rh) => {
      const p = 95000
      const w = psychrolib.GetHumRatioFromRelHum(t, rh, p)
      expect(humidityRatio(t, rh, p)! / w).toBeCloseTo(1, 3)
      expect(airDensity(t, p, rh)! / psychrolib.GetMoistAirDensity(t, w, p)).toBeCloseTo(1, 3)
      const dew = psychrolib.GetTDewPointFromRelHum(t, rh)
      if (dew > 0) expect(Math.abs(dewPoint(t, rh)! - dew)).toBeLessThan(0.15)
      const wet = psychrolib.GetTWetBulbFromRelHum(t, rh, p)
      if (wet > 0.5) expect(Math.abs(wetBulb(t, rh, p)! - wet)).toBeLessThan(0.2)
    })
  }
})

describe('refusals', () => {
  test('impossible air has no density', () => {
    expect(airDensity(20, 101325, 1.2)).toBeNull()
    expect(airDensity(20, 101325, -0.1)).toBeNull()
    expect(airDensity(90, 50000, 1)).toBeNull()
    expect(airState(20, 12000, 0.5)).toBeNull()
  })
  test('moist air is lighter than dry air', () => {
    expect(airDensity(30, 101325, 0.9)!).toBeLessThan(airDensity(30, 101325, 0)!)
  })
})
