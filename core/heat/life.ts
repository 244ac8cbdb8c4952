/** Weibull shape of bearings that wear out: 1.5 to 3. Common practice, no source (handbook heat 9). */
export const WEAR_SHAPE = 2
/** Kelvin that halve a bearing's life: the short and the long view. Common practice, no source (10 to 15 K). */
export const HALVING_K = { short: 10, long: 15 } as const

/**
 * Bearing life at another temperature than it is stated at, h: L10·2^((T_ref − T)/k).
 * @param life stated life (L10), h
 * @param statedC temperature that it is stated at, degC
 * @param airC temperature at the fan, degC
 * @param halvingK kelvin that halve it, 10 to 15
 * Reference: common practice, no source (docs/physics.md HT24)
 */
export function bearingLife(life: number, statedC: number, airC: number, halvingK: number): number {
  return life * 2 ** ((statedC - airC) / halvingK)
}

/** Natural logarithm of the gamma function (Lanczos), for shapes near wear-out. Reference: C. Lanczos, 1964 */
function gamma(x: number): number {
  const c = [
    676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
    -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ]
  if (x < 0.5) return Math.PI / (Math.sin(Math.PI * x) * gamma(1 - x))
  const y = x - 1
  const t = y + 7.5
  return (
    Math.sqrt(2 * Math.PI) *
    t ** (y + 0.5) *
    Math.exp(-t) *
    c.reduce((s, v, i) => s + v / (y + i + 1), 0.99999999999980993)
  )
}
/**
 * Mean life from L10 by a Weibull shape.
 * @param l10 life that one in ten does not reach, h
 * @param shape of the Weibull distribution, above 0
 * Reference: W. Weibull; docs/physics.md HT25
 */
export const meanLife = (l10: number, shape: number) =>
  (l10 * gamma(1 + 1 / shape)) / (-Math.log(0.9)) ** (1 / shape)
/**
 * Time by which one of n equal fans has failed with 10 % probability.
 * @param l10 life that one in ten does not reach, h
 * @param shape of the Weibull distribution, above 0
 * @param count how many fins, 1 or more
 * Reference: Weibull distribution
 */
export const setLife = (l10: number, shape: number, count: number) => l10 / count ** (1 / shape)
