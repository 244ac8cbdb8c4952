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

/** Two readings, one behind the other, farther apart than the thing can move. */
export interface Jump {
  /** s, of the later one */ at: number
  /** s between both */ within: number
  /** in the unit of its kind, with its sign */ change: number
}
/** Fastest a probe moves, K/s, and a fan changes its speed, of the faster, per s. Common practice, no source. */
export const STEP_LIMITS = { temperature: 5, rotation: 0.5 } as const
/** Below this a fan stands, rpm; for so long, s, before and after it stood, it runs out or up: no jump. A choice of ours. */
const STANDS = 60
const STARTS_S = 5
/**
 * Steps between readings that are asked about: a loose probe, a disturbed tach. Readings closer than a second are held
 * against what one second allows, as the last digit of a sensor flickers faster.
 * @param quantity temperature (K) or rotation (rpm); any other has no limit and no jumps
 * @param times s, rising
 * @param values in the unit of its kind, NaN for gaps
 * Reference: docs/physics.md, measuring (common practice)
 */
export function jumpsOf(quantity: string, times: Float64Array, values: Float64Array): Jump[] {
  if (quantity !== 'temperature' && quantity !== 'rotation') return []
  const jumps: Jump[] = []
  const rotates = quantity === 'rotation'
  let last = -1
  let stoodAt = -Infinity
  for (let i = 0; i < times.length; i++) {
    const v = values[i]!
    if (Number.isNaN(v)) continue
    if (rotates && v < STANDS) {
      stoodAt = times[i]!
      while (jumps.length && jumps.at(-1)!.at > stoodAt - STARTS_S) jumps.pop()
    }
    const settled = !rotates || times[i]! - stoodAt > STARTS_S
    if (last >= 0 && settled) {
      const before = values[last]!
      const within = times[i]! - times[last]!
      const limit = rotates ? STEP_LIMITS.rotation * Math.max(v, before) : STEP_LIMITS.temperature
      if (Math.abs(v - before) > limit * Math.max(1, within))
        jumps.push({ at: times[i]!, within, change: v - before })
    }
    last = i
  }
  return jumps
}
