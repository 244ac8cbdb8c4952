import type { CurveBasis } from '#core/document'

/** Factors between which a fan delivers against what its numbers say, 95 times in 100: flow by n, pressure by n². */
export interface DeliveredRange {
  low: number
  high: number
}

/**
 * How much of its numbers a fan really delivers, as a factor on its speed (flow by n, pressure by n²): sheets and claims
 * promise too much more often than too little, own measurements may err both ways. Two numbers alone make a curve whose
 * shape is a guess besides. Common practice, no source. The one home of these numbers: ranges, calibration and sampled
 * cases take them from here.
 */
export const deliveredRange: Record<CurveBasis, DeliveredRange> = {
  curve: { low: 0.8, high: 1.06 },
  claim: { low: 0.8, high: 1.06 },
  estimated: { low: 0.8, high: 1.06 },
  measured: { low: 0.97, high: 1.03 },
}
