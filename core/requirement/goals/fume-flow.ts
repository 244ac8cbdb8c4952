import type { AirState } from '#core/air'
import {
  captureFlow,
  captureSpeedAt,
  airflowForClearOut,
  clearOutTime,
  openingFlow,
  openingPressure,
  slotCaptureFlow,
} from '#core/need'
import type { Job } from '#core/document'
import { largest } from './model'
import { CLEAR_SHARE, MIXING } from './space-flow'

/** Discharge coefficient of the openings of a box. Published for sharp edges. */
export const CD = 0.61

/** Under-pressure of the box and the area all its openings have, for an enclosure. */
export function enclosure(job: Job, air: AirState): { pressure: number; area: number } | null {
  const work = job.workOpeningM2 ?? 0
  const area = work + (job.leakAreaM2 ?? 0)
  if (!(area > 0)) return null
  const byFace =
    work > 0 && job.faceSpeedMs ? openingPressure(job.faceSpeedMs * work, work, CD, air.density) : 0
  const pressure = Math.max(byFace, job.boxPressurePa ?? 0)
  return pressure > 0 ? { pressure, area } : null
}

/** Airflow that clears the box in the wished time, m3/s; null without a volume and a time. */
export const clearingFlow = (job: Job): number | null =>
  job.volumeM3 && job.clearS
    ? airflowForClearOut(job.volumeM3, job.clearS, job.mixing ?? MIXING, job.clearShare ?? CLEAR_SHARE)
    : null

/** Airflow that the fume wants: what catches it, or what clears the box in time where that is more, m3/s. */
export const fumeFlow = (job: Job, air: AirState): number | null => {
  const caught = catchingFlow(job, air)
  return caught === null ? null : largest([caught, clearingFlow(job)])
}

/** Airflow that catches the fume, or keeps the box under pressure, m3/s; null where something is missing. */
export function catchingFlow(job: Job, air: AirState): number | null {
  if (job.fumeWay === 'enclosure') {
    const box = enclosure(job, air)
    return box && openingFlow(box.pressure, box.area, CD, air.density)
  }
  if (job.captureSpeedMs === null || job.captureDistanceM === null) return null
  if (job.fumeWay === 'slot')
    return job.slotLengthM === null
      ? null
      : slotCaptureFlow(job.captureSpeedMs, job.captureDistanceM, job.slotLengthM, job.slotFlanged)
  return job.nozzleAreaM2 === null
    ? null
    : captureFlow(job.captureSpeedMs, job.captureDistanceM, job.nozzleAreaM2, job.nozzleOpening)
}

/**
 * Capture speed at the source that a flow reaches, m/s; null for an enclosure.
 * @param flow m3/s, 0 or more
 */
export function speedReached(job: Job, flow: number | null): number | null {
  if (flow === null || job.captureDistanceM === null) return null
  if (job.fumeWay === 'capture' && job.nozzleAreaM2 !== null)
    return captureSpeedAt(flow, job.captureDistanceM, job.nozzleAreaM2, job.nozzleOpening)
  if (job.fumeWay === 'slot' && job.slotLengthM !== null)
    return flow / slotCaptureFlow(1, job.captureDistanceM, job.slotLengthM, job.slotFlanged)
  return null
}

/** Time until the room behind no longer smells, s: its own air changes clear it. */
export function roomClearTime(job: Job): number | null {
  if (!job.roomVolumeM3 || !job.roomChangesPerH) return null
  return clearOutTime(
    job.roomVolumeM3,
    (job.roomVolumeM3 * job.roomChangesPerH) / 3600,
    job.roomMixing ?? MIXING,
    1,
    job.clearShare ?? CLEAR_SHARE,
  )
}
