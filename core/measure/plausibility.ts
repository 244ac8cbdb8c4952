/** What a reading is held against before it is taken. Common practice, no source (docs/physics.md, plausibility). SI but for level. */
export type PlausibleQuantity =
  'rotation' | 'flow' | 'pressure' | 'level' | 'voltage' | 'current' | 'temperature'
const limits: Record<PlausibleQuantity, { ask: [number, number]; refuse: [number, number] }> = {
  rotation: { ask: [200, 16000], refuse: [0, 60000] },
  flow: { ask: [0.5 / 3600, 800 / 3600], refuse: [0, 3000 / 3600] },
  pressure: { ask: [0, 500], refuse: [-5, 5000] },
  level: { ask: [15, 80], refuse: [0, 130] },
  voltage: { ask: [3, 30], refuse: [0, 60] },
  current: { ask: [0.01, 4], refuse: [0, 20] },
  temperature: { ask: [-20, 70], refuse: [-60, 200] },
}
/**
 * Outside these a reading is refused: lowest and highest that can be; null for a quantity that has no limits here.
 * Reference: docs/physics.md, measuring (common practice)
 */
export const refusedOutside = (quantity: string): readonly [number, number] | null =>
  quantity in limits ? limits[quantity as PlausibleQuantity].refuse : null
/**
 * Whether a reading is taken, asked about or refused.
 * @param value in the unit of its kind
 * Reference: docs/physics.md, measuring (common practice)
 */
export function plausible(quantity: PlausibleQuantity, value: number): 'accept' | 'ask' | 'refuse' {
  const { ask, refuse } = limits[quantity]
  if (!(value >= refuse[0] && value <= refuse[1])) return 'refuse'
  return value >= ask[0] && value <= ask[1] ? 'accept' : 'ask'
}

/** What digital temperature sensors send when they have nothing to tell. Common practice, no source. */
const SENTINELS = [-127, 65535, -999, 999.9]
/** Reading that such a sensor gives first after power-up. */
const FIRST_SENTINEL = 85
/**
 * Whether a probe's reading says nothing; 85.0 only as its first.
 * @param value in the unit of its kind
 * Reference: docs/physics.md, measuring (common practice)
 */
export const isSentinel = (value: number, first: boolean): boolean =>
  value === SENTINELS[0] ||
  value === SENTINELS[1] ||
  value === SENTINELS[2] ||
  value === SENTINELS[3] ||
  (first && value === FIRST_SENTINEL)
/**
 * Readings with sentinels, NaN and missing values as gaps.
 * @param readings how many
 * Reference: docs/physics.md, measuring (common practice)
 */
export const cleanSentinels = (readings: readonly (number | null)[]): (number | null)[] =>
  readings.map((r, i) => (r === null || !Number.isFinite(r) || isSentinel(r, i === 0) ? null : r))
