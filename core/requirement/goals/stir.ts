import { pullDownTime } from '#core/heat'
import { airChangesFlow, flowForJet, jetReach, jetSpeed, stirEnergy } from '#core/need'
import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { largest, type GoalNeed, type NeedEnv } from './model'

/** Coefficient of performance of a small cooling unit where nobody knows it. Common practice, no source. */
const COP = 1
/** A jet is felt at about this speed, m/s. Common practice, no source. */
export const FELT_SPEED = 0.25

const turnoverFlow = (job: Job) =>
  job.volumeM3 && job.turnoversPerH ? airChangesFlow(job.volumeM3, job.turnoversPerH) : null
const jetFlow = (job: Job, { outletBoreM }: NeedEnv) =>
  outletBoreM && job.jetReachM ? flowForJet(outletBoreM, job.jetReachM, job.jetSpeedMs ?? FELT_SPEED) : null

/** Stir a cold or drying box: turn its air over, and reach its far end. */
export const stir: GoalNeed = {
  uncertainties: ['volumeM3', 'turnoversPerH'],
  missing: (job, env) => {
    if (largest([turnoverFlow(job), jetFlow(job, env)]) !== null) return null
    return job.volumeM3 === null ? 'the volume' : 'the turnovers'
  },
  flow: (job, env) => largest([turnoverFlow(job), jetFlow(job, env)]),
  working: (job, env) => {
    const byJet = (jetFlow(job, env) ?? 0) > (turnoverFlow(job) ?? 0)
    return byJet
      ? {
          label: 'Airflow needed',
          formula: 'v(x) = 6.2·v₀·d/x',
          source: 'free round jet (from memory)',
          basis: 'estimated',
          note: 'The reach of the jet rules; the turnovers need less.',
          inputs: [
            input('x', 'to reach', job.jetReachM, 'distance'),
            input('v', 'speed wanted there', job.jetSpeedMs ?? FELT_SPEED, 'speed'),
            input('d', 'opening the air leaves by', env.outletBoreM, 'length'),
          ],
        }
      : {
          label: 'Airflow needed',
          formula: 'Q = n · V',
          source: 'turnover: start values 10 to 60 per hour are common practice',
          basis: 'estimated',
          note: 'What the flow does to the spread of temperature cannot be computed: measure the hottest and the coldest of three points.',
          inputs: [
            input('n', 'turnovers per hour', job.turnoversPerH, 'perHour'),
            input('V', 'free air volume', job.volumeM3, 'volume'),
          ],
        }
  },
  extras: (job, { outletBoreM }, { flow, powerW }) => {
    const figures: Figure[] = []
    const turns = flow && job.volumeM3 ? (flow * 3600) / job.volumeM3 : null
    figures.push(
      figure('need.turnover', 'Turnovers with the picked fan', 'perHour', turns, 'n = Q/V', 'definition', {
        inputs: [input('Q', 'airflow', flow, 'flow'), input('V', 'free air volume', job.volumeM3, 'volume')],
      }),
    )
    if (outletBoreM && flow) {
      figures.push(
        figure(
          'need.jetReach',
          'Its jet is felt as far as',
          'distance',
          jetReach(flow, outletBoreM, job.jetSpeedMs ?? FELT_SPEED),
          'x = 6.2·v₀·d/v',
          'free round jet (from memory)',
          {
            basis: 'estimated',
            inputs: [
              input('Q', 'airflow', flow, 'flow'),
              input('d', 'opening', outletBoreM, 'length'),
              input('v', 'still felt', job.jetSpeedMs ?? FELT_SPEED, 'speed'),
            ],
          },
        ),
      )
      if (job.jetReachM)
        figures.push(
          figure(
            'need.jetSpeed',
            'Speed at the far end',
            'speed',
            jetSpeed(flow, outletBoreM, job.jetReachM),
            'v = 6.2·v₀·d/x',
            'free round jet (from memory)',
            { basis: 'estimated', inputs: [input('x', 'far end', job.jetReachM, 'distance')] },
          ),
        )
    }
    const duty = job.dutyShare ?? 1
    figures.push(
      figure(
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
      ),
    )
    if (powerW !== null && job.wallLossWK)
      figures.push(
        figure(
          'need.fanRise',
          'The fan alone warms the box by',
          'temperatureDifference',
          (powerW * duty) / job.wallLossWK,
          'Δt = P·duty/UA',
          'heat balance',
          {
            basis: 'estimated',
            inputs: [
              input('P', 'fan', powerW, 'power'),
              input('UA', 'wall loss', job.wallLossWK, 'thermalConductance'),
            ],
          },
        ),
      )
    if (job.boxPowerW !== null && job.contentsJK !== null && job.warmedK !== null) {
      const inside = job.insideMaxC ?? job.ambientC
      const spare = job.boxPowerW - (powerW ?? 0) - (job.wallLossWK ?? 0) * (job.ambientC - inside)
      figures.push(
        figure(
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
              input('P', 'cooling to spare', spare, 'power'),
              input('θ₀', 'warmed by', job.warmedK, 'temperatureDifference'),
              input('θ₁', 'near enough', job.nearK ?? 1, 'temperatureDifference'),
            ],
            note: spare <= 0 ? 'The cooling hardly holds the box: nothing is left to pull it down.' : '',
          },
        ),
      )
    }
    return figures
  },
}
