/** From the first answers to a first plan. */
export { assumptionsOf, type Assumption } from './assumptions'
export { beginPlan, fanFromLabel, type BeginFan, type Beginning, type BeginLabel, type Begun } from './begin'
export { shapes, sizesOf, unknownSizes, usualShape, type PathSizes, type Shape } from './shapes'
