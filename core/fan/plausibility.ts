/**
 * Static efficiency, 0..1: air power over electric power.
 * Reference: definition, ISO 5801; usual peaks of small fans are 0.03 to 0.30 (common practice)
 */
export function staticEfficiency(flowM3s: number, pressurePa: number, electricW: number): number | null {
  return electricW > 0 ? (flowM3s * pressurePa) / electricW : null
}

/**
 * May the two end values be true? The best air power of a straight curve is a quarter of Q_max p_max.
 * @param maxFlow free delivery, m3/s, above 0
 * @param maxPressure shut-off pressure, Pa, above 0
 * Reference: derived in the handbook; limits 1 and 0.5
 */
export function dataPlausibility(
  maxFlow: number,
  maxPressure: number,
  electricW: number,
): 'impossible' | 'optimistic' | 'plausible' {
  const share = (0.25 * maxFlow * maxPressure) / electricW
  return share > 1 ? 'impossible' : share > 0.5 ? 'optimistic' : 'plausible'
}

/**
 * What a delivered flow says about the path, from its ratio to free delivery. Common practice, no source.
 * @param delivered flow that was measured, m3/s
 * @param freeDelivery m3/s, above 0
 */
export function deliveredClass(
  delivered: number,
  freeDelivery: number,
): 'implausible' | 'free-air-only' | 'usual' | 'restricted' | 'check' {
  const r = delivered / freeDelivery
  if (r > 1.1) return 'implausible'
  if (r > 0.95) return 'free-air-only'
  if (r >= 0.35) return 'usual'
  return r >= 0.15 ? 'restricted' : 'check'
}
