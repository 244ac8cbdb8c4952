/** From a whole plan to a whole report. */
export { computeReport, type Report } from './report'
export type { ElementReport } from './path-report'
export type { RibbonSegment } from './ribbon'
export { goalNames, stationOfGroup, type Station, type StationKey, type StationState } from './stations'
