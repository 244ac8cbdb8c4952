export { type Improvement, improvementsOf } from './improvements'
export {
  calibratedBy,
  costPerUnit,
  type GainCost,
  gainCosts,
  predictionsOf,
  testOf,
  worseOf,
  withTest,
} from './prediction-check'
export { hasRemedies, remediesOf, type Remedy } from './remedies'
export { tradeoffsOf } from './tradeoffs'
export {
  bandAt,
  type UncertaintyReport,
  type UncertaintySource,
  measurementSensitivity,
  planUncertainty,
  type Sensitivity,
} from './uncertainty'
export { elementWhatIfs, variants, type WhatIf } from './what-if'
