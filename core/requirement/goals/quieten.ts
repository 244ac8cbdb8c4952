import { airflowForHeat, temperatureRise } from '#core/need'
import type { Job } from '#core/document'
import { modelFan, arrangementOf, drivenArray, operatingFlow, pathSolver, usefulShare } from '#core/system'
import { figure, input } from '#core/figure'
import { densityInput, firstMissing, heatInput, type GoalNeed, type NeedEnv } from './model'

function presentFan(job: Job, { fans }: NeedEnv) {
  const fan = fans.find((f) => f.id === job.existingFanId)
  const made = fan ? modelFan(fan) : null
  return { fan, model: made?.ok ? made.model : null, problem: made && !made.ok ? made.reason : null }
}

/** Airflow of the present fan on this path, m3/s. */
export function presentFlow(
  job: Job,
  env: NeedEnv,
  which: 'low' | 'middle' | 'high' = 'middle',
): number | null {
  const { fan, model } = presentFan(job, env)
  if (!fan || !model || !env.path.complete) return null
  const fanArray = {
    model,
    second: null,
    count: job.existingCount,
    arrangement: arrangementOf(job.existingCount, 'parallel'),
  }
  const driven = drivenArray(fanArray, { volts: job.existingV ?? fan.ratedV, duty: null }, env.air, which)
  if (!driven) return null
  const flow = operatingFlow(pathSolver(env.path, null), driven.curve, driven.drive)
  return flow > 0 ? flow * usefulShare(env.path, flow) : null
}

/** Quieten what is there: keep its airflow, from its fan, from heat and rise, or typed. */
export const quieten: GoalNeed = {
  uncertainties: ['heatW', 'measuredRiseK', 'typedFlowM3s'],
  missing: (job, env) => {
    if (job.keepBasis === 'typed') return firstMissing(job, [['typedFlowM3s', 'the airflow now']])
    if (job.keepBasis === 'temperature')
      return firstMissing(job, [
        ['heatW', 'the heat inside'],
        ['measuredRiseK', 'the measured rise'],
      ])
    const { fan, problem } = presentFan(job, env)
    return !fan ? 'the present fan' : (problem ?? (env.path.complete ? null : 'the air path'))
  },
  flow: (job, env) => {
    if (job.keepBasis === 'typed') return job.typedFlowM3s
    if (job.keepBasis === 'temperature')
      return job.heatW === null || job.measuredRiseK === null
        ? null
        : airflowForHeat(job.heatW, job.ambientC, job.ambientC + job.measuredRiseK, env.air.density)
    return presentFlow(job, env)
  },
  working: (job, env) => {
    const label = 'Airflow to keep'
    if (job.keepBasis === 'typed')
      return { label, formula: 'typed in', source: 'your own value', basis: 'measured', note: '', inputs: [] }
    if (job.keepBasis === 'temperature') {
      return {
        label,
        formula: 'Q = P / (ρ·cp·Δt)',
        source: 'heat balance, ASHRAE Fundamentals',
        basis: 'estimated',
        note: '',
        inputs: [
          heatInput(job),
          input('Δt', 'measured rise of the air', job.measuredRiseK, 'temperatureDifference'),
          densityInput(env.air),
        ],
      }
    }
    const { fan } = presentFan(job, env)
    return {
      label,
      formula: 'p_fan(Q) = Δp_path(Q) with the fan that is in it now',
      source: 'operating point; fan laws',
      basis: 'estimated',
      note: '',
      inputs: [
        input('n', fan ? `${fan.maker} ${fan.model}, how many` : 'present fans', job.existingCount, 'number'),
        input('V', 'voltage at the fan', job.existingV ?? fan?.ratedV ?? null, 'voltage'),
        densityInput(env.air),
      ],
    }
  },
  extras: (job, { air }, { flow, low, high }) => {
    const at = (q: number | null) => (q && job.heatW ? temperatureRise(job.heatW, q, air.density) : null)
    return job.heatW === null
      ? []
      : [
          figure(
            'need.riseKept',
            'Rise of the air with the picked fan',
            'temperatureDifference',
            at(flow),
            'Δt = P/(ρ·cp·Q)',
            'heat balance',
            {
              basis: 'estimated',
              low: at(high),
              high: at(low),
              inputs: [heatInput(job), input('Q', 'airflow', flow, 'flow')],
            },
          ),
        ]
  },
}
