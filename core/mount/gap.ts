import { newElement, type PathElement, type PlanDocument } from '#core/document'
import { impellerDiameter } from '#core/system'
import type { MountReport } from './mount'

/**
 * The gap between the fans and the wall behind them as an element of the air path: the air passes the free ring round
 * each fan, π·D·x, as it passes a sharp opening of that area. On an easy path, at a half, a quarter and a tenth of the
 * diameter, that takes 7, 21 and 52 % of the air, where common practice says 2 to 5, 10 to 20 and 30 to 50 %
 * (docs/physics.md, fit): a little on the safe side.
 */

/** What the element's id begins with: there is one of it at most. */
const GAP_ID = 'fit-gap'
/** An area that differs less is the same, share. */
const SAME = 0.01

/** The gap as it is counted in a path; undefined where it is not. */
export const countedGap = ({ path }: Pick<PlanDocument, 'path'>): PathElement | undefined =>
  path.find((e) => e.id.startsWith(GAP_ID))

/**
 * Free rings of all fans of one opening together, m2; null where nothing is left, or not told how much.
 * Reference: ring of the height x round a disc (FI16)
 */
export function gapArea({ fan, inOpening, leftM, gapSide }: MountReport): number | null {
  if (leftM === null || leftM <= 0 || gapSide === null) return null
  return inOpening * Math.PI * impellerDiameter(fan) * leftM
}

/** Whether a counted gap is no longer the one that the place has. */
export function gapIsOff(plan: Pick<PlanDocument, 'path'>, mount: MountReport): boolean {
  const counted = countedGap(plan)
  const area = gapArea(mount)
  if (!counted || area === null) return counted !== undefined
  return Math.abs((counted.areaM2 ?? 0) - area) > SAME * area
}

/** Counts the gap beside the fans, on its side, or corrects it; takes it out where there is none. Changes the plan. */
export function countGap(plan: PlanDocument, mount: MountReport): void {
  const area = gapArea(mount)
  plan.path = plan.path.filter((e) => !e.id.startsWith(GAP_ID))
  const at = plan.path.findIndex((e) => e.kind === 'fan')
  if (area === null || at < 0) return
  const gap: PathElement = {
    ...newElement(GAP_ID, 'opening', plan.path[at]!.branchId),
    name: mount.gapSide === 'intake' ? 'Gap before the fan' : 'Gap behind the fan',
    areaM2: area,
    // how air turns in a gap is known to half as much again at best
    basis: 'rough-guess',
  }
  plan.path.splice(mount.gapSide === 'intake' ? at : at + 1, 0, gap)
}
