/** Share of the source's current above which a plan should be mended, and above which it is stopped. Common practice, no source. */
export const GOOD_UTILISATION = 0.8
/** Start current over label current where nothing was measured. Common practice, no source. */
export const START_CURRENT_FACTOR = 2

/** Running current over the source's current. */
export function utilisation(
  counts: readonly number[],
  currents: readonly number[],
  sourceA: number,
): number | null {
  return sourceA > 0 ? counts.reduce((s, n, i) => s + n * currents[i]!, 0) / sourceA : null
}

export const headroomVerdict = (u: number): 'ok' | 'fix' | 'stop' =>
  u <= GOOD_UTILISATION ? 'ok' : u <= 1 ? 'fix' : 'stop'

/** Surge when the first `together` loads start at once and the rest already run, A. */
export function surge(start: readonly number[], run: readonly number[], together: number): number {
  return start.reduce((s, a, i) => s + (i < together ? a : run[i]!), 0)
}

/** Lowest efficiency of a wall adapter. Reference: US DOE Level VI, 2016 (from memory); W 1 to 250. */
export function adapterMinimumEfficiency(powerW: number): number | null {
  if (!(powerW > 1 && powerW <= 250)) return null
  return powerW <= 49 ? 0.071 * Math.log(powerW) - 0.0014 * powerW + 0.67 : 0.88
}

/** End of a source's voltage window, V. */
export const sourceWindow = (nominal: number, tolerance: number, end: 'low' | 'high') =>
  nominal * (end === 'low' ? 1 - tolerance : 1 + tolerance)

/** Heat that the hot side of a thermoelectric module must shed, W. */
export const hotSideHeat = (pumpedW: number, voltage: number, current: number) => pumpedW + voltage * current
