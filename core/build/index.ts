/** The build: steps from the plan in the handbook's order, cautions where the danger is, what was ticked. */
export { buildReport, tickStep, untickStep, type BuildReport, type BuiltStep, type Sitting } from './build'
export { buildMarkdown, buildSheet, LAST_LINE, notChecked, type BuildSheet } from './sheet'
export { cautionRules, cautionsOf } from './cautions'
export { judge, toolNames, type SittingKey } from './step'
