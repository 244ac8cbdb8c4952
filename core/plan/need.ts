import type { AirState } from '../air'
import { airChangesFlow, airflowForHeat, airflowWithWallLoss } from '../need'
import { asSheet } from '../fan'
import type { Fan, HeatBasis, Job, PlanDocument, Target } from './document'
import { modelFan, driveSpeed } from './fan'
import { figure, input, type Figure } from './figure'
import { operatingFlow, pathSolver } from './operate'
import type { PathModel } from './path'

/** Margin on the need: 15 % when the heat is measured, 30 % when from labels or guesses. Common practice, no source. */
const marginFor: Record<HeatBasis, number> = { measured: 0.15, nameplate: 0.3, estimate: 0.3 }
const DEFAULT_MARGIN = 0.15
/** Doubt of the heat: measured ±5 %; a guess ±30 %; a label is the most it can be, often 2 to 4 times the real heat. Common practice, no source. */
const heatDoubt: Record<HeatBasis, [number, number]> = { measured: [0.95, 1.05], nameplate: [0.4, 1], estimate: [0.7, 1.3] }

export interface Need {
  /** airflow needed, without margin */
  flow: Figure
  /** airflow to plan for */
  design: Figure
  margin: number
  /** what is still missing, in words */
  missing: string | null
  insideMaxC: number | null
  levelLimit: Target | null
  flowTarget: Target | null
}

export const goalMargin = (job: Job) => job.margin ?? (job.goal === 'cool' ? marginFor[job.heatBasis] : DEFAULT_MARGIN)

/** The temperature inside that the plan is judged by: the Need's limit, or a target's. */
export function insideLimit(plan: PlanDocument): number | null {
  return plan.job.insideMaxC ?? plan.targets.find(t => t.kind === 'temperature')?.limit ?? null
}

interface Raw { figure: Figure, missing: string | null }

function coolNeed(plan: PlanDocument, air: AirState): Raw {
  const { job } = plan
  const inside = insideLimit(plan)
  const missing = job.heatW === null ? 'the heat inside' : inside === null ? 'the limit inside' : null
  const ua = job.wallLossWK ?? 0
  const at = (heat: number) => inside === null ? null : airflowWithWallLoss(heat, ua, inside, job.ambientC, air.density)
  const [low, high] = heatDoubt[job.heatBasis]
  const value = job.heatW === null ? null : at(job.heatW)
  const note = inside !== null && inside <= job.ambientC ? 'Air cannot cool below its own temperature.' : `Heat is ${job.heatBasis === 'measured' ? 'measured' : job.heatBasis === 'nameplate' ? 'a label’s most' : 'a guess'}.`
  return { missing, figure: figure('need.flow', 'Airflow needed', 'flow', value, 'Q = (P − UA·(tᵢ − tₐ)) / (ρ·cp·(tᵢ − tₐ))', 'heat balance, ASHRAE Fundamentals', {
    basis: job.heatBasis === 'measured' ? 'computed' : 'estimated', note,
    low: job.heatW === null ? null : at(job.heatW * low), high: job.heatW === null ? null : at(job.heatW * high),
    inputs: [
      input('P', 'heat released inside', job.heatW, 'power'), input('UA', 'wall loss', ua, 'thermalConductance'), input('tᵢ', 'highest temperature inside', inside, 'temperature'),
      input('tₐ', 'air at the intake', job.ambientC, 'temperature'), input('ρ', 'air density', air.density, 'density'), input('cp', 'heat capacity of air, J/(kg·K)', 1006, 'number'),
    ],
  }) }
}

function ventilateNeed({ job }: PlanDocument): Raw {
  const missing = job.volumeM3 === null ? 'the volume' : job.airChangesPerH === null ? 'the air changes' : null
  const value = job.volumeM3 === null || job.airChangesPerH === null ? null : airChangesFlow(job.volumeM3, job.airChangesPerH)
  return { missing, figure: figure('need.flow', 'Airflow needed', 'flow', value, 'Q = n · V', 'definition of the air change rate', {
    inputs: [input('n', 'air changes per hour', job.airChangesPerH, 'perHour'), input('V', 'free air volume', job.volumeM3, 'volume')],
  }) }
}

