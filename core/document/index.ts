/**
 * What a person states: the plan document with its parts, the fans of the shelf, the parts of the drawer. Every part is a
 * Zod schema; types, defaults, the completing of older files and the columns of the database come from it.
 */
export { changeWords } from './changes'
export { columnKeys, idSchema, limits, momentKeys, shortText, within } from './fields'
export {
  jobSchema,
  newPort,
  streamJobSchema,
  portSchema,
  sinkPointSchema,
  uncertainInputs,
  uncertaintySchema,
  type Goal,
  type HeatBasis,
  type Job,
  type KeepBasis,
  type Lid,
  type Port,
  type Side,
  type SinkPoint,
  type Trust,
  type Uncertainty,
  type UncertaintyGrade,
  type UncertainInput,
} from './job'
export {
  branchSchema,
  calibrationSchema,
  elementNames,
  elementSchema,
  newCalibration,
  newElement,
  newSplit,
  pathStarters,
  type Branch,
  type Calibration,
  type ElementBasis,
  type ElementKind,
  type LossPoint,
  type PathElement,
} from './path'
export {
  batterySchema,
  converterSchema,
  feedPartSchema,
  newBattery,
  newConverter,
  newFeedPart,
  newSource,
  newSun,
  sourceSchema,
  sunSchema,
  wiringSchema,
  type Battery,
  type Converter,
  type FeedPart,
  type LoadKind,
  type Source,
  type Sun,
  type WireConnector,
  type Wiring,
} from './feed'
export {
  fanSchema,
  fanTestSchema,
  newFan,
  newTest,
  sourcedFigures,
  type Connector,
  type Correction,
  type CurveBasis,
  type Fan,
  type FanPoint,
  type FanTest,
  type ShelfShown,
  type ShownFigure,
  type SourcedFigure,
  type TestFigure,
  type Trusted,
  type VoltageCurve,
} from './fan'
export {
  newReading,
  newRun,
  heatAt,
  ofOwnStage,
  readingKey,
  readingLimit,
  readingMean,
  readingNames,
  readingSchema,
  readingValues,
  runSchema,
  runStates,
  samePlace,
  usualPair,
  usualStages,
  type FlowMethod,
  type Reading,
  type ReadingQuantity,
  type Run,
  type RunKind,
  type RunState,
} from './run'
export { parseReadingLine, type Spoken } from './reading-line'
export { fromStock, stockKinds, stockPartSchema, type StockKind, type StockPart } from './stock'
export {
  fanIdsOf,
  newPlan,
  newTarget,
  planSchema,
  sourcesOf,
  targetOf,
  windowProblem,
  targetSchema,
  type PlanDocument,
  type PlanInput,
  type Target,
  type TargetKind,
} from './plan'
export { selectionSchema, type Arrangement, type FanSelection } from './selection'
export {
  addStream,
  facedStream,
  faceStream,
  feedStreams,
  MAIN_STREAM,
  MOST_STREAMS,
  newStream,
  removeStream,
  runningSelection,
  streamFaces,
  streamIds,
  streamName,
  streamSchema,
  type Stream,
} from './stream'
export { completePlan } from './complete'
export { setDrive } from './drive'
export { holdKeptFlow } from './kept'
export { withLoadKind, withNominal, withPartConverter } from './feed-edit'
export { boreBeside, mayStandIn, placeElement, removeBranch, removeElement, rowOf } from './path-edit'
