import { drawnPlaces, type PathElement, type StreamPlan } from '#core/document'
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
/** An element at an end of the path, and how often it stands there. */
interface EndElement {
  element: PathElement
  times: number
}

/** The outermost elements at an end: one, or of a split that begins (or ends) the row one of each way. */
function outermost(plan: StreamPlan, end: 'in' | 'out'): EndElement[] {
  const aside = new Set(drawnPlaces(plan).flatMap((d) => (d.place?.aside ? [d.element] : [])))
  const outerOf = (row: PathElement[]) => {
    const there = row.filter((e) => !aside.has(e))
    return end === 'in' ? there[0] : there.at(-1)
  }
  const outer = outerOf(mainRow(plan))
  if (!outer) return []
  if (outer.kind !== 'split') return [{ element: outer, times: 1 }]
  return branchesOf(plan, outer.id).flatMap(({ id, times }) => {
    const element = outerOf(branchRow(plan, id))
    return element ? [{ element, times }] : []
  })
}
const isPassed = ({ element: { kind } }: EndElement) => kind !== 'chamber' && kind !== 'fan'

/** Elements by which the air enters (or leaves) the path; none where fans stand at that end, or a closed box does. */
export const endElements = (plan: StreamPlan, end: 'in' | 'out'): PathElement[] =>
  outermost(plan, end)
    .filter(isPassed)
    .map((e) => e.element)

/**
 * Free area by which the air enters or leaves, m2; 0 where the row ends with a box, which has no way in or out there; null
 * while a size lacks, or where the element has none of its own; undefined where fans stand at that end: they fill the hole.
 */
export function endArea(plan: StreamPlan, end: 'in' | 'out'): number | null | undefined {
  const outer = outermost(plan, end)
  const kinds = outer.map((e) => e.element.kind)
  // of a path that was only begun nobody said yet where it ends
  if (kinds.includes('chamber')) return mainRow(plan).length > 1 ? 0 : null
  if (kinds.includes('fan')) return undefined
  const [other, ...more] = endElements(plan, end === 'in' ? 'out' : 'in')
  if (!outer.length || (end === 'out' && !more.length && outer.length === 1 && outer[0]!.element === other))
    return null
  const areas = outer.map(({ element, times }) => {
    const area = isOpening(element) ? freeAreaOf(element) : null
    return area === null ? null : area * times
  })
  return areas.some((a) => a === null) ? null : areas.reduce<number>((s, a) => s + a!, 0)
}
