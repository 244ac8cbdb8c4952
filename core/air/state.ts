import { isaPressure } from './atmosphere'
import { REFERENCE_DENSITY, ZERO_CELSIUS_K } from './constants'
import { airDensity } from './moist'
import { airViscosity } from './viscosity'

export interface AirState {
  temperatureC: number
  pressurePa: number
  relativeHumidity: number
  /** kg/m3 */
  density: number
  /** Pa.s */
  viscosity: number
  /** density / 1.2 kg/m3, the ratio that fan pressures scale with */
  densityRatio: number
}

/**
 * The air at a place: pressure from the altitude, temperature and humidity from the person.
 * @param temperatureC -60 to 200 degC
 * @param altitudeM below 11 000 m
 * @param relativeHumidity 0..1
 * @returns null where the combination does not exist
 * Reference: ideal mixture, ISO 2533
 */
export function airState(temperatureC: number, altitudeM: number, relativeHumidity: number): AirState | null {
  const pressurePa = isaPressure(altitudeM)
  if (pressurePa === null) return null
  const density = airDensity(temperatureC, pressurePa, relativeHumidity)
  const viscosity = airViscosity(temperatureC + ZERO_CELSIUS_K)
  if (density === null || viscosity === null) return null
  return {
    temperatureC,
    pressurePa,
    relativeHumidity,
    density,
    viscosity,
    densityRatio: density / REFERENCE_DENSITY,
  }
}
