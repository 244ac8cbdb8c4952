import { input } from '#core/figure'
import { catchingFlow, CD, clearingFlow, enclosure, fumeFlow } from './fume-flow'
import { boxPressureFigure, captureReachedFigure, nozzleReachFigure, roomClearFigure } from './fume-figures'
import { densityInput, firstMissing, type GoalNeed } from './model'
import { askFormulas, askSources, clearInputs, clearOutFigure } from './space-figures'

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
    'volumeM3',
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
    if ((clearingFlow(job) ?? 0) > (catchingFlow(job, air) ?? 0))
      return {
        label: 'Airflow needed',
        formula: askFormulas.clearOut,
        source: askSources.clearOut,
        basis: 'estimated',
        note: 'Clearing the box in the wished time rules; catching the fume needs less.',
        inputs: [...clearInputs(job), input('t', 'wanted', job.clearS, 'duration')],
      }
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
  extras: (job, { air }, delivered) => {
    const { flow, low, high } = delivered
    const boxed = job.fumeWay === 'enclosure'
    return [
      boxed ? null : captureReachedFigure(job, delivered),
      boxed ? null : nozzleReachFigure(job, delivered),
      boxed && flow !== null ? boxPressureFigure(job, air, flow) : null,
      job.volumeM3 ? clearOutFigure(job, flow, 'The box is clear after', low, high) : null,
      job.roomVolumeM3 ? roomClearFigure(job) : null,
    ].filter((f) => f !== null)
  },
}
