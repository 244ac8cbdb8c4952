/** Share of the source's current above which a plan should be mended, and above which it is stopped. Common practice, no source. */
export const GOOD_UTILISATION = 0.8
/** Start current over label current where nothing was measured. Common practice, no source. */
export const START_CURRENT_FACTOR = 2

/**
 * Running current over the source's current.
 * @param counts how many of each
 * @param currents A each
 */
export function utilisation(
  counts: readonly number[],
  currents: readonly number[],
  sourceA: number,
): number | null {
  return sourceA > 0 ? counts.reduce((s, n, i) => s + n * currents[i]!, 0) / sourceA : null
}

/**
 * What a utilisation means: fine, to be mended, or stopped.
 * @param u share, 0 or more
 * Reference: sum of the loads
 */
export const headroomVerdict = (u: number): 'ok' | 'fix' | 'stop' =>
  u <= GOOD_UTILISATION ? 'ok' : u <= 1 ? 'fix' : 'stop'

/**
 * Surge when the first `together` loads start at once and the rest already run, A.
 * @param start start currents, A
 * @param run running currents, A
 * @param together how many start at once
 * Reference: sum of the loads
 */
export function surge(start: readonly number[], run: readonly number[], together: number): number {
  return start.reduce((s, a, i) => s + (i < together ? a : run[i]!), 0)
}

/** Lowest efficiency of a wall adapter. Reference: US DOE Level VI, 2016 (from memory); W 1 to 250. */
export function adapterMinimumEfficiency(powerW: number): number | null {
  if (!(powerW > 1 && powerW <= 250)) return null
  return powerW <= 49 ? 0.071 * Math.log(powerW) - 0.0014 * powerW + 0.67 : 0.88
}

/**
 * End of a source's voltage window, V.
 * @param nominal V
 * @param tolerance share, 0..1
 */
export const sourceWindow = (nominal: number, tolerance: number, end: 'low' | 'high') =>
  nominal * (end === 'low' ? 1 - tolerance : 1 + tolerance)

/**
 * Heat that the hot side of a thermoelectric module must shed, W.
 * @param voltage V
 * @param current A, 0 or more
 * Reference: sum of the loads
 */
export const hotSideHeat = (pumpedW: number, voltage: number, current: number) => pumpedW + voltage * current
