import type { PathElement, StreamPlan } from '#core/document'
import { freeAreaRatioOf } from './elements/openings'
import { branchesOf, branchRow, mainRow } from './path'

const circle = (d: number) => (Math.PI / 4) * d ** 2

/** Free area of one element, m2; null where its size is not known or it has none. */
export function freeAreaOf(e: PathElement): number | null {
  if (e.kind === 'opening' || e.kind === 'chamber' || e.kind === 'filter') return e.areaM2
  if (e.kind === 'slot') return e.widthM && e.gapM ? e.widthM * e.gapM : null
  if (e.kind === 'fins') return e.gapM && e.heightM && e.count ? e.gapM * e.heightM * e.count : null
  if (e.kind === 'grille') {
    const s = freeAreaRatioOf(e)
    return e.areaM2 !== null && s !== null ? e.areaM2 * s : null
  }
  if (e.widthM && e.heightM) return e.widthM * e.heightM
  const bores = [e.diameterM, e.kind === 'reducer' || e.kind === 'adapter' ? e.diameter2M : null].filter(
    (d) => d !== null,
  )
  return bores.length ? circle(Math.min(...bores)) : null
}

/** What air can come in by or leave by: not chambers or the fan; a filter at the end is as open as its face. */
const isOpening = (e: PathElement) =>
  e.kind !== 'chamber' && e.kind !== 'fan' && e.kind !== 'custom' && e.kind !== 'fins'
const isSolid = (e: PathElement) => e.kind !== 'chamber' && e.kind !== 'fan'

/** An element at an end of the path, and how often it stands there. */
interface EndElement {
  element: PathElement
  times: number
}

/** Elements by which the air enters (or leaves) the path: the first of the row, or the first of each way of a split that begins it. */
export const endElements = (plan: StreamPlan, end: 'in' | 'out'): PathElement[] =>
  endsWithTimes(plan, end).map((e) => e.element)

function endsWithTimes(plan: StreamPlan, end: 'in' | 'out'): EndElement[] {
  const selection = (row: PathElement[]) => (end === 'in' ? row.find(isSolid) : row.findLast(isSolid))
  const outer = selection(mainRow(plan))
  if (!outer) return []
  if (outer.kind !== 'split') return [{ element: outer, times: 1 }]
  return branchesOf(plan, outer.id).flatMap(({ id, times }) => {
    const element = selection(branchRow(plan, id))
    return element ? [{ element, times }] : []
  })
}

/**
 * Free area by which the air enters or leaves, m2; 0 where the row ends with a chamber; null while a size lacks, or
 * where the element has none of its own.
 */
export function endArea(plan: StreamPlan, end: 'in' | 'out'): number | null {
  const row = mainRow(plan).filter((e) => e.kind !== 'fan')
  // a row that begins or ends with a closed box has no way in or out
  if (row.length > 1 && (end === 'in' ? row[0] : row.at(-1))!.kind === 'chamber') return 0
  const ends = endsWithTimes(plan, end)
  const other = endElements(plan, end === 'in' ? 'out' : 'in')
  if (!ends.length || (end === 'out' && ends.length === 1 && ends[0]!.element === other[0])) return null
  const areas = ends.map(({ element, times }) => {
    const area = isOpening(element) ? freeAreaOf(element) : null
    return area === null ? null : area * times
  })
  return areas.some((a) => a === null) ? null : areas.reduce<number>((s, a) => s + a!, 0)
}
