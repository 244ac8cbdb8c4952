/** From the first answers to a first plan. */
export { assumptionsOf, type Assumption } from './assumptions'
export { beginPlan, type BeginFan, type Beginning, type BeginLabel } from './begin'
export { sizesOf, unknownSizes, usualShape, type PathSizes, type Shape } from './shapes'
