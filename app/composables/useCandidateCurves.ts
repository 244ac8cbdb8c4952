import { pressureAt } from '../../core/fan'
import { modelFan, type Candidate, type Fan, type Report } from '../../core/plan'

const SAMPLES = 49

/** The curve of a candidate as driven on this site: points for the chart. */
export function candidateCurve(candidate: Candidate, fans: readonly Fan[], report: Report): { flow: number, pressure: number }[] {
  const fan = fans.find(f => f.id === candidate.fanId)
  const made = fan ? modelFan(fan) : null
  if (!made?.ok || candidate.speed <= 0) return []
  const curve = made.model.curves.middle
  const flowFactor = candidate.speed * (candidate.arrangement === 'series' ? 1 : candidate.count)
  const pressureFactor = candidate.speed ** 2 * report.air.densityRatio * (candidate.arrangement === 'series' ? candidate.count : 1)
  const first = curve.q[0]!
  const last = curve.q.at(-1)!
  return Array.from({ length: SAMPLES }, (_, i) => {
    const q = i === SAMPLES - 1 ? last : first + (last - first) * i / (SAMPLES - 1)
    return { flow: q * flowFactor, pressure: (pressureAt(curve, q) ?? 0) * pressureFactor }
  })
}
