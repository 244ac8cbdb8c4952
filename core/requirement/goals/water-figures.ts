import { wetBulb, type AirState } from '#core/air'
import type { Job, Lid } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { EVAPORATION_UNCERTAINTY, lidEffect, waterNetCooling } from '#core/need'
import { evaporationOf, surfaceOf } from './water-flow'

const lidNames: Record<Lid, string> = { open: 'open', mesh: 'mesh lid', still: 'closed lid' }

const surfaceInputs = (job: Job, at: number | null) => [
  input('A', 'water surface', job.waterAreaM2, 'area'),
  input('t_w', 'water', job.waterC, 'temperature'),
  input('t_a', 'air', job.ambientC, 'temperature'),
  input('RH', 'humidity', job.humidity, 'ratio'),
  input('Q', 'airflow', at, 'flow'),
]
/** The formula's own doubt, which may lie on either side of a gain or a loss. */
const band = (x: number | null) => ({
  low: x === null ? null : x - EVAPORATION_UNCERTAINTY * Math.abs(x),
  high: x === null ? null : x + EVAPORATION_UNCERTAINTY * Math.abs(x),
})

/**
 * Water lost a day under a lid.
 * @param at m3/s
 */
export function waterLostFigure(job: Job, at: number | null, lid: Lid): Figure {
  const lost = evaporationOf(job, at, lid)
  const perDay = lost && lost.perDay / 86400
  return figure(
    `need.water.${lid}`,
    `Water lost, ${lidNames[lid]}${lid === job.lid ? ' (this job)' : ''}`,
    'waterPerDay',
    perDay,
    'w = Fa·A·(p_w − p_a)·(0.089 + 0.0782·v)/h_fg',
    'ASHRAE pool formula (from memory); the hours the timer runs, still water the rest of the day',
    {
      basis: 'estimated',
      ...band(perDay),
      inputs: [...surfaceInputs(job, at), input('h', 'hours a day it runs', job.hoursPerDay, 'number')],
      note: lid === 'mesh' ? 'A mesh lid is taken to halve the speed at the water (an assumption).' : '',
    },
  )
}

/**
 * Cooling of the water while the fan runs.
 * @param at m3/s
 */
export function waterCoolingFigure(job: Job, at: number | null): Figure {
  const surface = surfaceOf(job, job.lid)
  const share = lidEffect[job.lid].speed
  const cooling =
    surface && at !== null && job.crossAreaM2
      ? waterNetCooling({ ...surface, airSpeed: (at / job.crossAreaM2) * share })
      : null
  return figure(
    'need.waterCooling',
    'Cooling of the water while it runs',
    'power',
    cooling,
    'P = w·h_fg·(1 + γ·(t_w − t_a)/(p_w − p_a))',
    'latent heat less what the warmer air pays',
    {
      basis: 'estimated',
      ...band(cooling),
      inputs: [
        ...surfaceInputs(job, at),
        input('p', 'air pressure of the site', surface?.pressurePa ?? null, 'pressure'),
      ],
    },
  )
}

/**
 * How often to top up; null without a reserve or a loss.
 * @param at m3/s
 */
export function topUpFigure(job: Job, at: number | null): Figure | null {
  const lost = evaporationOf(job, at)
  if (!job.reserveM3 || !lost || !(lost.perDay > 0)) return null
  const days = (job.reserveM3 * 1000) / lost.perDay
  return figure(
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
      inputs: [
        input('V', 'may be lost', job.reserveM3, 'volume'),
        input('w', 'lost a day', lost.perDay / 86400, 'waterPerDay'),
      ],
      note: 'Salts stay behind: top up with pure water only.',
    },
  )
}

/** What the water cannot get below. */
export const wetBulbFigure = (job: Job, air: AirState): Figure =>
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
        input('p', 'air pressure', air.pressurePa, 'pressure'),
      ],
    },
  )
