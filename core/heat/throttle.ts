/**
 * Limits of the suspicion: temperature that sits still at its ceiling (K) while power has fallen to a share. Common
 * practice, no source.
 */
const STILL_K = 2
const FALLEN = 0.95
/**
 * Whether a device under constant demand has cut its own load: it sits at its ceiling while its power falls.
 * @param temperatures degC
 * @param power W
 * Reference: docs/physics.md HT27
 */
export function throttleSuspected(temperatures: readonly number[], power: readonly number[]): boolean {
  const n = temperatures.length
  if (n < 8 || power.length !== n) return false
  const window = temperatures.slice(Math.floor(n / 2))
  const tail = power.slice(Math.floor((3 * n) / 4))
  const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / list.length
  return (
    Math.max(...window) - Math.min(...window) <= STILL_K &&
    Math.max(...temperatures) - mean(window) <= STILL_K &&
    mean(tail) <= FALLEN * Math.max(...power)
  )
}
