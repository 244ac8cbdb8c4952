/** Kelvin that halve a bearing's life: the short and the long view. Common practice, no source (10 to 15 K). */
export const HALVING_K = { short: 10, long: 15 } as const

/**
 * Bearing life at another temperature than it is stated at, h: L10·2^((T_ref − T)/k).
 * @param life stated life (L10), h
 * @param statedC temperature that it is stated at, degC
 * @param airC temperature at the fan, degC
 * @param halvingK kelvin that halve it, 10 to 15
 * Reference: common practice, no source (handbook HT24)
 */
export function bearingLife(life: number, statedC: number, airC: number, halvingK: number): number {
  return life * 2 ** ((statedC - airC) / halvingK)
}
