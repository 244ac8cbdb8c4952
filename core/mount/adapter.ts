import { kReducer } from '#core/airpath'
import { endAreaOf, GENTLE_DEG, steepestDeg, type TransitionEnd } from '#core/fit'
import type { Fan, Place } from '#core/document'

/** The adapter between the fans' hole and a hose, pipe or other opening. */

export interface AdapterReport {
  fanEnd: TransitionEnd
  farEnd: TransitionEnd
  lengthM: number
  /** half angle over its widest step, degrees */
  steepDeg: number
  /** which way the air goes in it; null: the direction is not told, or both ends are alike */
  way: 'narrowing' | 'widening' | null
  /** steeper than air follows, the way it goes */
  tooSteep: boolean
  /** on the speed in its narrow end */
  k: number | null
  dropPa: number | null
}
const ALIKE = 1e-3

const endOf = (shape: TransitionEnd['shape'], widthM: number, heightM: number): TransitionEnd =>
  shape === 'round' ? { shape, widthM, heightM: widthM } : { shape, widthM, heightM }

/**
 * Adapter as told; null without its far end.
 * @param holeM round end at the fan, m @param flowM3s through it, m3/s; null where it is not known
 * Reference: Borda-Carnot times the share of a diffuser, by areas (kReducer); angles: common practice (handbook fit 4)
 */
export function adapterOf(
  { direction, fit }: Place,
  fan: Fan,
  holeM: number,
  flowM3s: number | null,
  density: number,
): AdapterReport | null {
  if (!fit || fit.adapterM === null || fit.adapterLengthM === null) return null
  const fanEnd =
    fit.adapterFrom === 'square' ? endOf('square', fan.frameM, fan.frameM) : endOf('round', holeM, holeM)
  const farEnd = endOf(fit.adapterTo ?? 'round', fit.adapterM, fit.adapterHeightM ?? fit.adapterM)
  const steepDeg = steepestDeg(fanEnd, farEnd, fit.adapterLengthM)
  const [near, far] = [endAreaOf(fanEnd), endAreaOf(farEnd)]
  // it stands outside: blowing out the air comes from the fan
  const [from, to] = direction === 'in' ? [far, near] : [near, far]
  const alike = Math.abs(near - far) < ALIKE * near
  const way = direction === null || alike ? null : to > from ? 'widening' : 'narrowing'
  const k = direction === null ? null : alike ? 0 : kReducer(from, to, 2 * steepDeg)
  const speed = flowM3s === null ? null : flowM3s / Math.min(near, far)
  return {
    fanEnd,
    farEnd,
    lengthM: fit.adapterLengthM,
    steepDeg,
    way,
    tooSteep: way !== null && steepDeg > GENTLE_DEG[way],
    k,
    dropPa: k === null || speed === null ? null : 0.5 * k * density * speed ** 2,
  }
}
