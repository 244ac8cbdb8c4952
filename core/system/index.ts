export { calibrate, type CalibrationReport } from './calibration'
export { modelElement } from './elements'
export type { ElementModel } from './elements/model'
export { freeAreaRatioOf } from './elements/openings'
export { airSystem, type AirSystem } from './air-system'
export { deliveredRange, type DeliveredRange } from './curve-uncertainty'
export { airRise, densityAtFan, fanAirC, insideC } from './heat-balance'
export { densityFigure, dropFigure, elementFigure, usefulFigure } from './figures'
export {
  addsPressure,
  alike,
  drivenArray,
  type DrivenArray,
  endsOf,
  type FanArray,
  type FanGroup,
  groupCurve,
  arrayCost,
  arrayCurrent,
  type ArrayDrive,
  arrayLaw,
  arrayLimits,
  arrayMass,
  arrayName,
  drivenV,
  fanArrayOf,
  arrayStart,
  arrayThickness,
  arrayOf,
  groupsAt,
  isOfOneKind,
  groupThickness,
  membersOf,
  weakestPressure,
} from './fan-array'
export {
  curveAt,
  type CurveEnd,
  drivenSpeed,
  driveSpeed,
  dutySpeed,
  fanCurrent,
  type FanModel,
  fanStartCurrent,
  freeDelivery,
  holeSpacing,
  hubDiameter,
  impellerDiameter,
  lifeAt,
  lowestDuty,
  modelFan,
  type FanModelResult,
  shutOffPressure,
  sweptArea,
  trueThickness,
} from './fan-model'
export { endArea, endElements, freeAreaOf } from './openings'
export {
  driveOf,
  operateOnPath,
  operatingFlow,
  pathCurve,
  type PathCurvePoint,
  pathSolver,
  type PathSolver,
  quickFlow,
  quickPath,
  tabled,
  type QuickPath,
} from './operating-point'
export { placeGains, pressureSteps, type PressureStep } from './gauge'
export {
  branchFlows,
  elementDrop,
  elementFlows,
  fanFlowFor,
  flowUnder,
  type FanPlace,
  fanPlaces,
  localResistance,
  mainRow,
  modelPath,
  pathDrop,
  type PathModel,
  scalePath,
  usefulShare,
} from './path'
export { pathUncertainty, SHARED_DOUBT } from './path-uncertainty'
export {
  arrayLevel,
  ASSUMED_DISTANCE_M,
  exactLevel,
  type Installation,
  installationOf,
  LEVEL_FLOOR,
  levelAtListener,
  type LevelEstimate,
} from './sound'
