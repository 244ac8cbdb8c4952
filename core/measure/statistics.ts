import { mean, sampleStandardDeviation } from 'simple-statistics'
// @ts-expect-error the library brings no types; what is used of it is told below
import library from 'jstat'

const { studentt } = library as { studentt: { inv: (probability: number, df: number) => number } }

/**
 * Student t, two-sided.
 * @param df degrees of freedom, whole or fractional
 * @param confidence 0..1
 * Reference: W. S. Gosset; computed by a statistics library
 */
export const tQuantile = (df: number, confidence = 0.95): number => studentt.inv(0.5 + confidence / 2, df)

/**
 * Arithmetic mean. @param values at least one
 * Reference: definition
 */
export const meanOf = (values: readonly number[]): number => mean(values as number[])
/**
 * Sample standard deviation; null for fewer than two values.
 * @param values in any one unit
 * Reference: definition
 */
export const standardDeviation = (values: readonly number[]): number | null =>
  values.length < 2 ? null : sampleStandardDeviation(values as number[])
/**
 * Half-width of the interval of a mean; null for fewer than two values.
 * @param values in any one unit
 * @param confidence 0..1
 * Reference: docs/physics.md ME14
 */
export function intervalHalfWidth(values: readonly number[], confidence = 0.95): number | null {
  const sd = standardDeviation(values)
  return sd === null ? null : (tQuantile(values.length - 1, confidence) * sd) / Math.sqrt(values.length)
}

/** Difference of two states, after less before, with its interval. */
export interface Difference {
  difference: number
  df: number
  halfWidth: number
  /** the interval does not hold zero */ shown: boolean
}

/**
 * Two states measured several times each, unequal spreads.
 * @param before value before
 * @param after value after
 * @param confidence 0..1
 * @returns null for fewer than two values in one of them
 * Reference: B. L. Welch; docs/physics.md ME15
 */
export function welch(
  before: readonly number[],
  after: readonly number[],
  confidence = 0.95,
): Difference | null {
  const [s1, s2] = [standardDeviation(before), standardDeviation(after)]
  if (s1 === null || s2 === null) return null
  const [v1, v2] = [s1 ** 2 / before.length, s2 ** 2 / after.length]
  const difference = meanOf(after) - meanOf(before)
  if (v1 + v2 === 0)
    return { difference, df: before.length + after.length - 2, halfWidth: 0, shown: difference !== 0 }
  const df = (v1 + v2) ** 2 / (v1 ** 2 / (before.length - 1) + v2 ** 2 / (after.length - 1))
  const halfWidth = tQuantile(df, confidence) * Math.sqrt(v1 + v2)
  return { difference, df, halfWidth, shown: Math.abs(difference) > halfWidth }
}
/**
 * Pairs taken in the same hour: the interval of their differences.
 * @param before value before
 * @param after value after
 * @param confidence 0..1
 * Reference: definition
 */
export function paired(
  before: readonly number[],
  after: readonly number[],
  confidence = 0.95,
): Difference | null {
  if (before.length !== after.length) return null
  const differences = after.map((a, i) => a - before[i]!)
  const halfWidth = intervalHalfWidth(differences, confidence)
  return halfWidth === null
    ? null
    : {
        difference: meanOf(differences),
        df: differences.length - 1,
        halfWidth,
        shown: Math.abs(meanOf(differences)) > halfWidth,
      }
}

const Z_95 = 1.96
/**
 * Interval of a proportion, 95 %.
 * @param hits how many, 0 or more
 * @param trials how many, above 0
 * Reference: E. B. Wilson; docs/physics.md ME17
 */
export function wilsonInterval(hits: number, trials: number): { low: number; high: number } | null {
  if (!(trials > 0) || hits < 0 || hits > trials) return null
  const p = hits / trials
  const z2 = Z_95 ** 2
  const centre = (p + z2 / (2 * trials)) / (1 + z2 / trials)
  const half = (Z_95 * Math.sqrt((p * (1 - p)) / trials + z2 / (4 * trials ** 2))) / (1 + z2 / trials)
  return { low: Math.max(0, centre - half), high: Math.min(1, centre + half) }
}

/**
 * Least-squares slope of values over times; null for fewer than two times.
 * @param times s, rising
 * @param values in any one unit
 * Reference: definition
 */
export function slopeOf(times: ArrayLike<number>, values: ArrayLike<number>): number | null {
  const n = times.length
  if (n < 2) return null
  let [st, sv] = [0, 0]
  for (let i = 0; i < n; i++) {
    st += times[i]!
    sv += values[i]!
  }
  const [mt, mv] = [st / n, sv / n]
  let [stt, stv] = [0, 0]
  for (let i = 0; i < n; i++) {
    stt += (times[i]! - mt) ** 2
    stv += (times[i]! - mt) * (values[i]! - mv)
  }
  return stt > 0 ? stv / stt : null
}
