import { filterMedia, freeShare, type HolePattern } from '#core/airpath'
import { faceVelocity, filterArea, guardDistance } from '#core/fit'
import type { Fit } from '#core/document'

/** Guard and filter of a place. */

/** Openings over this are none of a guard's: the table's largest distance counts. ISO 13857, from memory. */
const FARTHEST_M = 0.85
/** Whether a guard stands before the blades. */
export const isGuarded = (fit: Fit | null): fit is Fit =>
  fit !== null && fit.guard !== null && fit.guard !== 'none'

/** Least distance of a planned guard, m; null without one, or where its openings are not told. */
export function guardNeeds(fit: Fit | null): number | null {
  if (!isGuarded(fit) || fit.guardOpeningM === null) return null
  const shape =
    fit.guardShape ?? (fit.guard === 'mesh' ? 'square' : fit.guard === 'perforated' ? 'round' : 'slot')
  return guardDistance(fit.guardOpeningM, shape) ?? FARTHEST_M
}
/** How the openings of a guard stand. */
export const guardPattern = ({ guard }: Fit): HolePattern =>
  guard === 'mesh' ? 'mesh' : guard === 'perforated' ? 'staggered' : 'slots'
/** Free area of a guard over its whole, 0..1; null where openings or bars are not told. */
export const guardShareOf = (fit: Fit | null): number | null =>
  !isGuarded(fit) || fit.guardOpeningM === null || fit.guardBarM === null
    ? null
    : freeShare(guardPattern(fit), fit.guardOpeningM, fit.guardOpeningM + fit.guardBarM)

export interface FilterReport {
  areaM2: number | null
  /** through it, m3/s; null where it is not known */
  flow: number | null
  /** through its face, and what it should not go over, m/s */
  faceMs: number | null
  ratedMs: number
  /** face that the flow asks for, m2; null where the flow is not known */
  wantedM2: number | null
}
/** Face velocity for a filter whose medium is not told, m/s. Common practice, no source (handbook fit 6). */
const USUAL_FACE_MS = 0.5
/** The filter at the flow that passes it; null without one. */
export function filterOf(fit: Fit | null, flow: number | null): FilterReport | null {
  if (!fit || (fit.filterM === null && fit.filterAreaM2 === null && fit.filterMedium === null)) return null
  const ratedMs = filterMedia.find((m) => m.key === fit.filterMedium)?.maxFaceSpeed ?? USUAL_FACE_MS
  return {
    areaM2: fit.filterAreaM2,
    flow,
    faceMs: flow === null || fit.filterAreaM2 === null ? null : faceVelocity(flow, fit.filterAreaM2),
    ratedMs,
    wantedM2: flow === null ? null : filterArea(flow, ratedMs),
  }
}
