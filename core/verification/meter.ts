import type { Run } from '#core/document'

/** Lowest level a meter of this kind is sure to show, dB(A); upper ends of the usual. Common practice, no source. */
const USUAL_FLOOR = { phone: 40, class2: 30, class1: 20 } as const

/**
 * Lowest level that a run's meter shows, dB(A): as typed, else what is usual for its kind; null for a meter nobody named.
 * Reference: common practice, no source
 */
export const meterFloor = ({ floorDbA, instrument }: Run): number | null =>
  floorDbA ?? (instrument ? USUAL_FLOOR[instrument] : null)
