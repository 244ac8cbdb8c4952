/** Duty over a temperature. Duties are shares 0..1, temperatures degC. */

export interface CurvePoint {
  temperatureC: number
  duty: number
}

/** Most points of a curve: what a person can look over. A choice of ours. */
export const MOST_POINTS = 20

/**
 * Why a curve cannot be driven by, in words; '' where it can. Refused, not repaired.
 * @param points at least two, temperatures rising strictly, duties 0..1 and never falling
 * Reference: handbook CT2
 */
export function curveProblem(points: readonly CurvePoint[]): string {
  if (points.length < 2) return 'A curve has two points at least.'
  if (points.length > MOST_POINTS) return `A curve has ${MOST_POINTS} points at most.`
  if (points.some((p) => !Number.isFinite(p.temperatureC) || !Number.isFinite(p.duty)))
    return 'Every point has a temperature and a duty.'
  if (points.some((p) => p.duty < 0 || p.duty > 1)) return 'A duty lies between 0 and 100 %.'
  const pairs = points.slice(1).map((p, i) => [points[i]!, p] as const)
  if (pairs.some(([a, b]) => b.temperatureC <= a.temperatureC)) return 'Temperatures rise from point to point.'
  if (pairs.some(([a, b]) => b.duty < a.duty)) return 'The duty never falls as it gets warmer.'
  return ''
}

/**
 * Duty of a curve: straight between its points, held at its ends.
 * @param points a valid curve (`curveProblem`)
 * @param temperatureC degC
 * Reference: handbook CT1, CT2
 */
export function curveDuty(points: readonly CurvePoint[], temperatureC: number): number {
  const last = points.length - 1
  if (temperatureC < points[0]!.temperatureC) return points[0]!.duty
  if (temperatureC >= points[last]!.temperatureC) return points[last]!.duty
  let after = 1
  while (temperatureC >= points[after]!.temperatureC) after++
  const a = points[after - 1]!
  const b = points[after]!
  const share = (temperatureC - a.temperatureC) / (b.temperatureC - a.temperatureC)
  return a.duty + share * (b.duty - a.duty)
}
