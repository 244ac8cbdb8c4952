/** The build: steps from the plan in the handbook's order, cautions where the danger is, what was ticked. */
export { buildReport, tickStep, type BuildReport, type BuiltStep, type Sitting } from './build'
export { buildMarkdown } from './markdown'
export { cautionRules, cautionsOf, type Caution } from './cautions'
export { judge, type BuildStep, type Measure, type SittingKey } from './step'
