/**
 * Dynamic viscosity of air, Pa.s (Sutherland).
 * @param temperatureK 200 to 400 K, within 0.6 %
 * Reference: Sutherland's law with the constants of ISO 2533: 1.458e-6 T^1.5/(T + 110.4)
 * @example airViscosity(293.15) // 1.81e-5
 */
export function airViscosity(temperatureK: number): number | null {
  return temperatureK > 0 ? (1.458e-6 * temperatureK ** 1.5) / (temperatureK + 110.4) : null
}
