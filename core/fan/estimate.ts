import { makeCurve, type FanCurve } from './curve'

export type FanKind = 'axial' | 'blower'

/** Exponents of the two-number curve and their band. Common practice, no source. */
export const estimateExponents: Record<FanKind, { low: number; middle: number; high: number }> = {
  axial: { low: 0.8, middle: 1, high: 1.5 },
  blower: { low: 1.4, middle: 2, high: 3 },
}

/** Points of an estimated curve: enough that the cubic follows the power law to about 0.1 %. */
const SAMPLES = 49

/**
 * Pressure of a fan of which only the two end values are known, Pa: p = p_max (1 - (Q/Q_max)^n). An estimate:
 * typical error ±20 % in flow and ±30 % in pressure.
 * @param flow m3/s, 0..maxFlow
 * @param maxPressure shut-off pressure, Pa, above 0
 * @param maxFlow free delivery, m3/s, above 0
 * @param exponent of the power law
 * Reference: common practice, no source
 */
export function estimatedPressure(
  maxPressure: number,
  maxFlow: number,
  exponent: number,
  flow: number,
): number | null {
  return flow >= 0 && flow <= maxFlow ? maxPressure * (1 - (flow / maxFlow) ** exponent) : null
}

/**
 * Curve from the two end values.
 * @param maxPressure shut-off pressure, Pa, > 0
 * @param maxFlow free delivery, m3/s, > 0
 * @param exponent of the power law
 * @returns null unless both are positive numbers
 * Reference: power law between the two numbers (common practice, no source)
 */
export function estimatedCurve(maxPressure: number, maxFlow: number, exponent: number): FanCurve | null {
  if (!(maxPressure > 0 && maxFlow > 0)) return null
  const points = Array.from({ length: SAMPLES }, (_, i) => {
    // denser at both ends, where the power law bends most
    const x = (1 - Math.cos((Math.PI * i) / (SAMPLES - 1))) / 2
    return { q: maxFlow * x, p: Math.max(0, maxPressure * (1 - x ** exponent)) }
  })
  const made = makeCurve(points)
  return made.ok ? made.curve : null
}

/**
 * Low, middle and high curve of a kind of fan from its two end values.
 * @param maxPressure shut-off pressure, Pa, above 0
 * @param maxFlow free delivery, m3/s, above 0
 * Reference: power law between the two numbers (common practice, no source)
 */
export function estimatedBand(kind: FanKind, maxPressure: number, maxFlow: number) {
  const { low, middle, high } = estimateExponents[kind]
  const curve = (exponent: number) => estimatedCurve(maxPressure, maxFlow, exponent)
  return { low: curve(low), middle: curve(middle), high: curve(high) }
}
