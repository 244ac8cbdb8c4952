/** From a whole plan to a whole report. */
export { computeReport, dayStreamsOf, reportSteps, type Report, type ReportResult } from './report'
export { targetStart } from './target-start'
export type { ElementReport } from './path-report'
export { wholeWith } from './machine-sound'
export { soundByStage } from './stage-sound'
export type { StreamSummary } from './stream-summary'
export type { RibbonSegment } from './ribbon'
export { goalNames, schoolWords, type Station, type StationState } from './stations'
