import { input } from '#core/figure'
import { largest, type GoalNeed } from './model'
import {
  fanRiseFigure,
  jetReachFigure,
  jetSpeedFigure,
  pullDownFigure,
  stirEnergyFigure,
  turnoverFigure,
} from './stir-figures'
import { FELT_SPEED, jetFlow, turnoverFlow } from './stir-flow'

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
    const jet = outletBoreM && flow ? { flow, bore: outletBoreM } : null
    return [
      turnoverFigure(job, flow),
      jet && jetReachFigure(job, jet.flow, jet.bore),
      jet && job.jetReachM ? jetSpeedFigure(jet.flow, jet.bore, job.jetReachM) : null,
      stirEnergyFigure(job, powerW),
      powerW !== null && job.wallLossWK ? fanRiseFigure(job, powerW, job.wallLossWK) : null,
      pullDownFigure(job, powerW),
    ].filter((f) => f !== null)
  },
}
