/** A range around a value; an end that is null is open: nothing bounds it. */
export interface OpenRange {
  low: number
  high: number | null
}

/**
 * Range of a result whose inputs are doubted apart: for each input the results at the ends of its own range; their
 * deviations are added as squares, downwards and upwards for themselves.
 * @param value the result in the middle
 * @param ends a list for each input; Infinity where an end makes the result impossible to bound
 * Reference: law of propagation of uncertainty for independent inputs, JCGM 100 (two-sided, taken at the ends)
 */
export function rangeBySquares(value: number, ends: readonly (readonly number[])[]): OpenRange {
  let down = 0
  let up = 0
  for (const own of ends) {
    down += Math.min(0, ...own.map((x) => x - value)) ** 2
    up += Math.max(0, ...own.map((x) => x - value)) ** 2
  }
  const high = value + Math.sqrt(up)
  return { low: value - Math.sqrt(down), high: Number.isFinite(high) ? high : null }
}
