/** Resistance of a heatsink or part at an airflow. */
export interface SinkCurvePoint {
  flow: number
  kPerW: number
}

/** Local law beyond the data: R ~ Q^-0.5 of laminar developing flow. Common practice, no source. */
const EXPONENT = -0.5
/** How far beyond the data that law is followed, as factors of the first and last flow. */
const REACH = { below: 0.25, above: 2 }

/**
 * Largest airflow that a curve of resistances is followed to, m3/s; 0 without points.
 * Reference: a choice of ours, twice the last point
 */
export const sinkReach = (points: readonly SinkCurvePoint[]) => REACH.above * (points.at(-1)?.flow ?? 0)

const exponentBetween = (p: SinkCurvePoint, q: SinkCurvePoint) =>
  Math.log(q.kPerW / p.kPerW) / Math.log(q.flow / p.flow)

/**
 * Points that make a curve: flows above 0 and rising, resistances above 0 and falling. Returns what is wrong, or null.
 * Reference: thermal resistance chain
 */
export function sinkProblem(points: readonly SinkCurvePoint[]): string | null {
  if (!points.length) return 'a point of its thermal resistance'
  for (const [i, p] of points.entries()) {
    if (!(p.flow > 0 && p.kPerW > 0)) return 'flows and resistances above zero'
    if (i > 0 && !(p.flow > points[i - 1]!.flow)) return 'rising flows'
    if (i > 0 && !(p.kPerW < points[i - 1]!.kPerW)) return 'a resistance that falls with the airflow'
  }
  return null
}

/** Law of the curve around a flow: through which point, with which exponent. */
function lawAt(
  points: readonly SinkCurvePoint[],
  isBefore: (p: SinkCurvePoint) => boolean,
): { from: SinkCurvePoint; exponent: number } {
  const k = points.findLastIndex(isBefore)
  if (k < 0) return { from: points[0]!, exponent: EXPONENT }
  const next = points[k + 1]
  return { from: points[k]!, exponent: next ? exponentBetween(points[k]!, next) : EXPONENT }
}

/**
 * Thermal resistance at an airflow, K/W: a power law between the points, R ~ Q^-0.5 beyond them.
 * @param points flows m3/s rising, resistances K/W falling
 * @param flow m3/s, above 0
 * @returns null below a quarter of the first flow or above twice the last: no data there
 * Reference: local power laws, handbook heat and time (common practice)
 */
export function sinkResistanceAt(points: readonly SinkCurvePoint[], flow: number): number | null {
  if (
    sinkProblem(points) ||
    !(flow >= REACH.below * points[0]!.flow && flow <= REACH.above * points.at(-1)!.flow)
  )
    return null
  const { from, exponent } = lawAt(points, (p) => p.flow <= flow)
  return from.kPerW * (flow / from.flow) ** exponent
}

/**
 * Smallest airflow that brings the resistance down to a value, m3/s; null where the data end before it.
 * Reference: thermal resistance chain
 */
export function flowForSinkResistance(points: readonly SinkCurvePoint[], kPerW: number): number | null {
  if (sinkProblem(points) || !(kPerW > 0)) return null
  const { from, exponent } = lawAt(points, (p) => p.kPerW >= kPerW)
  const flow = from.flow * (kPerW / from.kPerW) ** (1 / exponent)
  if (flow > REACH.above * points.at(-1)!.flow) return null
  return Math.max(flow, REACH.below * points[0]!.flow)
}
