/**
 * Time until a contaminant falls to a level, s: t = (V K/Q) ln((C0 - C_e)/(C - C_e)), C_e = C_b + G K/Q.
 * @param volumeM3 m3
 * @param flowM3s fresh air, m3/s, > 0
 * @param mixing factor K: 1 perfect, 1.5 to 2 good, 3 to 5 usual, up to 10 poor
 * @param start volume ratio
 * @param target volume ratio
 * @param background of the fresh air, volume ratio
 * @param sourceM3s contaminant released all the while, m3/s
 * @returns 0 when already there; null when it is never reached
 * Reference: well-mixed dilution with the mixing factor of industrial-ventilation practice
 */
export function clearOutTime(
  volumeM3: number,
  flowM3s: number,
  mixing: number,
  start: number,
  target: number,
  background = 0,
  sourceM3s = 0,
): number | null {
  if (target >= start) return 0
  if (!(flowM3s > 0)) return null
  const end = background + (sourceM3s * mixing) / flowM3s
  return target <= end ? null : ((volumeM3 * mixing) / flowM3s) * Math.log((start - end) / (target - end))
}

/**
 * Fresh air that clears a space in a time, m3/s: Q = V K/t ln(1/share), without background or source.
 * @param share of the first level that is left, 0..1
 * @param seconds s
 * @param mixing factor, 1 is perfect
 * Reference: as above
 */
export const airflowForClearOut = (volumeM3: number, seconds: number, mixing: number, share: number) =>
  ((volumeM3 * mixing) / seconds) * Math.log(1 / share)

/** Mixing factors. Industrial-ventilation practice (common practice). */
export const mixingGuide: { how: string; low: number; high: number }[] = [
  { how: 'in and out far apart, stirred', low: 1.5, high: 2 },
  { how: 'usual room or cabinet', low: 3, high: 5 },
  { how: 'dead corners', low: 5, high: 10 },
]
