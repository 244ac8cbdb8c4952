import { figure, input, type Figure } from '#core/figure'
import type { Delivered, NeedEnv } from './goals/model'
import { goalNeeds, type Requirement } from './requirement'

/** What the goal asks for, each figure with its working, and what the flow that the plan gets means for it. */
export interface Need extends Omit<Requirement, 'flow' | 'design' | 'low' | 'high'> {
  /** airflow needed, without margin */
  flow: Figure
  /** why nothing meets what was stated, in words; null while an input is missing or a flow was found */
  refusal: string | null
  /** airflow to plan for */
  design: Figure
  /** what else the maker wants to know, at the flow the plan gets */
  extras: Figure[]
}

/** The requirement as figures. */
export function needFigures(env: NeedEnv, requirement: Requirement, delivered: Delivered): Need {
  const { job } = env.plan
  const goal = goalNeeds[job.goal]
  const { flow, low, high, design, ...rest } = requirement
  const { label, formula, source, inputs, basis, note } = goal.working(job, env)
  const asked = goal.missing(job, env)
  const refusal = flow === null && !asked ? note : null
  const withMargin = (x: number | null) => (x === null ? null : x * (1 + rest.margin))
  return {
    ...rest,
    refusal,
    flow: figure('need.flow', label, 'flow', flow, formula, source, {
      basis,
      inputs,
      low,
      high,
      note: asked ? `Still asks for ${asked}.` : note,
    }),
    design: figure(
      'need.design',
      'Airflow to plan for',
      'flow',
      design,
      'Q_plan = Q · (1 + margin)',
      'margins: common practice, no source',
      {
        basis,
        inputs: [input('Q', label.toLowerCase(), flow, 'flow'), input('m', 'margin', rest.margin, 'ratio')],
        low: withMargin(low),
        high: withMargin(high),
      },
    ),
    extras: goal.extras(job, env, delivered),
  }
}
