/** From a whole plan to a whole report. */
export { computeReport, type Report } from './report'
export { targetStart } from './target-start'
export type { ElementReport } from './path-report'
export type { RibbonSegment } from './ribbon'
export { goalNames, type Station, type StationState } from './stations'
