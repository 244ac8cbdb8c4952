import { largest, type GoalNeed } from './model'
import {
  askFigures,
  askFormulas,
  askInputs,
  askNames,
  askSources,
  changesFigure,
  clearOutFigure,
  co2Figure,
  dewPointFigure,
  warmthFigure,
  waterOutFigure,
} from './space-figures'
import { asks, rulingAsk } from './space-flow'

/** Ventilate a space: the strongest of what is asked rules. */
export const ventilate: GoalNeed = {
  uncertainties: ['volumeM3', 'airChangesPerH', 'mixing', 'waterKgS', 'co2M3s'],
  missing: (job, env) => {
    if (largest(Object.values(asks(job, env))) !== null) return null
    if (job.co2M3s && job.co2Max !== null) return 'a CO₂ limit above the fresh air’s'
    if (job.waterKgS && job.insideRhMax !== null) return 'fresh air that is drier than inside'
    return job.volumeM3 === null ? 'the volume' : 'the air changes, or another wish'
  },
  flow: (job, env) => largest(Object.values(asks(job, env))),
  working: (job, env) => {
    const ask = rulingAsk(job, env)
    const more = Object.values(asks(job, env)).filter((x) => x !== null).length > 1
    return {
      label: 'Airflow needed',
      formula: askFormulas[ask],
      source: askSources[ask],
      basis: 'computed',
      note: more ? `The ${askNames[ask]} rules; the other wishes need less.` : '',
      inputs: askInputs(ask, job, env),
    }
  },
  extras: (job, env, delivered) => {
    const { flow, low, high } = delivered
    const volume = job.volumeM3
    return [
      ...askFigures(job, env),
      flow && volume ? changesFigure(volume, flow, delivered) : null,
      flow && volume ? clearOutFigure(job, flow, 'Clears after a dirty job in', low, high) : null,
      flow ? waterOutFigure(job, env, flow) : null,
      flow ? warmthFigure(job, env, flow, delivered) : null,
      flow && job.co2M3s ? co2Figure(job, job.co2M3s, flow) : null,
      job.insideRhMax === null ? null : dewPointFigure(job, job.insideRhMax),
    ].filter((f) => f !== null)
  },
}
