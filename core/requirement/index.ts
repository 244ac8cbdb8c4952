/** What the goal asks for: the airflow with its range, and what a flow means for the goal. */
export { speedReached } from './goals/fume-flow'
export type { Delivered, NeedEnv } from './goals/model'
export { presentFlow } from './goals/quieten'
export { CLEAR_SHARE, MIXING } from './goals/space-flow'
export { evaporationOf } from './goals/water-flow'
export { needFigures, type Need } from './figures'
export { doubtedRange, doubtsOf, inputRange, type Doubt } from './doubts'
export { goalNeeds, requirementOf, uncertainRanges, type Requirement } from './requirement'
