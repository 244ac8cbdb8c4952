/**
 * Hot end of a chain of resistances, degC.
 * @param heat W
 * @param resistances K/W each
 * Reference: thermal resistance networks; docs/physics.md HT1 to HT5
 */
export const chainTemperature = (heat: number, resistances: readonly number[], ambientC: number) =>
  ambientC + heat * resistances.reduce((s, r) => s + r, 0)
/**
 * Two chains side by side, degC.
 * @param heat W
 * @param first K/W
 * @param second K/W
 * Reference: thermal resistance networks; docs/physics.md HT1 to HT5
 */
export function twoPathTemperature(
  heat: number,
  first: readonly number[],
  second: readonly number[],
  ambientC: number,
): number {
  const sum = (list: readonly number[]) => list.reduce((s, r) => s + r, 0)
  return ambientC + heat / (1 / sum(first) + 1 / sum(second))
}
/**
 * Efficiency of a thin straight fin with an adiabatic tip. @param h W/(m2.K) @param k W/(m.K)
 * @param thickness m, above 0
 * @param height m, above 0
 * Reference: fin theory
 */
export function finEfficiency(h: number, k: number, thickness: number, height: number): number {
  const mH = Math.sqrt((2 * h) / (k * thickness)) * height
  return Math.tanh(mH) / mH
}
/**
 * Resistance of a finned sink from base to the air that enters, K/W. @param mc heat capacity flow of the air, W/K
 * @param h heat transfer, W/(m2.K), above 0
 * @param area m2, above 0
 * @param efficiency of the fin, 0..1
 * Reference: thermal resistance networks; docs/physics.md HT1 to HT5
 */
export const finnedResistance = (mc: number, h: number, area: number, efficiency: number) =>
  1 / (mc * (1 - Math.exp((-h * area * efficiency) / mc)))
/**
 * Developed laminar Nusselt number on the hydraulic diameter, wall temperature constant or heat flux constant: wide
 * plates, round and square tubes, rectangles by their sides, an equilateral triangle.
 * Reference: R. K. Shah and A. L. London, Laminar flow forced convection in ducts (1978), as tabled in heat-transfer
 * textbooks (from memory)
 */
export const nusselt = {
  plates: { temperature: 7.54, flux: 8.24 },
  tube: { temperature: 3.66, flux: 4.36 },
  square: { temperature: 2.98, flux: 3.61 },
  'rectangle 2:1': { temperature: 3.39, flux: 4.12 },
  'rectangle 3:1': { temperature: 3.96, flux: 4.79 },
  'rectangle 4:1': { temperature: 4.44, flux: 5.33 },
  'rectangle 8:1': { temperature: 5.6, flux: 6.49 },
  triangle: { temperature: 2.47, flux: 3.11 },
} as const
