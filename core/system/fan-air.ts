import { temperatureRise } from '#core/need'
import type { PlanDocument } from '#core/document'
import type { Need } from '#core/requirement'

/** Air temperature at the fan, degC: warm where it draws out, the room's where it blows in; null where the direction is not known. */
export function fanAirC(
  { job }: PlanDocument,
  need: Need,
  flow: number | null,
  density: number,
): number | null {
  if (job.direction === 'in') return job.ambientMaxC ?? job.ambientC
  if (job.direction !== 'out') return null
  const rise = flow && job.heatW ? temperatureRise(job.heatW, flow, density) : null
  return rise === null ? need.insideMaxC : (job.ambientMaxC ?? job.ambientC) + rise
}
