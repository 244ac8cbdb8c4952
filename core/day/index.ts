/** The day before it is lived: controls, heat, weather and store of a plan, simulated; schools compared on it. */
export { controlsOf, onlySwitches, pwmOf, settled, USUAL, usesWire, usualLimits } from './controls'
export {
  FEW_STARTS,
  quietAdvice,
  runOnAdvice,
  SNUBBER,
  thermostatAdvice,
  type ThermostatAdvice,
} from './advice'
export { dayModel, groupOf, type DayModel, type ModelGroup } from './model'
export { DRAWS, drawnDays, type DayRange, type DoubtedDay } from './doubt'
export { failuresOf, type Failure } from './failures'
export { bearingYears, contactYears } from './life'
export { heardSteps, quietestCurve, type Quietest } from './quietest'
export { replay, type Replay, type ReplayInput } from './replay'
export { dayReport, hoursOnOf, loadShare, type DayReport } from './report'
export { runDay, runWeek, stepOf, type DayRun, type DaySummary } from './run'
export { compareSchools, withControl, type SchoolRow } from './schools'
export { mostLoad, proposed, slowestDuty, thresholdsFor } from './propose'
export { partHeats } from './materials'
export type { DayPart } from './heat'
export type { DayStream } from './streams'
