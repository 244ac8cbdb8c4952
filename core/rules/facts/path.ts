import { filterMedia } from '#core/airpath'
import type { PathElement } from '#core/document'
import { elementFlows, endArea, freeAreaRatioOf } from '#core/system'
import type { FactSources, SiFacts } from './sources'

/** What stands in the air's way. */
export function pathFacts({ plan, system: { path }, operation: { candidate } }: FactSources): SiFacts {
  const { job } = plan
  const elements = plan.path
  const filters = elements.filter((e) => e.kind === 'filter' && e.areaM2)
  const grilles = elements
    .filter((e) => e.kind === 'grille')
    .map(freeAreaRatioOf)
    .filter((s) => s !== null)
  const ducts = elements.filter((e) => (e.kind === 'duct' || e.kind === 'bend') && e.diameterM !== null)
  const hoses = elements.filter((e) => e.kind === 'duct' && e.lengthM !== null)
  const flows = candidate?.flow ? elementFlows(path, candidate.flow) : null
  const through = (e: PathElement) => flows?.get(e.id) ?? null
  // a side way's bore is no measure for the fan: it carries only its share
  const narrow = ducts.filter((e) => e.branchId === null).toSorted((a, b) => a.diameterM! - b.diameterM!)[0]
  const speeds = ducts
    .map((e) => ({ e, flow: through(e) }))
    .filter((x) => x.flow !== null)
    .map(({ e, flow }) => flow! / ((Math.PI / 4) * e.diameterM! ** 2))
  const faceSpeed = (e: PathElement) => (through(e) ?? 0) / e.areaM2!
  const filter = filters.toSorted((a, b) => faceSpeed(b) - faceSpeed(a) || a.areaM2! - b.areaM2!)[0]
  return {
    'air.inletFreeArea': endArea(plan, 'in'),
    'air.outletFreeArea': endArea(plan, 'out'),
    'air.inletClear': job.inletClearM,
    'air.outletClear': job.outletClearM,
    'air.openingGap': job.openingGapM,
    'air.baffled': job.baffled,
    'air.hotPartInPath': job.hotPartInPath,
    'air.grilleOpen': grilles.length ? Math.min(...grilles) : null,
    'filter.present': elements.length ? filters.length > 0 : null,
    'filter.dpIncluded': filters.length
      ? path.elements.every((e) => e.element.kind !== 'filter' || !e.missing)
      : null,
    'filter.faceSpeed': filter && flows ? faceSpeed(filter) : null,
    'filter.ratedFaceSpeed': filter ? filterMedia.find((m) => m.key === filter.medium)?.maxFaceSpeed : null,
    'duct.diameter': narrow?.diameterM,
    'duct.speed': speeds.length ? Math.max(...speeds) : null,
    'duct.length': hoses.length ? hoses.reduce((s, e) => s + e.lengthM!, 0) : null,
    'duct.slack': hoses.length ? hoses.some((e) => (e.slack ?? 1) > 1) : null,
  }
}
