import { wetBulb } from '#core/air'
import {
  evaporationRate,
  EVAPORATION_UNCERTAINTY,
  EVAPORATION_MAX_SPEED,
  lidEffect,
  speedForCooling,
  waterNetCooling,
  type WaterSurface,
} from '#core/need'
import type { Job, Lid } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { firstMissing, type GoalNeed } from './model'

type Surface = Omit<WaterSurface, 'airSpeed'>
function surfaceOf(job: Job, lid: Lid): Surface | null {
  if (job.waterAreaM2 === null || job.waterC === null) return null
  return {
    areaM2: job.waterAreaM2,
    waterC: job.waterC,
    airC: job.ambientC,
    relativeHumidity: job.humidity,
    activity: lidEffect[lid].activity,
  }
}

/** Air speed at the water that the job asks for, m/s. */
function wantedSpeed(job: Job): number | null {
  const surface = surfaceOf(job, job.lid)
  if (!surface) return null
  if (job.coolingW === null) return job.surfaceSpeedMs
  const bySurface = speedForCooling(surface, job.coolingW)
  const share = lidEffect[job.lid].speed
  return bySurface === null || (bySurface > 0 && share === 0) ? null : share === 0 ? 0 : bySurface / share
}

/** Water lost while the fan runs and over the day, kg/s and kg per day. */
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

const lidNames: Record<Lid, string> = { open: 'open', mesh: 'mesh lid', still: 'closed lid' }

/** Chill a water surface: the air speed over it sets evaporation and cooling. */
export const chill: GoalNeed = {
  uncertainties: ['waterAreaM2', 'waterC', 'surfaceSpeedMs', 'crossAreaM2'],
  missing: (job) =>
    firstMissing(job, [
      ['waterAreaM2', 'the water’s surface'],
      ['waterC', 'its temperature'],
      ['crossAreaM2', 'the cross-section the air crosses'],
    ]) ?? (job.coolingW === null && job.surfaceSpeedMs === null ? 'a cooling in watts, or an air speed' : null),
  flow: (job) => {
    const speed = wantedSpeed(job)
    return speed === null || job.crossAreaM2 === null ? null : speed * job.crossAreaM2
  },
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
    const figures: Figure[] = []
    const at = flow ?? chill.flow(job, { air } as never)
    const inputs = [
      input('A', 'water surface', job.waterAreaM2, 'area'),
      input('t_w', 'water', job.waterC, 'temperature'),
      input('t_a', 'air', job.ambientC, 'temperature'),
      input('RH', 'humidity', job.humidity, 'ratio'),
      input('Q', 'airflow', at, 'flow'),
    ]
    const band = (x: number | null) => ({
      low: x === null ? null : x * (1 - EVAPORATION_UNCERTAINTY),
      high: x === null ? null : x * (1 + EVAPORATION_UNCERTAINTY),
    })
    for (const lid of ['open', 'mesh', 'still'] as Lid[]) {
      const lost = evaporationOf(job, at, lid)
      const perDay = lost && lost.perDay / 86400
      figures.push(
        figure(
          `need.water.${lid}`,
          `Water lost, ${lidNames[lid]}${lid === job.lid ? ' (this job)' : ''}`,
          'waterPerDay',
          perDay,
          'w = Fa·A·(p_w − p_a)·(0.089 + 0.0782·v)/h_fg',
          'ASHRAE pool formula (from memory); the hours the timer runs, still water the rest of the day',
          {
            basis: 'estimated',
            ...band(perDay),
            inputs: [...inputs, input('h', 'hours a day it runs', job.hoursPerDay, 'number')],
            note: lid === 'mesh' ? 'A mesh lid is taken to halve the speed at the water (an assumption).' : '',
          },
        ),
      )
    }
    const surface = surfaceOf(job, job.lid)
    const share = lidEffect[job.lid].speed
    const cooling =
      surface && at !== null && job.crossAreaM2
        ? waterNetCooling({ ...surface, airSpeed: (at / job.crossAreaM2) * share })
        : null
    figures.push(
      figure(
        'need.waterCooling',
        'Cooling of the water while it runs',
        'power',
        cooling,
        'P = w·h_fg·(1 + γ·(t_w − t_a)/(p_w − p_a))',
        'latent heat less what the warmer air pays',
        { basis: 'estimated', ...band(cooling), inputs },
      ),
    )
    const lost = evaporationOf(job, at)
    if (job.reserveM3 && lost && lost.perDay > 0) {
      const days = (job.reserveM3 * 1000) / lost.perDay
      figures.push(
        figure(
          'need.topUp',
          'Top up with pure water every (days)',
          'number',
          days,
          'days = reserve / litres a day',
          'water balance',
          {
            basis: 'estimated',
            low: days / (1 + EVAPORATION_UNCERTAINTY),
            high: days / (1 - EVAPORATION_UNCERTAINTY),
            inputs: [input('V', 'may be lost', job.reserveM3, 'volume')],
            note: 'Salts stay behind: top up with pure water only.',
          },
        ),
      )
    }
    figures.push(
      figure(
        'need.wetBulb',
        'The water cannot get below',
        'temperature',
        wetBulb(job.ambientC, job.humidity, air.pressurePa),
        'wet-bulb temperature',
        'ASHRAE Fundamentals, psychrometrics',
        {
          inputs: [
            input('t', 'air', job.ambientC, 'temperature'),
            input('RH', 'humidity', job.humidity, 'ratio'),
          ],
        },
      ),
    )
    return figures
  },
}
