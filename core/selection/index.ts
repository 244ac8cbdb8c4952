export {
  type Candidate,
  evaluateCandidate,
  installationsOf,
  meritOf,
  quickArrayLevel,
  runningAt,
  START_MARGIN,
} from './candidate'
export { selectionContextOf, type SelectionContext } from './context'
export { candidateFigures, lifeFigure, riseFigure, servedFigure } from './figures'
export { gainsOf } from './gains'
export { operationOf, type Operation } from './operation'
export {
  type ClaimRow,
  claimRows,
  MIN_SHOWN,
  shelfShown,
  spreadOf,
  testFigures,
  trustedFan,
  trustedFans,
} from './claims'
export {
  defaultRank,
  driveChoices,
  driveLevels,
  type DriveMode,
  evenWeights,
  modelShelf,
  type ModelShelf,
  type Objective,
  type PlaceSought,
  paretoFront,
  railsOf,
  type Ranking,
  type RankOptions,
  rankShelf,
  weightedScore,
  type Weights,
} from './ranking'
export { compareTests, TEST_DISTANCE_M, type TestRow } from './test-comparison'
export { replacementNotes } from './replacement'
export { noFilter, passesFilter, type ShelfFilter } from './shelf-filter'
