import { sumLevels } from './levels'

/**
 * Index of the loudest source (the first on a tie); -1 for none.
 * @param levels dB
 */
export const nextToFix = (levels: readonly number[]) => levels.indexOf(Math.max(...levels))

/**
 * The most the total can fall if the loudest source vanishes, dB; null for a single source.
 * @param levels dB
 */
export function maxDrop(levels: readonly number[]): number | null {
  const total = sumLevels(levels)
  const rest = sumLevels(levels.filter((_, i) => i !== nextToFix(levels)))
  return total === null || rest === null ? null : total - rest
}

/**
 * Total after one source is reduced, dB.
 * @param levels dB
 * @param index place in the list
 * @param reduction dB
 */
export const afterReduction = (levels: readonly number[], index: number, reduction: number) =>
  sumLevels(levels.map((l, i) => (i === index ? l - reduction : l)))

/**
 * Reduction of one source that brings the total to a target, dB; null when the rest alone reaches it; negative: already met.
 * @param levels dB
 * @param index place in the list
 * @param target dB
 */
export function reductionForTarget(levels: readonly number[], index: number, target: number): number | null {
  const rest = sumLevels(levels.filter((_, i) => i !== index))
  const room = 10 ** (target / 10) - (rest === null ? 0 : 10 ** (rest / 10))
  return room > 0 ? levels[index]! - 10 * Math.log10(room) : null
}

/**
 * Energy mean over stages, dB(A).
 * @param levels dB
 * @param durations s each
 * Reference: energy addition of levels
 */
export function leq(levels: readonly number[], durations: readonly number[]): number | null {
  const time = durations.reduce((s, t) => s + t, 0)
  return time > 0
    ? 10 * Math.log10(levels.reduce((s, l, i) => s + durations[i]! * 10 ** (l / 10), 0) / time)
    : null
}

/**
 * Daily time allowed at a level, s.
 * @param level dB
 * Reference: NIOSH 85 dB(A) over 8 h, 3 dB exchange.
 */
export const allowedTime = (level: number) => (8 * 3600) / 2 ** ((level - 85) / 3)

/**
 * Noise dose, share of the allowed (1 = 100 %), times in s.
 * @param levels dB
 * @param durations s each
 * Reference: energy addition of levels
 */
export const dose = (levels: readonly number[], durations: readonly number[]) =>
  levels.reduce((s, l, i) => s + durations[i]! / allowedTime(l), 0)
