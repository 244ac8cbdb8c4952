/** Care and the log book: what keeps the result, what drifted since, what happened and when. */
export { careStart, careTasks, type CareTask } from './tasks'
export { driftReport, type DriftRow } from './drift'
export { settingsChange, settingsOf } from './settings'
export { missingEntries, timeLine, type TimeEntry } from './time-line'
