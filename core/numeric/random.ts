import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/**
 * Seeded uniform numbers in 0..1: the same seed gives the same plan.
 * @param seed any whole number
 * Reference: D. Blackman and S. Vigna, xoroshiro128+, as a library computes it
 */
export function seeded(seed: number): () => number {
  const generator = xoroshiro128plus(seed)
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
