import type { ElementModel } from './elements/model'
import { branchFlows, elementDrop, pathDrop, type PathModel } from './path'

/**
 * Share of the squared doubt that the elements of a path have in common: their coefficients come from the same tables
 * and err the same way. A choice of ours between "all alike" (1) and "each for itself" (0).
 */
export const SHARED_DOUBT = 0.5

/** One loss with its doubt and how much of the drop looked at hangs on it. */
interface Part {
  weight: number
  uncertainty: number
}

/**
 * The losses of an element at a flow: itself, or what stands in the ways of a split. A way's loss moves the common drop
 * by its share of the flow.
 */
function partsOf(e: ElementModel, q: number, weight: number): Part[] {
  if (!e.branches) return [{ weight, uncertainty: e.uncertainty }]
  const flows = branchFlows(e, q)
  return e.branches.flatMap((b, i) => {
    const flow = flows[i]!
    const drops = b.elements.map((x) => elementDrop(x, flow / b.branch.times))
    const whole = drops.reduce((s, d) => s + d, 0)
    return whole > 0
      ? b.elements.map((x, k) => ({
          weight: (((weight * flow) / q) * drops[k]!) / whole,
          uncertainty: x.uncertainty,
        }))
      : []
  })
}

/** Doubt of a sum of losses that err partly alike, as the share by which it may be more. */
function combined(parts: readonly Part[]): number {
  const doubts = parts.map((p) => p.weight * Math.log1p(p.uncertainty))
  const alike = doubts.reduce((s, x) => s + x, 0)
  const apart = doubts.reduce((s, x) => s + x * x, 0)
  return Math.expm1(Math.sqrt(SHARED_DOUBT * alike ** 2 + (1 - SHARED_DOUBT) * apart))
}

/**
 * Doubt of the whole drop at a flow, 95 times in 100: it may be more by this share, or less by the factor
 * 1/(1 + share). The elements' doubts weighted by their drops, part of them in common; the calibration's where there is
 * one.
 * @param q flow, m3/s, 0 or more
 * @param fanId the fan that is planned with: where it calibrated the path its curve is not doubted again
 */
export function pathUncertainty(path: PathModel, q: number, fanId: string | null = null): number {
  const { calibrated } = path
  if (calibrated) {
    const known = fanId !== null && calibrated.fanId === fanId
    return Math.hypot(calibrated.uncertainty, known ? 0 : calibrated.fanUncertainty)
  }
  const total = pathDrop(path, q)
  return total > 0
    ? combined(path.main.flatMap((e) => (e.missing ? [] : partsOf(e, q, elementDrop(e, q) / total))))
    : 0
}

/**
 * Doubt of one element's drop at the flow through it, as that of the path.
 * @param q flow through it, m3/s, 0 or more
 */
export const elementUncertainty = (e: ElementModel, q: number): number =>
  e.branches && !e.missing && q > 0 ? combined(partsOf(e, q, 1)) : e.uncertainty

/**
 * Ends of a drop that is doubted by a share: the factor 1 + share more, and the same factor less.
 * @param drop Pa, 0 or more
 * @param uncertainty share, 0 or more
 */
export const dropRange = (drop: number, uncertainty: number) => ({
  low: drop / (1 + uncertainty),
  high: drop * (1 + uncertainty),
})
