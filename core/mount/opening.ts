import { endAreaOf } from '#core/fit'
import type { Fan, Fit, Place } from '#core/document'
import { impellerDiameter, sweptArea } from '#core/system'

/** An opening that is there already. */

export interface OpeningReport {
  shape: NonNullable<Fit['opening']>
  widthM: number
  heightM: number
  /** of the opening, and of its part within the circle that the blades sweep, m2 */
  areaM2: number
  withinM2: number
  /** ring that the blades sweep, m2 */
  ringM2: number
  /** its corners stand open beyond the blades */
  corners: boolean
}

/** Steps across an opening that its part within the circle is summed in. */
const STEPS = 400
/** Half the height at a place beside the middle, by half width and half height, m. */
type Outline = (x: number, w: number, h: number) => number
const rectangle: Outline = (_x, _w, h) => h
/** A slot with round ends, lying or standing. */
const slot: Outline = (x, w, h) =>
  w < h
    ? h - w + Math.sqrt(Math.max(0, w * w - x * x))
    : Math.sqrt(Math.max(0, h * h - Math.max(0, x - (w - h)) ** 2))
/** Area of an opening within a circle about its middle, m2. */
function withinCircle(outline: Outline, widthM: number, heightM: number, circleM: number): number {
  const [w, h, r] = [widthM / 2, heightM / 2, circleM / 2]
  const step = Math.min(w, r) / STEPS
  let sum = 0
  for (let i = 0; i < STEPS; i++) {
    const x = (i + 0.5) * step
    sum += Math.min(outline(x, w, h), Math.sqrt(Math.max(0, r * r - x * x)))
  }
  return 4 * sum * step
}

/** The opening of a job for a fan; null where it is cut yet, or its size is not told. */
export function openingOf({ fit, holeM }: Place, fan: Fan): OpeningReport | null {
  if (!fit?.opening) return null
  const round = fit.opening === 'round' || fit.opening === 'tapered'
  const widthM = round ? holeM : fit.openingWidthM
  const heightM = round ? holeM : fit.openingHeightM
  if (widthM === null || heightM === null) return null
  const bladesM = impellerDiameter(fan)
  const shape = fit.opening === 'square' ? 'square' : fit.opening === 'oval' ? 'oval' : 'round'
  return {
    shape: fit.opening,
    widthM,
    heightM,
    areaM2: endAreaOf({ shape, widthM, heightM }),
    withinM2: withinCircle(shape === 'square' ? rectangle : slot, widthM, heightM, bladesM),
    ringM2: sweptArea(fan),
    corners:
      shape === 'square' && Math.hypot(widthM, heightM) > fan.frameM && Math.max(widthM, heightM) > bladesM,
  }
}
