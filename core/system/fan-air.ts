import type { Job } from '#core/document'
import { temperatureRise } from '#core/need'

/**
 * The one heat balance of the moved air: how much warmer the job's heat makes it, K.
 * @param flow that takes up the heat, m3/s
 * @param density of the air, kg/m3
 * @returns null without heat or flow
 * Reference: heat balance, ASHRAE Fundamentals, chapter 18
 */
export const airRise = (job: Job, flow: number | null, density: number): number | null =>
  flow && job.heatW ? temperatureRise(job.heatW, flow, density) : null

/**
 * Air temperature at the fan, degC: warm where it draws out, the room's where it blows in.
 * @param insideMaxC limit inside, degC, taken where no flow tells the rise
 * @param flow through the fan, m3/s
 * @param density kg/m3, above 0
 * @returns null where the direction is not known
 */
export function fanAirC(
  job: Job,
  insideMaxC: number | null,
  flow: number | null,
  density: number,
): number | null {
  const hottest = job.ambientMaxC ?? job.ambientC
  if (job.direction === 'in') return hottest
  if (job.direction !== 'out') return null
  const rise = airRise(job, flow, density)
  return rise === null ? insideMaxC : hottest + rise
}
