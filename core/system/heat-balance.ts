import { ZERO_CELSIUS_K, type AirState } from '#core/air'
import type { Blows, Job } from '#core/document'
import { stirredRise } from '#core/need'

/**
 * The one heat balance of a job: the moved air and the walls carry its heat. Every screen that tells a rise, an inside
 * temperature or the air at the fan takes it from here.
 */

/**
 * Density at the fan, where the airflow is stated, kg/m3: the intake's where it blows in (or nobody said), the warm
 * air's where it draws out.
 * @param exhaustC air that leaves, degC
 * Reference: ideal gas at constant pressure; heat balance stated at the fan (ASHRAE Fundamentals)
 */
export function densityAtFan(blows: Blows, air: AirState, exhaustC: number): number {
  if (blows !== 'out') return air.density
  return (air.density * (air.temperatureC + ZERO_CELSIUS_K)) / (exhaustC + ZERO_CELSIUS_K)
}

/**
 * How much warmer than its intake the job's heat makes the air inside, and so the air that leaves, K: a stirred box with
 * its wall loss.
 * @param flow through the fan that takes up the heat, m3/s
 * @returns null without a known heat, or where neither walls nor air carry it
 * Reference: heat balance Δt = P/(UA + ρ·cp·Q), ASHRAE Fundamentals
 */
export function airRise(job: Job, blows: Blows, air: AirState, flow: number | null): number | null {
  if (flow === null || job.heatW === null) return null
  const intakeK = job.ambientC + ZERO_CELSIUS_K
  return stirredRise(job.heatW, job.wallLossWK ?? 0, flow, air.density, blows === 'out' ? intakeK : null)
}

/** Air inside, degC; null where the rise is not known. @param flow m3/s; null where it is not known */
export function insideC(job: Job, blows: Blows, air: AirState, flow: number | null): number | null {
  const rise = airRise(job, blows, air, flow)
  return rise === null ? null : job.ambientC + rise
}

/**
 * Air temperature at the fan, degC: warm where it draws out, the room's where it blows in.
 * @param insideMaxC limit inside, degC, taken where no flow tells the rise
 * @param flow through the fan, m3/s
 * @returns null where the direction is not known
 */
export function fanAirC(
  job: Job,
  blows: Blows,
  insideMaxC: number | null,
  flow: number | null,
  air: AirState,
): number | null {
  const hottest = job.ambientMaxC ?? job.ambientC
  if (blows === 'in') return hottest
  if (blows !== 'out') return null
  const rise = airRise(job, blows, air, flow)
  return rise === null ? insideMaxC : hottest + rise
}
