import { CP_AIR, GAS_CONSTANT_DRY, GAS_CONSTANT_VAPOUR, ZERO_CELSIUS_K } from './constants'

/** Coefficients over ice, then over water. Source: ASHRAE Fundamentals, psychrometrics, eqns (5) and (6); after Hyland and Wexler. */
const ICE = [
  -5.6745359e3, 6.3925247, -9.677843e-3, 6.2215701e-7, 2.0747825e-9, -9.484024e-13, 4.1635019,
] as const
const WATER = [-5.8002206e3, 1.3914993, -4.8640239e-2, 4.1764768e-5, -1.4452093e-8, 6.5459673] as const
/** Ratio of the molar masses of water and dry air. ASHRAE Fundamentals. */
const MASS_RATIO = 0.621945

/**
 * Saturation pressure of water vapour, Pa, over ice below 0 degC.
 * @param temperatureC -100 to 200 degC
 * @returns Pa, or null outside the range
 * Reference: ASHRAE Fundamentals, psychrometrics, eqns (5), (6); within 0.1 %
 */
export function saturationPressure(temperatureC: number): number | null {
  if (!(temperatureC >= -100 && temperatureC <= 200)) return null
  const t = temperatureC + ZERO_CELSIUS_K
  if (temperatureC < 0) {
    const [c1, c2, c3, c4, c5, c6, c7] = ICE
    return Math.exp(c1 / t + c2 + c3 * t + c4 * t ** 2 + c5 * t ** 3 + c6 * t ** 4 + c7 * Math.log(t))
  }
  const [c8, c9, c10, c11, c12, c13] = WATER
  return Math.exp(c8 / t + c9 + c10 * t + c11 * t ** 2 + c12 * t ** 3 + c13 * Math.log(t))
}

/**
 * Vapour pressure, Pa, from temperature (degC) and relative humidity (0..1); null where refused.
 * @param relativeHumidity 0..1
 */
export function vapourPressure(temperatureC: number, relativeHumidity: number): number | null {
  const saturation = saturationPressure(temperatureC)
  return saturation === null || !(relativeHumidity >= 0 && relativeHumidity <= 1)
    ? null
    : relativeHumidity * saturation
}

/**
 * Density of moist air, kg/m3: ideal mixture of dry air and vapour. Moist air is lighter than dry.
 * @param temperatureC -100 to 200 degC
 * @param pressurePa total pressure, above the vapour pressure
 * @param relativeHumidity 0..1
 * @returns kg/m3, or null for humidity outside 0..1 or vapour pressure not below the total
 * Reference: ideal gas mixture, within 0.12 % of CIPM-2007 from -20 to 60 degC
 * @example airDensity(20, 101325, 0.5) // 1.199
 */
export function airDensity(temperatureC: number, pressurePa: number, relativeHumidity: number): number | null {
  const pv = vapourPressure(temperatureC, relativeHumidity)
  if (pv === null || pv >= pressurePa) return null
  const t = temperatureC + ZERO_CELSIUS_K
  return (pressurePa - pv) / (GAS_CONSTANT_DRY * t) + pv / (GAS_CONSTANT_VAPOUR * t)
}

/**
 * Humidity ratio, kg of vapour per kg of dry air.
 * @param relativeHumidity 0..1
 * Reference: ASHRAE Fundamentals, psychrometrics, w = 0.621945 pv/(p - pv), without the enhancement factor
 */
export function humidityRatio(
  temperatureC: number,
  relativeHumidity: number,
  pressurePa: number,
): number | null {
  const pv = vapourPressure(temperatureC, relativeHumidity)
  return pv === null || pv >= pressurePa ? null : (MASS_RATIO * pv) / (pressurePa - pv)
}

/**
 * Dew point, degC, by the inverse Magnus form; -45 to 60 degC within 0.1 K (below 0 it is the dew point over water, not the frost point).
 * @param relativeHumidity above 0, to 1
 * Reference: Magnus form with 17.62 and 243.12 degC (WMO guide to instruments, CIMO)
 */
export function dewPoint(temperatureC: number, relativeHumidity: number): number | null {
  if (!(relativeHumidity > 0 && relativeHumidity <= 1)) return null
  const g = Math.log(relativeHumidity) + (17.62 * temperatureC) / (243.12 + temperatureC)
  return (243.12 * g) / (17.62 - g)
}

/** Latent heat of evaporation, J/kg, 0 to 60 degC within 0.1 %. Reference: linear fit to steam tables, 2.501e6 - 2370 t. */
export function latentHeat(temperatureC: number): number {
  return 2.501e6 - 2370 * temperatureC
}

/**
 * Thermodynamic wet-bulb temperature, degC, by bisection; only above the freezing point.
 * @param relativeHumidity 0..1
 * @returns degC within 0.2 K, or null where it lies below 0 degC or the input is refused
 * Reference: ASHRAE Fundamentals, psychrometrics, eqn (33)
 */
export function wetBulb(temperatureC: number, relativeHumidity: number, pressurePa: number): number | null {
  const w = humidityRatio(temperatureC, relativeHumidity, pressurePa)
  if (w === null) return null
  const excess = (x: number) => {
    const ws = humidityRatio(x, 1, pressurePa)!
    return (
      ((2501 - 2.326 * x) * ws - (CP_AIR / 1000) * (temperatureC - x)) /
        (2501 + 1.86 * temperatureC - 4.186 * x) -
      w
    )
  }
  let low = 0
  let high = temperatureC
  if (high < 0 || excess(low) > 0) return null
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (excess(middle) > 0) high = middle
    else low = middle
  }
  return (low + high) / 2
}
