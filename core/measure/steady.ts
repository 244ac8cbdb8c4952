/**
 * End value from three readings at equal spacing; null where the steps do not shrink with one sign.
 * Noise explodes below a spacing of half a time constant. Reference: docs/physics.md ME22
 * @param t1 first of three equally spaced values
 * @param t2 second of them
 * @param t3 third of them
 */
export function endValue(t1: number, t2: number, t3: number): number | null {
  return shrinking(t1, t2, t3) ? (t1 * t3 - t2 ** 2) / (t1 + t3 - 2 * t2) : null
}
/**
 * Time constant of the same, s.
 * @param t1 first of three equally spaced values
 * @param t2 second of them
 * @param t3 third of them
 * @param spacing s, above 0
 * Reference: first-order balance; docs/physics.md ME22
 */
export const timeConstantOf = (t1: number, t2: number, t3: number, spacing: number): number | null =>
  shrinking(t1, t2, t3) ? spacing / Math.log((t2 - t1) / (t3 - t2)) : null
function shrinking(t1: number, t2: number, t3: number): boolean {
  const [a, b] = [t2 - t1, t3 - t2]
  return a * b > 0 && Math.abs(b) < Math.abs(a)
}
/**
 * Share of a rise after some time constants, 0..1.
 * @param timeConstants how many have passed
 * Reference: first-order balance; docs/physics.md ME22
 */
export const soakFraction = (timeConstants: number) => 1 - Math.exp(-timeConstants)
