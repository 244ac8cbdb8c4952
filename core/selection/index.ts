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
export { driveChoices, driveLevels } from './drives'
export {
  defaultRank,
  type DriveMode,
  evenWeights,
  type Objective,
  type PlaceSought,
  railsOf,
  type RankOptions,
  type Weights,
} from './options'
export { paretoFront, type Ranking, rankSteps } from './ranking'
export { weightedScore } from './score'
export { modelShelf, type ModelShelf, searchSteps } from './search'
export { compareTests, TEST_DISTANCE_M, type TestRow } from './test-comparison'
export { replacementNotes } from './replacement'
export { noFilter, passesFilter, type ShelfFilter } from './shelf-filter'
