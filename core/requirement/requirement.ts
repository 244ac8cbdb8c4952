import { targetOf, upperLimit, type Goal, type Job, type StreamPlan, type Target } from '#core/document'
import { doubtedRange, doubtsOf, type Doubt } from './doubts'
import { fume } from './goals/fume'
import { cool, insideLimit, part } from './goals/heat'
import { largest, type GoalNeed, type NeedEnv } from './goals/model'
import { presentRange, quieten } from './goals/quieten'
import { ventilate } from './goals/space'
import { stir } from './goals/stir'
import { chill } from './goals/water'

/** Every goal by its key. */
export const goalNeeds: Record<Goal, GoalNeed> = { cool, part, ventilate, fume, stir, chill, quieten }

/** Margin on the need: 15 % when the heat is measured, 30 % when from labels or guesses. Common practice, no source. */
const MARGIN_MEASURED = 0.15
const MARGIN_GUESSED = 0.3

/** What the goal asks for, in numbers. */
export interface Requirement {
  /** airflow that does the job, without margin, and its range, m3/s; null where it is not known */
  flow: number | null
  low: number | null
  high: number | null
  /** at one end of the doubt no airflow does it */
  openHigh: boolean
  /** airflow that the fans are held against: the goal's, or a target's where that is more, m3/s */
  wanted: number | null
  margin: number
  /** airflow to plan for: with margin, or a target's, m3/s */
  design: number | null
  /** what is still missing, in words */
  missing: string | null
  insideMaxC: number | null
  /** dB(A) at the listener at most, with everything running; null where nobody said */
  levelLimit: number | null
  flowTarget: Target | null
}

const heated: Goal[] = ['cool', 'part']
/** Margin on the need: as typed, or what is usual for what the heat rests on. Common practice, no source. */
export const goalMargin = (job: Job) =>
  job.margin ?? (heated.includes(job.goal) && job.heatBasis !== 'measured' ? MARGIN_GUESSED : MARGIN_MEASURED)

/** The doubted inputs of a goal with their ranges. */
export const uncertainRanges = (plan: StreamPlan): Doubt[] =>
  doubtsOf(plan, goalNeeds[plan.job.goal].uncertainties)

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
  const { low, high, openHigh } =
    keepsFan && flow !== null
      ? { ...presentRange(job, env, flow), openHigh: false }
      : doubtedRange(job, missing ? [] : uncertainRanges(plan), { flow: null, low: null, high: null }, (j) =>
          goal.flow(j, env),
        )
  const margin = goalMargin(job)
  const flowTarget = targetOf(plan, 'flow', 'low')
  const withMargin = flow === null ? null : flow * (1 + margin)
  return {
    flow,
    low: low === null ? null : Math.max(0, low),
    high,
    openHigh,
    wanted: largest([flow, flowTarget?.limit ?? null]),
    margin,
    design: largest([withMargin, flowTarget?.limit ?? null]),
    missing: missing ?? (flow === null ? 'inputs that can be met' : null),
    insideMaxC: insideLimit(plan),
    levelLimit: upperLimit(plan.targets, 'level'),
    flowTarget,
  }
}
