import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { probit } from 'simple-statistics'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/** Numbers thrown away before the first: the state of a small seed is nearly all zeros. */
const WARM_UP = 20

/**
 * Seeded uniform numbers in 0..1: the same seed gives the same plan.
 * @param seed any whole number
 * Reference: D. Blackman and S. Vigna, xoroshiro128+, as a library computes it
 */
export function seeded(seed: number): () => number {
  const generator = xoroshiro128plus(seed)
  // the first numbers of neighbouring seeds are alike
  for (let i = 0; i < WARM_UP; i++) uniformFloat64(generator)
  return () => uniformFloat64(generator)
}

/**
 * Standard normal numbers from a uniform source.
 * @param uniform numbers in 0..1
 * Reference: G. E. P. Box and M. E. Muller (1958)
 */
export function normal(uniform: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
}

/** Ends of a normal number between which 95 of 100 lie: what every stated range means. */
export const Z95 = 1.96

/** Probabilities nearer to 0 or 1 than this are drawn in: a range that was typed is meant (2.5 standard deviations). */
const RAREST = 0.0062

/**
 * Normal number of a probability, its far tails drawn in.
 * @param u 0..1
 * Reference: inverse of the normal distribution, as a library computes it
 */
export const normalAt = (u: number): number => probit(Math.min(1 - RAREST, Math.max(RAREST, u)))

/**
 * A number between the ends of its range, 95 times in 100: a normal distribution with halves of their own, each side as
 * likely as it is wide, so that its density has no step in the middle.
 * @param u probability, 0..1
 * Reference: two-piece (split) normal distribution, G. T. Fechner (1897)
 */
export function splitNormalAt(middle: number, low: number, high: number, u: number): number {
  const [down, up] = [middle - low, high - middle]
  if (!(down + up > 0)) return middle
  const share = down / (down + up)
  return u < share
    ? middle + (down * normalAt(u / (2 * share))) / Z95
    : middle + (up * normalAt(1 - (1 - u) / (2 * (1 - share)))) / Z95
}

/**
 * Uniform numbers for many cases, spread evenly in every dimension (Latin hypercube): each case has one number from each
 * of as many equal parts of 0..1, in an order of its own. Quantiles of what is computed from them scatter far less.
 * @param cases how many, 1 or more
 * @param seed any whole number
 * @returns for a case a source whose k-th number is that of the k-th dimension
 * Reference: M. D. McKay, R. J. Beckman and W. J. Conover, Technometrics 21 (1979)
 */
export function stratified(cases: number, seed: number): (i: number) => () => number {
  const uniform = seeded(seed)
  const dimensions: Float64Array[] = []
  const dimension = () => {
    const own = Float64Array.from({ length: cases }, (_, i) => (i + uniform()) / cases)
    for (let i = cases - 1; i > 0; i--) {
      const j = Math.floor(uniform() * (i + 1))
      const other = own[j]!
      own[j] = own[i]!
      own[i] = other
    }
    return own
  }
  return (i) => {
    let k = 0
    return () => {
      const own = (dimensions[k] ??= dimension())
      k++
      return own[i]!
    }
  }
}
