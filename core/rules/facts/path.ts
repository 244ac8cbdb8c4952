import { filterMedia } from '#core/airpath'
import type { ElementBasis, PathElement, StreamPlan } from '#core/document'
import { gainsOf } from '#core/selection'
import { elementFlows, endArea, endElements, freeAreaRatioOf, pressureSteps } from '#core/system'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** How far an area may be off that was told on this ground, share. Common practice, no source. */
const areaDoubt: Record<ElementBasis, number> = {
  measured: 0.05,
  sheet: 0.05,
  'good-guess': 0.15,
  'rough-guess': 0.4,
  assumed: 0.75,
}
/** Doubt of the area at an end of the path: the largest of its elements'. */
const endDoubt = (plan: StreamPlan, end: 'in' | 'out') =>
  Math.max(0, ...endElements(plan, end).map((e) => areaDoubt[e.basis]))

/** Pressure of the chambers against the room, Pa, where the fans run. */
function chamberFacts({ plan, system, operation }: FactSources): SiFacts {
  const { path } = system
  const flow = operation.candidate?.flow ?? null
  const filterAt = path.main.findIndex((e) => e.element.kind === 'filter')
  const chambers = pressureSteps(path, flow, gainsOf(plan, system, operation)).flatMap(({ id, gaugePa }, at) =>
    gaugePa !== null && path.main[at]!.element.kind === 'chamber' ? [{ id, gaugePa, at }] : [],
  )
  const filtered = chambers.filter(({ at }) => filterAt >= 0 && at > filterAt)
  const pressures = (list: typeof chambers) => list.map((c) => c.gaugePa)
  return {
    'air.filteredBoxPressure': filtered.length ? Math.min(...pressures(filtered)) : undefined,
    'air.boxPressureMost': chambers.length ? Math.max(...pressures(chambers)) : undefined,
  }
}

/** What stands in the air's way. */
export function pathFacts(sources: FactSources): SiFacts {
  const {
    plan,
    system: { path },
  } = sources
  const { job } = plan
  const filters = plan.path.filter((e) => e.kind === 'filter')
  const begun = plan.path.length > 0
  // what is known by its pressure only has no area that could be told
  const hasNone = (e: PathElement) => e.kind === 'custom' || e.kind === 'fins'
  const free = (end: 'in' | 'out') => {
    const area = begun ? endArea(plan, end) : undefined
    return area === null && endElements(plan, end).some(hasNone) ? undefined : area
  }
  return {
    ...chamberFacts(sources),
    'air.inletFreeArea': free('in'),
    'air.outletFreeArea': free('out'),
    'air.inletDoubt': endDoubt(plan, 'in'),
    'air.outletDoubt': endDoubt(plan, 'out'),
    'air.inletClear': plan.place.inletClearM,
    'air.outletClear': plan.place.outletClearM,
    'air.openingGap': job.openingGapM,
    'air.baffled': job.baffled,
    'filter.present': begun ? filters.length > 0 : undefined,
    'filter.dpIncluded': filters.length
      ? path.elements.every((e) => e.element.kind !== 'filter' || !e.missing)
      : undefined,
  }
}

/** A filter, with how fast the air goes through it. */
function filterFacts(e: PathElement, flow: number | null): SiFacts {
  const rated = filterMedia.find((m) => m.key === e.medium)?.maxFaceSpeed
  return {
    'filter.faceSpeed': e.areaM2 === null ? null : flow === null ? undefined : flow / e.areaM2,
    'filter.ratedFaceSpeed': rated,
  }
}

/** A duct or bend; what is flexible can be slack, a rigid pipe cannot. */
function ductFacts(e: PathElement, flow: number | null): SiFacts {
  const hose = e.kind === 'duct' && e.surface === 'hose'
  return {
    // a side way's bore is no measure for the fan: it carries only its share
    'duct.diameter': e.branchId === null ? e.diameterM : undefined,
    'duct.speed':
      e.diameterM === null ? null : flow === null ? undefined : flow / ((Math.PI / 4) * e.diameterM ** 2),
    'duct.length': hose ? e.lengthM : undefined,
    'duct.slack': hose ? (e.slack ?? 1) > 1 : undefined,
  }
}

/** A rectangular duct has no bore. */
const isRound = (e: PathElement) => e.diameterM !== null || !(e.widthM || e.heightM)

/** Every filter, grille and duct by itself. */
export function pathSubjects({ plan, system: { path }, operation: { candidate } }: FactSources): SiSubject[] {
  const flows = candidate?.flow ? elementFlows(path, candidate.flow) : null
  const subject = (kind: SiSubject['kind'], e: PathElement, facts: SiFacts): SiSubject => ({
    kind,
    id: e.id,
    name: e.name,
    at: { station: 'air-path', element: e.id },
    facts,
  })
  return plan.path.flatMap((e) => {
    const flow = flows?.get(e.id) ?? null
    if (e.kind === 'filter') return [subject('filter', e, filterFacts(e, flow))]
    if (e.kind === 'grille') return [subject('grille', e, { 'air.grilleOpen': freeAreaRatioOf(e) })]
    if ((e.kind === 'duct' || e.kind === 'bend') && isRound(e)) return [subject('duct', e, ductFacts(e, flow))]
    return []
  })
}
