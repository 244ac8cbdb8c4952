import { airflowWithWallLoss } from '#core/need'
import { type Job, type UncertainInput, blowsOf } from '#core/document'
import {
  airRise,
  alike,
  densityAtFan,
  drivenArray,
  modelFan,
  operatingFlow,
  pathSolver,
  usefulShare,
} from '#core/system'
import { figure, input } from '#core/figure'
import { doubtedRange, doubtsOf } from '../doubts'
import { densityInput, firstMissing, heatInput, type GoalNeed, type NeedEnv, type Working } from './model'

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
  const fanArray = alike(model, job.existingCount, 'parallel')
  const driven = drivenArray(fanArray, { volts: job.existingV ?? fan.ratedV, duty: null }, env.air, which)
  if (!driven) return null
  const flow = operatingFlow(pathSolver(env.path, null), driven.curve, driven.drive)
  return flow > 0 ? flow * usefulShare(env.path, flow) : null
}

/**
 * Range of the flow to keep from the present fan, m3/s: as wide as its curve is doubted. The path's doubt is left out:
 * it slows the old and the new fan alike.
 * @param flow to keep, m3/s
 */
export function presentRange(
  job: Job,
  env: NeedEnv,
  flow: number,
): { low: number | null; high: number | null } {
  const [now, low, high] = (['middle', 'low', 'high'] as const).map((which) => presentFlow(job, env, which))
  const end = (x: number | null | undefined) => (x && now ? (flow * x) / now : null)
  return { low: end(low), high: end(high) }
}

/**
 * Airflow that is there now, m3/s: what the present fan moves (as it was held before the path changed), from the heat and
 * the rise, or typed.
 */
function flowNow(job: Job, env: NeedEnv): number | null {
  if (job.keepBasis === 'typed') return job.typedFlowM3s
  if (job.keepBasis === 'existing-fan') return job.keptFlowM3s ?? presentFlow(job, env)
  if (job.heatW === null || job.measuredRiseK === null) return null
  const inside = job.ambientC + job.measuredRiseK
  const density = densityAtFan(blowsOf(env.plan), env.air, inside)
  return airflowWithWallLoss(job.heatW, job.wallLossWK ?? 0, inside, job.ambientC, density)
}

/** Rise of the air now, K: measured, or what the heat makes of the airflow. */
const riseNow = (job: Job, env: NeedEnv, flow: number) =>
  job.measuredRiseK ?? airRise(job, blowsOf(env.plan), env.air, flow)

/** Airflow that is left when some kelvin are given away, m3/s; null where the rise of now is not known. */
function flowAfterGiving(job: Job, env: NeedEnv, flow: number): number | null {
  if (!job.giveRiseK) return flow
  const rise = riseNow(job, env, flow)
  if (rise === null || !(rise > 0)) return null
  const wider = rise + job.giveRiseK
  if (job.heatW === null) return (flow * rise) / wider
  // what the walls carry at the higher rise the air need not
  const walls = job.wallLossWK ?? 0
  const share = Math.max(0, job.heatW / wider - walls) / Math.max(1e-9, job.heatW / rise - walls)
  return flow * share
}

/** What a measured or computed rise is doubted by. */
const riseDoubts: UncertainInput[] = ['heatW', 'wallLossWK']

/** Where the flow of now comes from. */
function workingNow(job: Job, env: NeedEnv): Working {
  const label = 'Airflow to keep'
  if (job.keepBasis === 'typed')
    return { label, formula: 'Q', source: 'your own value', basis: 'measured', note: '', inputs: [] }
  if (job.keepBasis === 'temperature') {
    const inside = job.measuredRiseK === null ? null : job.ambientC + job.measuredRiseK
    return {
      label,
      formula: 'Q = (P − UA·Δt) / (ρ·cp·Δt)',
      source: 'heat balance, ASHRAE Fundamentals',
      basis: 'estimated',
      note: '',
      inputs: [
        heatInput(job),
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
        input('Δt', 'measured rise of the air', job.measuredRiseK, 'temperatureDifference'),
        input(
          'ρ',
          'air density',
          inside === null ? null : densityAtFan(blowsOf(env.plan), env.air, inside),
          'density',
        ),
      ],
    }
  }
  const { fan } = presentFan(job, env)
  const held = job.keptFlowM3s !== null
  return {
    label,
    formula: held ? 'Q as it was found' : 'p_fan(Q) = Δp_path(Q) with the fan that is in it now',
    source: 'operating point; fan laws',
    basis: 'estimated',
    note: held ? 'Held from the path as it was found: what is changed since does not lower it.' : '',
    inputs: [
      input('n', fan ? `${fan.maker} ${fan.model}, how many` : 'present fans', job.existingCount, 'number'),
      input('V', 'voltage at the fan', job.existingV ?? fan?.ratedV ?? null, 'voltage'),
      densityInput(env.air),
    ],
  }
}

/** Quieten what is there: keep its airflow, or as much of it as leaves the permitted rise. */
export const quieten: GoalNeed = {
  uncertainties: ['heatW', 'measuredRiseK', 'typedFlowM3s'],
  missing: (job, env) => {
    if (job.giveRiseK && job.heatW === null && job.measuredRiseK === null)
      return 'the heat inside or the measured rise, to know what the kelvin are worth'
    if (job.keepBasis === 'typed') return firstMissing(job, [['typedFlowM3s', 'the airflow now']])
    if (job.keepBasis === 'temperature')
      return firstMissing(job, [
        ['heatW', 'the heat inside'],
        ['measuredRiseK', 'the measured rise'],
      ])
    const { fan, problem } = presentFan(job, env)
    return !fan
      ? 'the present fan'
      : problem
        ? 'the present fan’s airflow and pressure'
        : env.path.complete
          ? null
          : 'the air path'
  },
  flow: (job, env) => {
    const now = flowNow(job, env)
    return now === null ? null : flowAfterGiving(job, env, now)
  },
  working: (job, env) => {
    const now = workingNow(job, env)
    if (!job.giveRiseK) return now
    const flow = flowNow(job, env)
    return {
      ...now,
      formula: 'Q = Q_now · (P/(Δt + g) − UA) / (P/Δt − UA)',
      source: `${now.source}; heat balance of a stirred box`,
      inputs: [
        input('Q_now', 'airflow now', flow, 'flow'),
        input(
          'Δt',
          'rise of the air now',
          flow === null ? null : riseNow(job, env, flow),
          'temperatureDifference',
        ),
        input('g', 'may be given away', job.giveRiseK, 'temperatureDifference'),
        heatInput(job),
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
      ],
    }
  },
  extras: (job, { plan, air }, delivered) => {
    if (job.heatW === null) return []
    const blows = blowsOf(plan)
    const rise = airRise(job, blows, air, delivered.flow)
    const range = doubtedRange(job, doubtsOf(plan, riseDoubts), delivered, (j, q) => airRise(j, blows, air, q))
    return [
      figure(
        'need.riseKept',
        'Rise of the air with the picked fan',
        'temperatureDifference',
        rise,
        'Δt = P/(UA + ρ·cp·Q)',
        'heat balance',
        {
          basis: 'estimated',
          ...range,
          inputs: [
            heatInput(job),
            input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
            input('Q', 'airflow', delivered.flow, 'flow'),
            input('ρ', 'air density', densityAtFan(blows, air, job.ambientC + (rise ?? 0)), 'density'),
          ],
        },
      ),
    ]
  },
}