function quietenNeed({ job }: PlanDocument, air: AirState, path: PathModel, fans: readonly Fan[]): Raw {
  if (job.keepBasis === 'typed') {
    return { missing: job.typedFlowM3s === null ? 'the airflow now' : null, figure: figure('need.flow', 'Airflow to keep', 'flow', job.typedFlowM3s, 'typed in', 'your own value', { basis: 'measured' }) }
  }
  if (job.keepBasis === 'temperature') {
    const missing = job.heatW === null ? 'the heat inside' : job.measuredRiseK === null ? 'the measured rise' : null
    const at = (heat: number) => job.measuredRiseK === null ? null : airflowForHeat(heat, job.ambientC, job.ambientC + job.measuredRiseK, air.density)
    const [low, high] = heatDoubt[job.heatBasis]
    return { missing, figure: figure('need.flow', 'Airflow to keep', 'flow', job.heatW === null ? null : at(job.heatW), 'Q = P / (ρ·cp·Δt)', 'heat balance, ASHRAE Fundamentals', {
      basis: 'estimated', low: job.heatW === null ? null : at(job.heatW * low), high: job.heatW === null ? null : at(job.heatW * high),
      inputs: [input('P', 'heat released inside', job.heatW, 'power'), input('Δt', 'measured rise of the air', job.measuredRiseK, 'temperatureDifference'), input('ρ', 'air density', air.density, 'density')],
    }) }
  }
  const fan = fans.find(f => f.id === job.existingFanId)
  const model = fan ? modelFan(fan) : null
  const missing = !fan ? 'the present fan' : model && !model.ok ? model.reason : !path.complete ? 'the air path' : null
  if (missing || !fan || !model?.ok) return { missing, figure: figure('need.flow', 'Airflow to keep', 'flow', null, 'operating point of the present fan', '', { note: missing ?? '' }) }
  const volts = job.existingV ?? fan.ratedV
  const solver = pathSolver(path, null)
  const drive = { ...asSheet, speed: driveSpeed(model.model, volts), densityRatio: air.densityRatio, parallel: job.existingCount }
  const at = (which: 'low' | 'middle' | 'high') => {
    const flow = operatingFlow(solver, model.model.curves[which], drive)
    return flow > 0 ? flow : null
  }
  return { missing: null, figure: figure('need.flow', 'Airflow to keep', 'flow', at('middle'), 'p_fan(Q) = Δp_path(Q) with the fan that is in it now', 'operating point; fan laws', {
    basis: 'estimated', low: at('low'), high: at('high'),
    inputs: [input('n', `${fan.maker} ${fan.model}, how many`, job.existingCount, 'number'), input('V', 'voltage at the fan', volts, 'voltage'), input('ρ', 'air density', air.density, 'density')],
  }) }
}

/** From the goal to the airflow. */
export function computeNeed(plan: PlanDocument, air: AirState, path: PathModel, fans: readonly Fan[]): Need {
  const { job } = plan
  const raw = job.goal === 'cool' ? coolNeed(plan, air) : job.goal === 'ventilate' ? ventilateNeed(plan) : quietenNeed(plan, air, path, fans)
  const margin = goalMargin(job)
  const flowTarget = plan.targets.find(t => t.kind === 'flow') ?? null
  const value = raw.figure.value
  const withMargin = value === null ? null : value * (1 + margin)
  const design = figure('need.design', 'Airflow to plan for', 'flow', flowTarget && withMargin !== null ? Math.max(withMargin, flowTarget.limit) : withMargin ?? flowTarget?.limit ?? null,
    'Q_plan = Q · (1 + margin)', 'margins: common practice, no source', {
      basis: raw.figure.basis, inputs: [input('Q', raw.figure.label.toLowerCase(), value, 'flow'), input('m', 'margin', margin, 'ratio')],
      low: raw.figure.low === null ? null : raw.figure.low * (1 + margin), high: raw.figure.high === null ? null : raw.figure.high * (1 + margin),
    })
  return {
    flow: raw.figure, design, margin, missing: raw.missing, insideMaxC: insideLimit(plan),
    levelLimit: plan.targets.find(t => t.kind === 'level') ?? null, flowTarget,
  }
}
