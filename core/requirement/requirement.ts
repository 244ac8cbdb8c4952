import type {
  Uncertainty,
  UncertaintyGrade,
  UncertainInput,
  Goal,
  Job,
  PlanDocument,
  Target,
} from '#core/document'
import { fume } from './goals/fume'
import { cool, insideLimit, part } from './goals/heat'
import { heatUncertainty, type GoalNeed, type NeedEnv } from './goals/model'
import { presentFlow, quieten } from './goals/quieten'
import { ventilate } from './goals/space'
import { stir } from './goals/stir'
import { chill } from './goals/water'

/** Every goal by its key. */
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

/** What the goal asks for, in numbers. */
export interface Requirement {
  /** airflow that does the job, without margin, and its range, m3/s; null where it is not known */
  flow: number | null
  low: number | null
  high: number | null
  margin: number
  /** airflow to plan for: with margin, or a target's, m3/s */
  design: number | null
  /** what is still missing, in words */
  missing: string | null
  insideMaxC: number | null
  levelLimit: Target | null
  flowTarget: Target | null
}

const heated: Goal[] = ['cool', 'part']
/** Margin on the need: as typed, or what is usual for what the heat rests on. Common practice, no source. */
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

const finite = (x: number | null) => (x !== null && Number.isFinite(x) ? x : null)

/**
 * From the goal to the airflow.
 * @param env the plan with its air, path and fans
 */
export function requirementOf(env: NeedEnv): Requirement {
  const { plan } = env
  const { job } = plan
  const goal = goalNeeds[job.goal]
  const missing = goal.missing(job, env)
  const flow = missing ? null : finite(goal.flow(job, env))
  const keepsFan = job.goal === 'quieten' && job.keepBasis === 'existing-fan'
  const range = keepsFan
    ? { low: presentFlow(job, env, 'low'), high: presentFlow(job, env, 'high') }
    : flow === null
      ? { low: null, high: null }
      : needRange(plan, env, flow)
  const margin = goalMargin(job)
  const flowTarget = plan.targets.find((t) => t.kind === 'flow') ?? null
  const withMargin = flow === null ? null : flow * (1 + margin)
  return {
    flow,
    ...range,
    margin,
    design: withMargin === null ? (flowTarget?.limit ?? null) : Math.max(withMargin, flowTarget?.limit ?? 0),
    missing: missing ?? (flow === null ? 'inputs that can be met' : null),
    insideMaxC: insideLimit(plan),
    levelLimit: plan.targets.find((t) => t.kind === 'level') ?? null,
    flowTarget,
  }
}
