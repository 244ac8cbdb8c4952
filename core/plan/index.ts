export { candidateFigures, computeReport, type ElementReport, type Report } from './report'
export type { RibbonSegment } from './ribbon'
export { goalNames, type Station, type StationKey, stationOfGroup, type StationState } from './stations'
