/** One row of a table of loss coefficients. */
export interface KRow {
  at: number
  k: number
}

/**
 * Between the rows, linear in k or in log k; null outside the table.
 * @param at m3/s
 * Reference: linear interpolation
 */
export function interpolate(rows: readonly KRow[], at: number, logarithmic = false): number | null {
  for (let i = 1; i < rows.length; i++) {
    const low = rows[i - 1]!
    const high = rows[i]!
    if (at < low.at || at > high.at) continue
    const share = (at - low.at) / (high.at - low.at)
    return logarithmic ? low.k * (high.k / low.k) ** share : low.k + (high.k - low.k) * share
  }
  return null
}
