/** Specific gas constant of dry air, J/(kg.K). ISO 2533 (287.05287), rounded as in the handbook. */
export const GAS_CONSTANT_DRY = 287.05
/** Specific gas constant of water vapour, J/(kg.K). ASHRAE Fundamentals, psychrometrics. */
export const GAS_CONSTANT_VAPOUR = 461.52
/** Specific heat of dry air at constant pressure, J/(kg.K), within 0.2 % from 0 to 80 degC. ASHRAE form. */
export const CP_AIR = 1006
/** Air density that fan data are stated at unless the sheet says otherwise, kg/m3 (20 degC, sea level). Common practice. */
export const REFERENCE_DENSITY = 1.2
/** Pressure of the standard atmosphere at sea level, Pa. ISO 2533. */
export const SEA_LEVEL_PRESSURE = 101325
export const ZERO_CELSIUS_K = 273.15
/** Largest altitude of the troposphere formulas, m. ISO 2533. */
export const TROPOPAUSE_M = 11000
/** Standard gravity, m/s2. Third CGPM, 1901. */
export const GRAVITY = 9.80665
