import { areaShare, frameOf, LEAST_WEB_M, smallHoleK, threadOf, webWidth } from '#core/fit'
import type { Fan, Fit, Place } from '#core/document'
import { impellerDiameter } from '#core/system'
import { usualThread } from './screws'

/** What one hole of a diameter would be. */
export interface HoleOption {
  diameterM: number
  /** of the wanted area */
  share: number
  /** m; null without a screw pattern */
  webM: number | null
  /** Pa at the flow that is moved; null where it is not known or the table ends */
  dropPa: number | null
}

/**
 * Wanted cut-out of a fan, m: the middle of what is usual for its frame, else its blades with 2 % of air; of a blower its
 * measured intake.
 */
export function wantedCutout(fan: Fan, fit: Fit | null): number {
  if (fan.kind === 'blower' && fit?.intakeM) return fit.intakeM
  const frame = fan.kind === 'axial' ? frameOf(fan.frameM) : null
  return frame ? (frame.cutoutM[0] + frame.cutoutM[1]) / 2 : TIP_AIR * impellerDiameter(fan)
}
/** Cut-out over blade tips. Common practice, no source. */
const TIP_AIR = 1.02

/**
 * What a hole would be for a fan: its share of the wanted area, the web to the screw holes, and what it costs.
 * @param flowM3s of one fan, m3/s; null where it is not known
 * @param density of the air, kg/m3
 */
export function holeOption(
  { wantedM, spacingM, screwHoleM }: { wantedM: number; spacingM: number | null; screwHoleM: number | null },
  diameterM: number,
  flowM3s: number | null,
  density: number,
): HoleOption {
  const k = smallHoleK(diameterM / wantedM)
  const speed = flowM3s === null ? null : flowM3s / ((Math.PI / 4) * wantedM ** 2)
  return {
    diameterM,
    share: areaShare(diameterM, wantedM),
    webM: spacingM === null || screwHoleM === null ? null : webWidth(spacingM, diameterM, screwHoleM),
    dropPa: k === null || speed === null ? null : 0.5 * k * density * speed ** 2,
  }
}

/** Least web for a material, m. */
export const leastWeb = (material: Fit['material'] | undefined): number =>
  material === 'metal' ? LEAST_WEB_M.metal : LEAST_WEB_M.other
/** The screw holes: as told, else the medium clearance of the screw. */
export const screwHoleOf = ({ screwHoleM, fit }: Place, fan: Fan): number | null =>
  screwHoleM ?? threadOf(fit?.thread ?? usualThread(fan) ?? 0)?.clearanceM ?? null
