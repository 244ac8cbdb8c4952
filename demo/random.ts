/**
 * Seeded uniform numbers in 0..1 (mulberry32, public domain), of the demo's own: the invented shelf was drawn with it, and
 * another generator would make another shelf. Everything else takes the library's (`#core/numeric`).
 */
export function drawn(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
