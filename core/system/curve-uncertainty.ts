import type { CurveBasis } from '#core/document'

/**
 * How far the pressure of a fan curve may be off at a flow, share of it, 95 times in 100: a printed curve ±10 %, claims
 * typed as a curve ±15 %, own measurements ±5 %; between two numbers it is a guess. Common practice, no source (handbook,
 * uncertainty). The one home of these numbers: bands, calibration and sampled cases take them from here.
 */
export const curveUncertainty: Record<CurveBasis, number> = {
  curve: 0.1,
  claim: 0.15,
  measured: 0.05,
  estimated: 0.3,
}
