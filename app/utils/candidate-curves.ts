import { pressureAt } from '#core/fan'
import { alike, drivenArray, endsOf, fanArrayOf, type DrivenArray, type FanArray } from '#core/system'
import type { Candidate } from '#core/selection'
import type { Fan } from '#core/document'
import type { Report } from '#core/plan'
import type { CurveSeries } from '~/components/lineup/CurveChart.vue'

const SAMPLES = 49
interface ChartPoint {
  flow: number
  pressure: number
}

/** The group of a candidate; null where one of its fans is gone. */
export function candidateArray(c: Candidate, fans: readonly Fan[]): FanArray | null {
  const made = fanArrayOf(
    {
      groups: c.fans.map((f) => ({ ...f, placeId: f.placeId ?? '' })),
      count: c.count,
      arrangement: c.arrangement,
    },
    fans,
  )
  return made.ok ? made.fanArray : null
}

/** Points of a driven curve for a chart. */
function sample(driven: DrivenArray): ChartPoint[] {
  const { curve, drive } = driven
  const flowFactor = drive.speed * drive.parallel
  const pressureFactor = drive.speed ** 2 * drive.densityRatio * drive.series
  const first = curve.q[0]!
  const last = endsOf(driven).free / flowFactor
  return Array.from({ length: SAMPLES }, (_, i) => {
    const q = i === SAMPLES - 1 ? curve.q.at(-1)! : first + ((last - first) * i) / (SAMPLES - 1)
    return { flow: q * flowFactor, pressure: (pressureAt(curve, q) ?? 0) * pressureFactor }
  })
}

/** The curve of a candidate as driven on this site. */
export function candidateCurve(c: Candidate, fans: readonly Fan[], report: Report): ChartPoint[] {
  const fanArray = candidateArray(c, fans)
  const driven = fanArray && drivenArray(fanArray, { volts: c.driveV, duty: c.duty }, report.air)
  return driven ? sample(driven) : []
}

/** How a group's curve comes about: each different member alone, as driven. */
export function memberCurves(c: Candidate, fans: readonly Fan[], report: Report): CurveSeries[] {
  const fanArray = candidateArray(c, fans)
  if (!fanArray || fanArray.count < 2) return []
  const models = new Set(fanArray.groups.map((g) => g.model))
  return [...models].flatMap((model): CurveSeries[] => {
    const driven = drivenArray(alike(model, 1, 'single'), { volts: c.driveV, duty: c.duty }, report.air)
    return driven
      ? [
          {
            id: `alone-${model.fan.id}`,
            label: `${model.fan.model} alone`,
            points: sample(driven),
            tone: 'member',
            operating: null,
          },
        ]
      : []
  })
}

/** Where else a candidate's curve meets the path, read off its drawn curve. */
export function otherCrossings(c: Candidate, points: readonly ChartPoint[]) {
  return c.crossings
    .filter((crossing) => crossing.flow !== c.flow)
    .map(({ flow, stable }) => {
      const right = Math.max(
        1,
        points.findIndex((p) => p.flow >= flow),
      )
      const [a, b] = [points[right - 1], points[right]]
      const share = a && b && b.flow > a.flow ? (flow - a.flow) / (b.flow - a.flow) : 0
      return { flow, stable, pressure: a && b ? a.pressure + share * (b.pressure - a.pressure) : 0 }
    })
}
