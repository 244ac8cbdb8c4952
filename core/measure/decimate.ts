/**
 * Indices of the smallest and largest of equal buckets, in order of time: peaks stay. Ties take the first; a bucket whose
 * two are one sample gives it once.
 * @param keep at most this many, even
 * @param values in any one unit
 * Reference: S. Steinarsson (2013), largest triangle three buckets
 */
export function minMaxIndices(values: ArrayLike<number>, keep: number): number[] {
  const n = values.length
  const buckets = Math.max(1, Math.floor(keep / 2))
  const kept: number[] = []
  for (let i = 0; i < buckets; i++) {
    const from = Math.floor((i * n) / buckets)
    const to = Math.floor(((i + 1) * n) / buckets)
    if (to <= from) continue
    let [low, high] = [from, from]
    for (let k = from + 1; k < to; k++) {
      if (values[k]! < values[low]!) low = k
      if (values[k]! > values[high]!) high = k
    }
    kept.push(Math.min(low, high))
    if (low !== high) kept.push(Math.max(low, high))
  }
  return kept
}

/**
 * Indices that keep the shape: of each bucket the sample that spans the largest triangle with the last one kept and the
 * mean of the next bucket. Reference: S. Steinarsson, "Downsampling Time Series for Visual Representation", 2013
 * @param times null for equal steps
 * @param values in any one unit
 * @param keep how many points to keep, 3 or more
 */
export function lttbIndices(
  values: ArrayLike<number>,
  keep: number,
  times: ArrayLike<number> | null = null,
): number[] {
  const n = values.length
  if (n <= keep || keep < 3) return Array.from({ length: n }, (_, i) => i)
  const x = (i: number) => (times ? times[i]! : i)
  const every = (n - 2) / (keep - 2)
  const kept = [0]
  let last = 0
  for (let i = 0; i <= keep - 3; i++) {
    const nextFrom = Math.floor((i + 1) * every) + 1
    const nextTo = Math.min(Math.floor((i + 2) * every) + 1, n)
    let [mx, my] = [0, 0]
    for (let k = nextFrom; k < nextTo; k++) {
      mx += x(k)
      my += values[k]!
    }
    const count = Math.max(1, nextTo - nextFrom)
    mx /= count
    my /= count
    let best = -1
    let largest = -1
    for (let k = Math.floor(i * every) + 1; k <= Math.floor((i + 1) * every); k++) {
      const area = Math.abs(
        (x(last) - mx) * (values[k]! - values[last]!) - (x(last) - x(k)) * (my - values[last]!),
      )
      if (area > largest) {
        largest = area
        best = k
      }
    }
    kept.push(best)
    last = best
  }
  kept.push(n - 1)
  return kept
}
