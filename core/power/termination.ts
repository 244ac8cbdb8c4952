const POUND_FORCE_N = 4.4482216152605
const pounds = (table: Record<number, number>): Record<number, number> =>
  Object.fromEntries(Object.entries(table).map(([awg, lbf]) => [awg, lbf * POUND_FORCE_N]))
/** Pull-out of a crimp, N by AWG; the table is in pounds-force. Reference: UL 486A (from memory). */
export const crimpPullUl = pounds({ 22: 8, 20: 13, 18: 20, 16: 30, 14: 50, 12: 70, 10: 80 })
/** The same, N by AWG. Reference: IEC 60352-2 (from memory). */
export const crimpPullIec: Record<number, number> = {
  28: 11,
  26: 15,
  24: 28,
  22: 40,
  20: 60,
  18: 90,
  16: 135,
  14: 200,
  12: 275,
  10: 355,
}

/**
 * Force that a crimp must hold, N: the higher of the two rules; null for a gauge that neither knows.
 * @param awg AWG size; 1/0 is 0
 * Reference: docs/physics.md, power and wiring (common practice)
 */
export function crimpPull(awg: number): number | null {
  const most = Math.max(crimpPullUl[awg] ?? 0, crimpPullIec[awg] ?? 0)
  return most > 0 ? most : null
}

/** Heat-shrink slides over the largest part with this share to spare, and grips the smallest. Common practice, no source. */
const SLIDES = 1.1
const GRIPS = 0.9
/**
 * Smallest shrink ratio that passes one diameter and grips another, 2, 3 or 4.
 * @param over what goes through, m
 * @param under what it shrinks onto, m
 * @returns null where 4:1 is not enough
 * Reference: docs/physics.md, power and wiring (common practice)
 */
export const heatShrinkRatio = (over: number, under: number): number | null =>
  [2, 3, 4].find((r) => r >= ((SLIDES / GRIPS) * over) / under - 1e-9) ?? null

/** Standard bores of heat-shrink as supplied, m. Common practice, no source. */
const BORES = [1.6, 2.4, 3.2, 4.8, 6.4, 9.5, 12.7, 19].map((d) => d / 1000)
/**
 * A tube for a splice: bore as supplied (m) and ratio; null where no usual one fits.
 * @param over what goes through, m
 * @param under what it shrinks onto, m
 * Reference: docs/physics.md, power and wiring (common practice)
 */
export function heatShrink(over: number, under: number): { bore: number; ratio: number } | null {
  const ratio = heatShrinkRatio(over, under)
  if (ratio === null) return null
  const bore = BORES.find((b) => b >= SLIDES * over && b / ratio <= GRIPS * under)
  return bore === undefined ? null : { bore, ratio }
}

/** Outer diameter of hook-up wire by AWG, m: conductor plus two walls of 0.4 mm. Common practice, no source. */
export const insulatedDiameter = (conductorM: number) => conductorM + 0.8e-3
