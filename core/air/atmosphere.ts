import { GAS_CONSTANT_DRY, SEA_LEVEL_PRESSURE, TROPOPAUSE_M } from './constants'

/**
 * Temperature of the standard atmosphere, K.
 * @param altitudeM geopotential altitude, m, below 11 000
 * @returns K, or null above the troposphere
 * Reference: ISO 2533; T = 288.15 - 0.0065 h
 */
export function isaTemperature(altitudeM: number): number | null {
  return altitudeM < TROPOPAUSE_M ? 288.15 - 0.0065 * altitudeM : null
}

/**
 * Pressure of the standard atmosphere, Pa: what a real site has within ±3 % of weather.
 * @param altitudeM altitude, m, below 11 000
 * Reference: ISO 2533; p = 101325 (1 - 2.25577e-5 h)^5.25588
 * @example isaPressure(1000) // 89875
 */
export function isaPressure(altitudeM: number): number | null {
  return altitudeM < TROPOPAUSE_M ? SEA_LEVEL_PRESSURE * (1 - 2.25577e-5 * altitudeM) ** 5.25588 : null
}

/** Density of the dry standard atmosphere, kg/m3, from its own temperature and pressure. Reference: ISO 2533. */
export function isaDensity(altitudeM: number): number | null {
  const temperature = isaTemperature(altitudeM)
  const pressure = isaPressure(altitudeM)
  return temperature === null || pressure === null ? null : pressure / (GAS_CONSTANT_DRY * temperature)
}
