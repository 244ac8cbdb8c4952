/**
 * Change as a share of "before": 50 to 70 is 0.4, +40 %. Null for before = 0.
 * @param before value before
 * @param after value after
 * Reference: definition
 */
export const relativeChange = (before: number, after: number) =>
  before !== 0 ? (after - before) / before : null
/**
 * Symmetric difference as a share of the mean of both: 50 and 70 differ by 0.333. Never a change.
 * @param a first coefficient
 * @param b second coefficient
 * Reference: definition
 */
export const symmetricDifference = (a: number, b: number) =>
  a + b !== 0 ? Math.abs(a - b) / ((a + b) / 2) : null

/** Two tach pulses a revolution, the usual count. Common practice, no source. */
export const TACH_PULSES = 2
/**
 * Speed from tach frequency (Hz), rpm.
 * @param frequency Hz
 * Reference: definition
 */
export const tachSpeed = (frequency: number, pulses = TACH_PULSES) => (60 * frequency) / pulses

/**
 * Measured over claimed flow at the claim's speed: Q ~ n first.
 * @param measured any one unit
 * @param speed rpm
 * @param claimed same unit
 * @param claimedSpeed any one unit, above 0
 * Reference: definition
 */
export const claimRatio = (measured: number, speed: number, claimed: number, claimedSpeed: number) =>
  (measured * claimedSpeed) / speed / claimed

export type TargetVerdict = 'met' | 'not-met' | 'not-decided'

/**
 * Is a target met? Decided only when the whole interval lies on one side; an interval that straddles it is "not decided".
 * @param halfWidth half-width of the 95 % interval of the mean
 * @param target in the unit of the mean
 * @param mean mean of the readings
 * Reference: definition
 */
export function targetVerdict(
  target: number,
  sense: 'at-least' | 'at-most',
  mean: number,
  halfWidth: number,
): TargetVerdict {
  const room = sense === 'at-least' ? mean - target : target - mean
  if (room >= halfWidth) return 'met'
  return room < -halfWidth ? 'not-met' : 'not-decided'
}

/**
 * Energetic mean of levels, dB.
 * @param levels dB
 * Reference: definition
 */
export const levelMean = (levels: readonly number[]): number | null =>
  levels.length ? 10 * Math.log10(levels.reduce((s, l) => s + 10 ** (l / 10), 0) / levels.length) : null

/**
 * Order of candidates by flow per perceived loudness, best first, as indices; flow per decibel would be meaningless.
 * @param flows m3/s or any one unit
 * @param levels dB
 * Reference: docs/physics.md ME20
 */
export const rankPerLoudness = (flows: readonly number[], levels: readonly number[]): number[] => {
  const score = (i: number) => flows[i]! / 2 ** ((levels[i]! - levels[0]!) / 10)
  return flows.map((_, i) => i).sort((a, b) => score(b) - score(a))
}
