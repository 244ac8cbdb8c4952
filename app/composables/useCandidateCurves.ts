import { pressureAt } from '#core/fan'
import { drivenGroup, endsOf, groupOf, type DrivenGroup, type Group } from '#core/system'
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
export function candidateGroup(c: Candidate, fans: readonly Fan[]): Group | null {
  const made = groupOf(
    {
      id: '',
      fanId: c.fanId,
      secondFanId: c.secondId,
      count: c.count,
      arrangement: c.arrangement,
      driveV: c.driveV,
      duty: c.duty,
    },
    fans,
  )
  return made.ok ? made.group : null
}

/** Points of a driven curve for a chart. */
function sample(driven: DrivenGroup): ChartPoint[] {
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
  const group = candidateGroup(c, fans)
  const driven = group && drivenGroup(group, { volts: c.driveV, duty: c.duty }, report.air)
  return driven ? sample(driven) : []
}

/** How a group's curve comes about: each different member alone, as driven. */
export function memberCurves(c: Candidate, fans: readonly Fan[], report: Report): CurveSeries[] {
  const group = candidateGroup(c, fans)
  if (!group || group.count < 2) return []
  return [group.model, group.second].flatMap((model): CurveSeries[] => {
    if (!model) return []
    const driven = drivenGroup(
      { model, second: null, count: 1, arrangement: 'single' },
      { volts: c.driveV, duty: c.duty },
      report.air,
    )
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
