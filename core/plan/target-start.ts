import type { PlacePlan, TargetKind } from '#core/document'
import { arrayMass } from '#core/system'
import type { Report } from './report'

/** Rise that a cabinet is usually allowed, K; level that is hardly heard in a quiet room, dB(A). Common practice, no source. */
const USUAL_RISE_K = 15
const QUIET_DBA = 30
const USUAL_MONEY = 30
const USUAL_THICKNESS_M = 0.025
const HOUR = 3600

/**
 * What a new target begins with: the job's own limit where it has one, else what the plan gives, else what is usual.
 * @param report of the plan; null where it has none
 */
export function targetStart(kind: TargetKind, plan: PlacePlan, report: Report | null): number {
  const { job, battery, place } = plan
  switch (kind) {
    case 'temperature':
      return (
        (job.goal === 'part' ? job.partMaxC : job.insideMaxC) ??
        (job.ambientMaxC ?? job.ambientC) + USUAL_RISE_K
      )
    case 'rise':
      return job.insideMaxC === null ? USUAL_RISE_K : Math.max(1, job.insideMaxC - job.ambientC)
    case 'level':
      return job.roomDbA ?? QUIET_DBA
    case 'flow':
      return report?.need.wanted ?? report?.selection?.served.value ?? 0.01
    case 'airchanges':
      return job.airChangesPerH ?? 6
    case 'airspeed':
      return job.captureSpeedMs ?? 0.5
    case 'distance':
      return job.captureDistanceM ?? 0.2
    case 'humidity':
      return job.insideRhMax ?? 0.6
    case 'evaporation':
      return 1 / 86400
    case 'weight':
      return (report?.selection && arrayMass(report.selection.fanArray)) ?? 0.2
    case 'other':
      return 1
    case 'pressure':
      return report?.selection?.candidate.pressure ?? 10
    case 'time':
      return job.clearS ?? HOUR
    case 'rotation':
      return report?.selection?.fanArray.model.fan.ratedRpm ?? 1500
    case 'current':
      return report?.power.loadRunA ?? 0.5
    case 'power':
      return report?.selection?.candidate.powerW ?? 5
    case 'runtime':
      return battery?.wishedS ?? Math.max(1, job.hoursPerDay) * HOUR
    case 'money':
      return report?.selection?.candidate.cost || USUAL_MONEY
    case 'thickness':
      return place.fitDepthM === null
        ? (report?.selection?.candidate.thicknessM ?? USUAL_THICKNESS_M)
        : Math.max(0.003, place.fitDepthM - (place.stackExtraM ?? 0))
  }
}
