import type { AirState } from '#core/air'
import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { captureDistance, openingPressure } from '#core/need'
import { CD, enclosure, roomClearTime, speedReached } from './fume-flow'
import type { Delivered } from './model'
import { CLEAR_SHARE, MIXING } from './space-flow'

/** The capture law by what stands before the source. */
const captureFormulas = {
  plain: 'V = Q / (10·X² + A)',
  flanged: 'V = Q / (0.75·(10·X² + A))',
  bench: 'V = Q / (5·X² + A)',
  slot: 'V = Q / (3.7·L·X)',
  'slot with a flange': 'V = Q / (2.6·L·X)',
}
const way = (job: Job): keyof typeof captureFormulas =>
  job.fumeWay === 'slot' ? (job.slotFlanged ? 'slot with a flange' : 'slot') : job.nozzleOpening

/** Capture speed that the delivered flow reaches at the source. */
export const captureReachedFigure = (job: Job, { flow, low, high }: Delivered): Figure =>
  figure(
    'need.captureReached',
    'Speed at the source with the picked fan',
    'speed',
    speedReached(job, flow),
    captureFormulas[way(job)],
    'the same law backwards',
    {
      basis: 'estimated',
      low: speedReached(job, low),
      high: speedReached(job, high),
      inputs: [
        input('Q', 'airflow', flow, 'flow'),
        input('X', 'source to opening', job.captureDistanceM, 'distance'),
        job.fumeWay === 'slot'
          ? input('L', 'length of the slot', job.slotLengthM, 'distance')
          : input('A', 'opening of the nozzle', job.nozzleAreaM2, 'area'),
      ],
    },
  )

/** How far off the nozzle may stand; null where it is no nozzle or its speed is not known. */
export function nozzleReachFigure(job: Job, { flow, low, high }: Delivered): Figure | null {
  const { nozzleAreaM2: opening, captureSpeedMs: speed, nozzleOpening } = job
  if (job.fumeWay !== 'capture' || opening === null || !speed) return null
  const reach = (q: number | null) => (q === null ? null : captureDistance(q, speed, opening, nozzleOpening))
  return figure(
    'need.nozzleReach',
    'The nozzle may be this far off',
    'distance',
    reach(flow),
    { plain: 'X = √((Q/V − A)/10)', flanged: 'X = √((Q/(0.75·V) − A)/10)', bench: 'X = √((Q/V − A)/5)' }[
      nozzleOpening
    ],
    'the same law backwards; beyond 1.5 diameters of the opening draughts decide',
    {
      basis: 'estimated',
      low: reach(low),
      high: reach(high),
      inputs: [
        input('Q', 'airflow', flow, 'flow'),
        input('V', 'capture speed', speed, 'speed'),
        input('A', 'opening', opening, 'area'),
      ],
    },
  )
}

/**
 * Under-pressure of the box at the delivered flow.
 * @param flow m3/s, 0 or more
 */
export function boxPressureFigure(job: Job, air: AirState, flow: number): Figure {
  const box = enclosure(job, air)
  return figure(
    'need.boxPressure',
    'Under-pressure with the picked fan',
    'pressure',
    box && openingPressure(flow, box.area, CD, air.density),
    'Δp = ρ/2·(Q/(Cd·A))²',
    'orifice equation',
    {
      basis: 'estimated',
      inputs: [
        input('Q', 'airflow', flow, 'flow'),
        input('A', 'all openings and leaks', box?.area ?? null, 'area'),
        input('Cd', 'discharge coefficient', CD, 'number'),
        input('ρ', 'air density', air.density, 'density'),
      ],
    },
  )
}

/** How long the room behind smells. */
export const roomClearFigure = (job: Job): Figure =>
  figure(
    'need.roomClear',
    'The room behind smells for',
    'duration',
    roomClearTime(job),
    't = K/n · ln(1/share)',
    'well-mixed dilution by the room’s own air changes',
    {
      basis: 'estimated',
      inputs: [
        input('n', 'air changes of the room', job.roomChangesPerH, 'perHour'),
        input('K', 'mixing factor of the room', job.roomMixing ?? MIXING, 'number'),
        input('share', 'left of the first level', job.clearShare ?? CLEAR_SHARE, 'ratio'),
      ],
      note: job.roomChangesPerH
        ? 'From what escaped; surfaces give smell back longer.'
        : 'Needs the room’s air changes.',
    },
  )
