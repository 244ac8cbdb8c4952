import { isaPressure, SEA_LEVEL_PRESSURE } from '#core/air'
import { evaporationRate, lidEffect, speedForCooling, type WaterSurface } from '#core/need'
import type { Job, Lid } from '#core/document'

type Surface = Omit<WaterSurface, 'airSpeed'>
/** The water surface of a job; null where its size or temperature is not known. */
export function surfaceOf(job: Job, lid: Lid): Surface | null {
  if (job.waterAreaM2 === null || job.waterC === null) return null
  return {
    areaM2: job.waterAreaM2,
    waterC: job.waterC,
    airC: job.ambientC,
    relativeHumidity: job.humidity,
    activity: lidEffect[lid].activity,
    pressurePa: isaPressure(job.altitudeM) ?? SEA_LEVEL_PRESSURE,
  }
}

/** Air speed at the water that the job asks for, m/s. */
export function wantedSpeed(job: Job): number | null {
  const surface = surfaceOf(job, job.lid)
  if (!surface) return null
  if (job.coolingW === null) return job.surfaceSpeedMs
  const bySurface = speedForCooling(surface, job.coolingW)
  const share = lidEffect[job.lid].speed
  return bySurface === null || (bySurface > 0 && share === 0) ? null : share === 0 ? 0 : bySurface / share
}

/** Airflow that makes that speed over the water, m3/s. */
export function wantedFlow(job: Job): number | null {
  const speed = wantedSpeed(job)
  return speed === null || job.crossAreaM2 === null ? null : speed * job.crossAreaM2
}

/**
 * Water lost while the fan runs and over the day, kg/s and kg per day.
 * @param flow m3/s, 0 or more
 */
export function evaporationOf(
  job: Job,
  flow: number | null,
  lid: Lid = job.lid,
): { rate: number; perDay: number } | null {
  const surface = surfaceOf(job, lid)
  const share = lidEffect[lid].speed
  const speed =
    flow === null ? (share === 0 ? 0 : null) : job.crossAreaM2 ? (flow / job.crossAreaM2) * share : null
  if (!surface || speed === null) return null
  const running = evaporationRate({ ...surface, airSpeed: speed })
  const resting = evaporationRate({ ...surface, airSpeed: 0, activity: lidEffect.still.activity })
  if (running === null || resting === null) return null
  return { rate: running, perDay: running * job.hoursPerDay * 3600 + resting * (24 - job.hoursPerDay) * 3600 }
}
