import type {
  Uncertainty,
  UncertaintyGrade,
  UncertainInput,
  Goal,
  Job,
  PlanDocument,
  Target,
} from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { fume } from './goals/fume'
import { cool, insideLimit, part } from './goals/heat'
import { heatUncertainty, type Delivered, type GoalNeed, type NeedEnv } from './goals/model'
import { presentFlow, quieten } from './goals/quieten'
import { ventilate } from './goals/space'
import { stir } from './goals/stir'
import { chill } from './goals/water'

export { insideLimit } from './goals/heat'
export { speedReached, roomClearTime } from './goals/fume'
export { evaporationOf } from './goals/water'
export { CLEAR_SHARE, MIXING } from './goals/space'
export type { Delivered, NeedEnv } from './goals/model'

export const goalNeeds: Record<Goal, GoalNeed> = { cool, part, ventilate, fume, stir, chill, quieten }

/** Margin on the need: 15 % when the heat is measured, 30 % when from labels or guesses. Common practice, no source. */
const MARGIN_MEASURED = 0.15
const MARGIN_GUESSED = 0.3

/** Doubt of a graded number, relative; of temperatures in K. Common practice, no source. */
const gradeShare: Record<Exclude<UncertaintyGrade, 'range'>, number> = {
  measured: 0.05,
  'good-guess': 0.2,
  'rough-guess': 0.5,
}
const gradeKelvin: Record<Exclude<UncertaintyGrade, 'range'>, number> = {
  measured: 0.5,
  'good-guess': 2,
  'rough-guess': 5,
}
const temperatures: UncertainInput[] = ['ambientC', 'insideMaxC', 'partMaxC', 'waterC']

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
  /** what else the maker wants to know, at the flow the plan gets */
  extras: Figure[]
}

const heated: Goal[] = ['cool', 'part']
export const goalMargin = (job: Job) =>
  job.margin ?? (heated.includes(job.goal) && job.heatBasis !== 'measured' ? MARGIN_GUESSED : MARGIN_MEASURED)

/** Range of an input: as typed, by its grade, or what is usual for the heat; null where it is taken as sure. */
export function inputRange(
  job: Job,
  uncertainties: readonly Uncertainty[],
  key: UncertainInput,
): [number, number] | null {
  const value = job[key]
  if (value === null) return null
  const uncertainty = uncertainties.find((d) => d.id === key)
  if (uncertainty?.grade === 'range')
    return uncertainty.low !== null && uncertainty.high !== null
      ? [Math.min(uncertainty.low, value), Math.max(uncertainty.high, value)]
      : null
  if (uncertainty) {
    const kelvin = temperatures.includes(key)
    const half = kelvin
      ? gradeKelvin[uncertainty.grade as 'measured']
      : gradeShare[uncertainty.grade as 'measured'] * Math.abs(value)
    return [value - half, value + half]
  }
  if (key !== 'heatW') return null
  const [low, high] = heatUncertainty[job.heatBasis]
  return [value * low, value * high]
}

/** The doubted inputs of a goal with their ranges. */
export function uncertainRanges(plan: PlanDocument): { key: UncertainInput; range: [number, number] }[] {
  return goalNeeds[plan.job.goal].uncertainties.flatMap((key) => {
    const range = inputRange(plan.job, plan.uncertainties, key)
    return range ? [{ key, range }] : []
  })
}

/** Range of the need: each doubted input at its ends, the deviations added as squares (they err apart). */
function needRange(
  plan: PlanDocument,
  env: NeedEnv,
  value: number,
): { low: number | null; high: number | null } {
  const goal = goalNeeds[plan.job.goal]
  const uncertain = uncertainRanges(plan)
  if (!uncertain.length) return { low: null, high: null }
  let down = 0
  let up = 0
  for (const { key, range } of uncertain) {
    const ends = range.map((x) => goal.flow({ ...plan.job, [key]: x }, env)).filter((q) => q !== null)
    down += Math.min(0, ...ends.map((q) => q - value)) ** 2
    up += Math.max(0, ...ends.map((q) => q - value)) ** 2
  }
  return { low: Math.max(0, value - Math.sqrt(down)), high: value + Math.sqrt(up) }
}

/** From the goal to the airflow. */
export function computeNeed(env: NeedEnv): Need {
  const { plan } = env
  const { job } = plan
  const goal = goalNeeds[job.goal]
  const missing = goal.missing(job, env)
  const value = missing ? null : goal.flow(job, env)
  const { label, formula, source, inputs, basis, note } = goal.working(job, env)
  const bands =
    job.goal === 'quieten' && job.keepBasis === 'existing-fan'
      ? { low: presentFlow(job, env, 'low'), high: presentFlow(job, env, 'high') }
      : value === null
        ? { low: null, high: null }
        : needRange(plan, env, value)
  const flow = figure('need.flow', label, 'flow', value, formula, source, {
    basis,
    inputs,
    ...bands,
    note: missing ? `Still asks for ${missing}.` : note,
  })
  const margin = goalMargin(job)
  const flowTarget = plan.targets.find((t) => t.kind === 'flow') ?? null
  const withMargin = value === null ? null : value * (1 + margin)
  const design = figure(
    'need.design',
    'Airflow to plan for',
    'flow',
    flowTarget && withMargin !== null
      ? Math.max(withMargin, flowTarget.limit)
      : (withMargin ?? flowTarget?.limit ?? null),
    'Q_plan = Q · (1 + margin)',
    'margins: common practice, no source',
    {
      basis: flow.basis,
      inputs: [input('Q', label.toLowerCase(), value, 'flow'), input('m', 'margin', margin, 'ratio')],
      low: flow.low === null ? null : flow.low * (1 + margin),
      high: flow.high === null ? null : flow.high * (1 + margin),
    },
  )
  return {
    flow,
    design,
    margin,
    missing: missing ?? (value === null ? 'inputs that can be met' : null),
    insideMaxC: insideLimit(plan),
    levelLimit: plan.targets.find((t) => t.kind === 'level') ?? null,
    flowTarget,
    extras: [],
  }
}

/** What the flow that the plan gets means for the goal. */
export const needExtras = (env: NeedEnv, delivered: Delivered): Figure[] =>
  goalNeeds[env.plan.job.goal].extras(env.plan.job, env, delivered)
