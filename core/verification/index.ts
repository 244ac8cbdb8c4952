export {
  compareRuns,
  type Comparison,
  type FairComparison,
  mainComparison,
  readingHalfWidth,
} from './comparison'
export {
  conversions,
  convert,
  type Conversion,
  type ConversionField,
  type Converted,
  type Inputs,
} from './conversions/index'
export {
  everydayLevels,
  RANKING_GAP_DB,
  type RankedStage,
  rankNoiseSources,
  upgradeRungs,
} from './source-ranking'
export { computeVerdict, latestRun, targetFigure, type TargetResult, type VerdictReport } from './verdict'
