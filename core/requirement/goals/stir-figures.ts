import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { pullDownTime } from '#core/heat'
import { jetReach, jetSpeed, stirEnergy } from '#core/need'
import { COP, FELT_SPEED } from './stir-flow'

/**
 * Turnovers of the box's air at a flow.
 * @param flow m3/s, 0 or more
 */
export function turnoverFigure(job: Job, flow: number | null): Figure {
  const turns = flow && job.volumeM3 ? (flow * 3600) / job.volumeM3 : null
  return figure('need.turnover', 'Turnovers with the picked fan', 'perHour', turns, 'n = Q/V', 'definition', {
    inputs: [input('Q', 'airflow', flow, 'flow'), input('V', 'free air volume', job.volumeM3, 'volume')],
  })
}

/**
 * How far the fan's jet is felt, and its speed at the far end.
 * @param flow m3/s, 0 or more
 */
export const jetReachFigure = (job: Job, flow: number, outletBoreM: number): Figure =>
  figure(
    'need.jetReach',
    'Its jet is felt as far as',
    'distance',
    jetReach(flow, outletBoreM, job.jetSpeedMs ?? FELT_SPEED),
    'x = 6.2·v₀·d/v, v₀ = Q/(π/4·d²)',
    'free round jet (from memory)',
    {
      basis: 'estimated',
      inputs: [
        input('Q', 'airflow', flow, 'flow'),
        input('d', 'opening', outletBoreM, 'length'),
        input('v', 'still felt', job.jetSpeedMs ?? FELT_SPEED, 'speed'),
      ],
    },
  )
/**
 * Speed of the jet at the far end.
 * @param flow m3/s, 0 or more
 */
export const jetSpeedFigure = (flow: number, outletBoreM: number, reachM: number): Figure =>
  figure(
    'need.jetSpeed',
    'Speed at the far end',
    'speed',
    jetSpeed(flow, outletBoreM, reachM),
    'v = 6.2·v₀·d/x, at most v₀ = Q/(π/4·d²)',
    'free round jet (from memory)',
    {
      basis: 'estimated',
      inputs: [
        input('Q', 'airflow', flow, 'flow'),
        input('d', 'opening', outletBoreM, 'length'),
        input('x', 'far end', reachM, 'distance'),
      ],
    },
  )

/** What the fan's own power costs a day, its heat pumped out again. */
export function stirEnergyFigure(job: Job, powerW: number | null): Figure {
  const duty = job.dutyShare ?? 1
  return figure(
    'need.stirEnergy',
    'What the fan costs a day',
    'energy',
    powerW === null ? null : stirEnergy(powerW, job.cop ?? COP, duty),
    'E = P·(1 + 1/COP)·24 h·duty',
    'all of the fan’s power becomes heat inside and is pumped out again',
    {
      basis: 'estimated',
      inputs: [
        input('P', 'fan', powerW, 'power'),
        input('COP', 'of the cooling', job.cop ?? COP, 'number'),
        input('duty', 'share of the day it runs', duty, 'ratio'),
      ],
      note: powerW === null ? 'Needs the current of the picked fan.' : '',
    },
  )
}

/** How much the fan alone warms the box. */
export const fanRiseFigure = (job: Job, powerW: number, wallLossWK: number): Figure =>
  figure(
    'need.fanRise',
    'The fan alone warms the box by',
    'temperatureDifference',
    (powerW * (job.dutyShare ?? 1)) / wallLossWK,
    'Δt = P·duty/UA',
    'heat balance',
    {
      basis: 'estimated',
      inputs: [
        input('P', 'fan', powerW, 'power'),
        input('duty', 'share of the day it runs', job.dutyShare ?? 1, 'ratio'),
        input('UA', 'wall loss', wallLossWK, 'thermalConductance'),
      ],
    },
  )

/** Back to temperature after the door was open; null where its inputs are not known. */
export function pullDownFigure(job: Job, powerW: number | null): Figure | null {
  if (job.boxPowerW === null || job.contentsJK === null || job.warmedK === null) return null
  const inside = job.insideMaxC ?? job.ambientC
  const spare = job.boxPowerW - (powerW ?? 0) - (job.wallLossWK ?? 0) * (job.ambientC - inside)
  return figure(
    'need.pullDown',
    'Back to temperature after the door',
    'duration',
    pullDownTime(job.contentsJK, job.wallLossWK ?? 0, spare, job.warmedK, job.nearK ?? 1),
    't = C/UA · ln((P + UA·θ₀)/(P + UA·θ₁))',
    'heat balance of a stirred box, in closed form',
    {
      basis: 'estimated',
      inputs: [
        input('C', 'air and contents', job.contentsJK, 'heatCapacity'),
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
        input('P', 'cooling to spare', spare, 'power'),
        input('θ₀', 'warmed by', job.warmedK, 'temperatureDifference'),
        input('θ₁', 'near enough', job.nearK ?? 1, 'temperatureDifference'),
      ],
      note: spare <= 0 ? 'The cooling hardly holds the box: nothing is left to pull it down.' : '',
    },
  )
}
