import { input } from '#core/figure'
import { EVAPORATION_MAX_SPEED } from '#core/need'
import { firstMissing, type GoalNeed } from './model'
import { topUpFigure, waterCoolingFigure, waterLostFigure, wetBulbFigure } from './water-figures'
import { wantedFlow, wantedSpeed } from './water-flow'

/** Chill a water surface: the air speed over it sets evaporation and cooling. */
export const chill: GoalNeed = {
  uncertainties: ['waterAreaM2', 'waterC', 'surfaceSpeedMs', 'crossAreaM2'],
  missing: (job) =>
    firstMissing(job, [
      ['waterAreaM2', 'the water’s surface'],
      ['waterC', 'its temperature'],
      ['crossAreaM2', 'the cross-section the air crosses'],
    ]) ?? (job.coolingW === null && job.surfaceSpeedMs === null ? 'a cooling in watts, or an air speed' : null),
  flow: wantedFlow,
  working: (job) => {
    const speed = wantedSpeed(job)
    const note =
      job.coolingW !== null && speed === null && job.waterAreaM2 !== null && job.waterC !== null
        ? 'No air speed up to 5 m/s gives this cooling: more surface, drier air, or less.'
        : speed !== null && speed > EVAPORATION_MAX_SPEED
          ? 'Faster than the formula has been tried: an extrapolation.'
          : 'Small tanks and fast air are an extrapolation: ±40 %.'
    return {
      label: 'Airflow needed',
      formula: 'Q = v · A_cross',
      source: 'air speed from the ASHRAE pool formula (from memory)',
      basis: 'estimated',
      note,
      inputs: [
        input('v', 'air speed over the water', speed, 'speed'),
        input('A_cross', 'cross-section over the water', job.crossAreaM2, 'area'),
        input('P', 'cooling wanted', job.coolingW, 'power'),
      ],
    }
  },
  extras: (job, { air }, { flow }) => {
    const at = flow ?? wantedFlow(job)
    return [
      waterLostFigure(job, at, 'open'),
      waterLostFigure(job, at, 'mesh'),
      waterLostFigure(job, at, 'still'),
      waterCoolingFigure(job, at),
      topUpFigure(job, at),
      wetBulbFigure(job, air),
    ].filter((f) => f !== null)
  },
}
