/**
 * Thermal resistance of a run, K/W; null without heat.
 * @param heat W
 * Reference: docs/physics.md HT13 to HT16
 */
export const resistanceOf = (partC: number, ambientC: number, heat: number): number | null =>
  heat > 0 ? (partC - ambientC) / heat : null
/**
 * A temperature restated for another ambient and load, degC.
 * @param heat W
 * @param ambientRef degC
 * @param heatRef W
 * Reference: docs/physics.md HT14
 */
export const restated = (
  partC: number,
  ambientC: number,
  heat: number,
  ambientRef: number,
  heatRef: number,
): number | null => (heat > 0 ? ambientRef + ((partC - ambientC) / heat) * heatRef : null)
/**
 * Fall of K/W from before to after, share of before (positive is better).
 * @param before K/W
 * @param after K/W
 * Reference: docs/physics.md HT13 to HT16
 */
export function improvement(before: number, after: number): number | null {
  return before !== 0 ? (before - after) / before : null
}
/**
 * Standard uncertainty of K/W, the same on both readings.
 * @param heat W
 * @param uTemperature standard uncertainty, K
 * @param uHeat standard uncertainty, W
 * Reference: JCGM 100; docs/physics.md HT16
 */
export const resistanceUncertainty = (
  partC: number,
  ambientC: number,
  heat: number,
  uTemperature: number,
  uHeat: number,
) => ((partC - ambientC) / heat) * Math.sqrt(2 * (uTemperature / (partC - ambientC)) ** 2 + (uHeat / heat) ** 2)
