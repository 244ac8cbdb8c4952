import { seeded } from '#core/numeric'
import type { Sound } from './wav'

/**
 * A recording of a fan, made up so that listening can be tried without a fan: air noise, and the whine of its blades
 * with what stands above it. It is a stand-in, no measurement.
 */
export interface MadeFan {
  blades: number
  rpm: number
  /** amplitude of the air's noise, 0..1 */
  air: number
  /** amplitude of the whine at the blades' frequency, 0..1; each harmonic has a third of the one below */
  whine: number
  seed: number
}

const RATE = 44100
const SECONDS = 6
const HARMONICS = 3
/** Low-pass of the air's noise, Hz: what a small fan's air sounds like. A choice of ours. */
const AIR_HZ = 1500

/** @returns mono samples of six seconds, none beyond full scale */
export function madeRecording({ blades, rpm, air, whine, seed }: MadeFan): Sound {
  const random = seeded(seed)
  const samples = new Float32Array(RATE * SECONDS)
  const hz = (blades * rpm) / 60
  const alpha = 1 - Math.exp((-2 * Math.PI * AIR_HZ) / RATE)
  let low = 0
  for (let i = 0; i < samples.length; i++) {
    low += alpha * (2 * random() - 1 - low)
    let value = air * low
    for (let k = 1; k <= HARMONICS; k++)
      value += (whine / 3 ** (k - 1)) * Math.sin((2 * Math.PI * k * hz * i) / RATE)
    samples[i] = Math.max(-1, Math.min(1, value))
  }
  return { rate: RATE, samples }
}

/** An old fan that whines, and a slower one that takes its place. */
export const madeFans = {
  before: { blades: 7, rpm: 2900, air: 0.12, whine: 0.05, seed: 7 },
  after: { blades: 9, rpm: 1150, air: 0.05, whine: 0, seed: 11 },
} satisfies Record<string, MadeFan>
