import type { AirState } from '#core/air'
import {
  captureDistance,
  captureFlow,
  captureSpeedAt,
  clearOutTime,
  openingFlow,
  openingPressure,
  slotCaptureFlow,
} from '#core/need'
import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { densityInput, firstMissing, type GoalNeed } from './model'
import { CLEAR_SHARE, clearOutFigure, MIXING } from './space'

/** Discharge coefficient of the openings of a box. Published for sharp edges. */
const CD = 0.61

/** Under-pressure of the box and the area all its openings have, for an enclosure. */
function enclosure(job: Job, air: AirState): { pressure: number; area: number } | null {
  const work = job.workOpeningM2 ?? 0
  const area = work + (job.leakAreaM2 ?? 0)
  if (!(area > 0)) return null
  const byFace =
    work > 0 && job.faceSpeedMs ? openingPressure(job.faceSpeedMs * work, work, CD, air.density) : 0
  const pressure = Math.max(byFace, job.boxPressurePa ?? 0)
  return pressure > 0 ? { pressure, area } : null
}

function fumeFlow(job: Job, air: AirState): number | null {
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

/** Capture speed at the source that a flow reaches, m/s; null for an enclosure. */
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
    job.mixing ?? MIXING,
    1,
    job.clearShare ?? CLEAR_SHARE,
  )
}

/** Carry off fumes or dust: catch them at a distance, or keep a box under negative pressure. */
export const fume: GoalNeed = {
  uncertainties: [
    'captureSpeedMs',
    'captureDistanceM',
    'nozzleAreaM2',
    'slotLengthM',
    'leakAreaM2',
    'workOpeningM2',
    'mixing',
  ],
  missing: (job, { air }) => {
    if (job.fumeWay === 'enclosure')
      return enclosure(job, air)
        ? null
        : !(job.workOpeningM2 || job.leakAreaM2)
          ? 'the openings or leaks of the box'
          : 'a face speed or an under-pressure'
    return firstMissing(job, [
      ['captureSpeedMs', 'the capture speed'],
      ['captureDistanceM', 'the distance to the source'],
      job.fumeWay === 'slot'
        ? ['slotLengthM', 'the length of the slot']
        : ['nozzleAreaM2', 'the opening of the nozzle'],
    ])
  },
  flow: (job, { air }) => fumeFlow(job, air),
  working: (job, { air }) => {
    const speed = input('V', 'capture speed at the source', job.captureSpeedMs, 'speed')
    const distance = input('X', 'source to opening', job.captureDistanceM, 'distance')
    const source =
      'industrial-ventilation handbook after DallaValle and Silverman (from memory); on the axis up to about 1.5 diameters'
    const shared = {
      label: 'Airflow needed',
      basis: 'estimated' as const,
      note: 'The flow wanted goes with the square of the distance: nearer beats stronger.',
    }
    if (job.fumeWay === 'enclosure') {
      const box = enclosure(job, air)
      return {
        ...shared,
        note: 'Every opening counts as a leak: hands, cracks and the wanted intake.',
        formula: 'Q = Cd·A·√(2·Δp/ρ)',
        source: 'orifice equation',
        inputs: [
          input('Cd', 'discharge coefficient', CD, 'number'),
          input('A', 'all openings and leaks', box?.area ?? null, 'area'),
          input('Δp', 'under-pressure', box?.pressure ?? null, 'pressure'),
          densityInput(air),
        ],
      }
    }
    if (job.fumeWay === 'slot')
      return {
        ...shared,
        note: 'A slot’s flow goes with the distance itself.',
        formula: job.slotFlanged ? 'Q = 2.6·L·V·X' : 'Q = 3.7·L·V·X',
        source,
        inputs: [speed, distance, input('L', 'length of the slot', job.slotLengthM, 'length')],
      }
    const formula = {
      plain: 'Q = V·(10·X² + A)',
      flanged: 'Q = 0.75·V·(10·X² + A)',
      bench: 'Q = V·(5·X² + A)',
    }[job.nozzleOpening]
    return {
      ...shared,
      formula,
      source,
      inputs: [speed, distance, input('A', 'opening of the nozzle', job.nozzleAreaM2, 'area')],
    }
  },
  extras: (job, { air }, { flow, low, high }) => {
    const figures: Figure[] = []
    if (job.fumeWay !== 'enclosure') {
      figures.push(
        figure(
          'need.captureReached',
          'Speed at the source with the picked fan',
          'speed',
          speedReached(job, flow),
          'V = Q / (10·X² + A)',
          'the same law backwards',
          {
            basis: 'estimated',
            low: speedReached(job, low),
            high: speedReached(job, high),
            inputs: [
              input('Q', 'airflow', flow, 'flow'),
              input('X', 'source to opening', job.captureDistanceM, 'distance'),
            ],
          },
        ),
      )
      if (job.fumeWay === 'capture' && job.nozzleAreaM2 !== null && job.captureSpeedMs) {
        const reach = (q: number | null) =>
          q === null ? null : captureDistance(q, job.captureSpeedMs!, job.nozzleAreaM2!, job.nozzleOpening)
        figures.push(
          figure(
            'need.nozzleReach',
            'The nozzle may be this far off',
            'distance',
            reach(flow),
            'X = √((Q/V − A)/10)',
            'the same law backwards; beyond 1.5 diameters of the opening draughts decide',
            {
              basis: 'estimated',
              low: reach(low),
              high: reach(high),
              inputs: [
                input('Q', 'airflow', flow, 'flow'),
                input('V', 'capture speed', job.captureSpeedMs, 'speed'),
                input('A', 'opening', job.nozzleAreaM2, 'area'),
              ],
            },
          ),
        )
      }
    } else if (flow !== null) {
      const box = enclosure(job, air)
      figures.push(
        figure(
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
            ],
          },
        ),
      )
    }
    if (job.volumeM3) figures.push(clearOutFigure(job, flow, 'The box is clear after', low, high))
    if (job.roomVolumeM3) {
      figures.push(
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
              input('K', 'mixing factor', job.mixing ?? MIXING, 'number'),
            ],
            note: job.roomChangesPerH
              ? 'From what escaped; surfaces give smell back longer.'
              : 'Needs the room’s air changes.',
          },
        ),
      )
    }
    return figures
  },
}
