import { GRAVITY } from '#core/air'
import { isolatorFrequency, transmissibility } from '#core/noise'
import type { Fit } from '#core/document'

/** Soft mounts: whether what they hold swings well below the turn of the fan. */

export interface SoftMount {
  /** turns of the fan a second, Hz */
  turnHz: number
  /** give under the weight from which soft mounts help, m */
  wantedSinkM: number
  /** natural frequency of what is told, Hz; null: not told */
  ownHz: number | null
  /** share of the shaking force that passes; null: not told, or at resonance */
  passes: number | null
}
/** A mount isolates well from this many times its own frequency: under an eighth passes. Common practice, no source. */
const WELL_ABOVE = 3

/**
 * Soft mounts at a speed.
 * @param rpm rpm, above 0
 * Reference: single-degree isolator (noise)
 */
export function softMountOf(fit: Fit | null, rpm: number | null): SoftMount | null {
  if (rpm === null || !(rpm > 0)) return null
  const turnHz = rpm / 60
  const ownHz = fit?.sinkM == null ? null : isolatorFrequency(fit.sinkM)
  return {
    turnHz,
    wantedSinkM: GRAVITY / (2 * Math.PI * (turnHz / WELL_ABOVE)) ** 2,
    ownHz,
    passes: ownHz === null ? null : transmissibility(rpm, ownHz),
  }
}
