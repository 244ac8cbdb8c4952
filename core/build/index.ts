/** The build: steps from the plan in the handbook's order, cautions where the danger is, what was ticked. */
export { buildReport, tickStep, untickStep, type BuildReport, type BuiltStep, type Sitting } from './build'
export { buildMarkdown } from './markdown'
export { cautionRules, cautionsOf } from './cautions'
export { BUILD_RUN, judge, sittingKeys, toolNames, type SittingKey } from './step'
