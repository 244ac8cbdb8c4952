import { GRAVITY } from '#core/air'

/**
 * Natural frequency of a soft mount from its static sag in m, Hz.
 * Reference: single-degree isolator
 */
export const isolatorFrequency = (deflectionM: number) => Math.sqrt(GRAVITY / deflectionM) / (2 * Math.PI)

/**
 * Share of the shaking force that passes an undamped mount; null at resonance.
 * @param rpm rpm, 0 or more
 * Reference: single-degree isolator
 */
export function transmissibility(rpm: number, naturalHz: number): number | null {
  const t = 1 / Math.abs(1 - (rpm / 60 / naturalHz) ** 2)
  return Number.isFinite(t) ? t : null
}
