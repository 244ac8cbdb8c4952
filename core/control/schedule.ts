/** A day in pieces: mean and energy. Sound does not average so: `leq` of noise does it. */

const sum = (list: readonly number[]) => list.reduce((s, x) => s + x, 0)
/**
 * Mean over time; null of nothing.
 * @param values duty, power or flow @param durationsS s, as many
 * Reference: handbook CT15
 */
export function scheduleAverage(values: readonly number[], durationsS: readonly number[]): number | null {
  const whole = sum(durationsS)
  return whole > 0 ? scheduleEnergy(values, durationsS) / whole : null
}
/**
 * Energy of a schedule, J.
 * @param powersW W @param durationsS s, as many
 * Reference: handbook CT15
 */
export const scheduleEnergy = (powersW: readonly number[], durationsS: readonly number[]): number =>
  sum(powersW.map((p, i) => p * durationsS[i]!))
