import { figure, input, type Figure, type FigureBasis } from '#core/figure'
import type { Delivered, NeedEnv } from './goals/model'
import { goalNeeds, type Requirement } from './requirement'

/** What the goal asks for, each figure with its working, and what the flow that the plan gets means for it. */
export interface Need extends Omit<Requirement, 'flow' | 'design' | 'low' | 'high' | 'openHigh'> {
  /** airflow needed, without margin */
  flow: Figure
  /** why nothing meets what was stated, in words; null while an input is missing or a flow was found */
  refusal: string | null
  /** airflow to plan for */
  design: Figure
  /** what else the maker wants to know, at the flow the plan gets */
  extras: Figure[]
}

/** What an open end of the need means. */
const OPEN = 'At one end of what you doubt, no airflow does it.'
const sentences = (...list: string[]) => list.filter(Boolean).join(' ')

/** The airflow to plan for, where the goal rules it. */
function withMargin(
  design: number | null,
  margin: number,
  label: string,
  { flow, low, high, openHigh }: Pick<Requirement, 'flow' | 'low' | 'high' | 'openHigh'>,
  basis: FigureBasis,
): Figure {
  const more = (x: number | null) => (x === null ? null : x * (1 + margin))
  return figure(
    'need.design',
    'Airflow to plan for',
    'flow',
    design,
    'Q_plan = Q · (1 + m)',
    'margins: common practice, no source',
    {
      basis,
      inputs: [input('Q', label.toLowerCase(), flow, 'flow'), input('m', 'margin', margin, 'ratio')],
      low: more(low),
      high: more(high),
      openHigh,
    },
  )
}

/** The requirement as figures. */
export function needFigures(env: NeedEnv, requirement: Requirement, delivered: Delivered): Need {
  const { job } = env.plan
  const goal = goalNeeds[job.goal]
  const { flow, low, high, openHigh, design, ...rest } = requirement
  const { label, formula, source, inputs, basis, note } = goal.working(job, env)
  const asked = goal.missing(job, env)
  const refusal = flow === null && !asked ? note : null
  const byTarget = design !== null && design > (flow ?? 0) * (1 + rest.margin)
  return {
    ...rest,
    refusal,
    flow: figure('need.flow', label, 'flow', flow, formula, source, {
      basis,
      inputs,
      low,
      high,
      openHigh,
      note: openHigh ? sentences(note, OPEN) : asked ? `To work this out, give ${asked}.` : note,
    }),
    design: byTarget
      ? figure('need.design', 'Airflow to plan for', 'flow', design, 'Q_plan = target', 'your own target', {
          basis: 'computed',
          inputs: [input('target', 'airflow at least', design, 'flow')],
          note: flow === null ? '' : 'Your target for the airflow asks for more than the goal with its margin.',
        })
      : withMargin(design, rest.margin, label, { flow, low, high, openHigh }, basis),
    extras: goal.extras(job, env, delivered),
  }
}
