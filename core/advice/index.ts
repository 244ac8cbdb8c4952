export { type Lever, leversOf } from './improvements'
export {
  calibratedBy,
  costPerUnit,
  type GainCost,
  gainCosts,
  predictionsOf,
  testOf,
  withTest,
} from './prediction-check'
export { schoolsOf } from './tradeoffs'
export {
  bandAt,
  type DoubtReport,
  type DoubtSource,
  measurementWorth,
  planDoubt,
  type Worth,
} from './uncertainty'
export { elementWhatIfs, variants, type WhatIf } from './what-if'
