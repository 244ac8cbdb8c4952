import { directionsOf, type Side } from '#core/document'
import { fanFlowFor, usefulShare } from '#core/system'
import type { FactSources, SiFacts } from './sources'

const HOUR = 3600

/** What the equipment's own openings are, and whether the planned ones serve them. */
function portFacts({ plan: { job, ports } }: FactSources): SiFacts {
  const own = (role: 'in' | 'out') => ports.filter((p) => p.role === role)
  const area = (role: 'in' | 'out') =>
    !own(role).length
      ? undefined
      : own(role).some((p) => p.areaM2 === null)
        ? null
        : own(role).reduce((s, p) => s + p.areaM2!, 0)
  const served = (role: 'in' | 'out', side: Side | null) =>
    !own(role).length ? undefined : side === null ? null : own(role).some((p) => p.side === side)
  return {
    'port.intakeServed': served('in', job.intakeSide),
    'port.outletServed': served('out', job.outletSide),
    'port.sameSide':
      job.intakeSide === null || job.outletSide === null ? null : job.intakeSide === job.outletSide,
    'port.intakeArea': area('in'),
    'port.outletArea': area('out'),
  }
}

/** Where the air ends, and what that asks for. */
function outletFacts({ plan: { job, path } }: FactSources): SiFacts {
  const fume = job.goal === 'fume'
  return {
    'air.outlet': job.airOutlet,
    'air.outdoorOpening': job.airOutlet === null ? null : job.airOutlet === 'outdoors',
    'air.backflowFlap': path.some((e) => e.kind === 'flap') ? true : job.backflowFlap,
    'air.exhaustToOpening': fume ? job.outletToOpeningM : undefined,
    'air.gasketed': fume ? job.gasketed : (job.gasketed ?? undefined),
    'filter.fumeRated': fume ? job.fumeRated : undefined,
    // whoever counts the hours of a carbon filter has one
    'filter.carbonHours': job.carbonHours === null ? undefined : job.carbonHours * HOUR,
    'filter.carbonLife': job.carbonLifeH === null ? null : job.carbonLifeH * HOUR,
  }
}

/** Where the air goes in and out, and what the equipment itself does. */
export function breathingFacts(sources: FactSources): SiFacts {
  const { plan, system, requirement, operation } = sources
  const { path } = system
  const { job, ports } = plan
  const { design } = requirement
  const usefulFlow = operation.delivered.flow
  const moved = operation.candidate?.flow ?? (design === null ? null : fanFlowFor(path, design))
  // the same air is blown in at one place and drawn out at the other
  const ways = directionsOf(plan)
  const blown = (role: 'in' | 'out') =>
    ports.filter((p) => p.role === role).reduce((s, p) => s + (p.flowM3s ?? 0), 0) +
    (ways.includes(role) ? (usefulFlow ?? 0) : 0)
  const flowsKnown = usefulFlow !== null && ways.every((w) => w !== null)
  const hot = job.goal === 'cool' || job.goal === 'part' || job.goal === 'quieten'
  return {
    'air.direction': plan.place.direction,
    // before it is fitted there is nothing to compare
    'fan.direction': plan.place.mountedDirection ?? undefined,
    'air.intakeFlow': flowsKnown ? blown('in') : undefined,
    'air.exhaustFlow': flowsKnown ? blown('out') : undefined,
    'air.intakeHeight': job.intakeHeightM,
    // only warm air rises
    'air.exhaustHeight': hot ? job.outletHeightM : undefined,
    'air.intakeTemp': job.intakeAirC ?? undefined,
    ...outletFacts(sources),
    ...portFacts(sources),
    // fans in the open air are a path as well
    'path.elements': plan.path.length,
    'path.leakShare': path.complete && moved ? 1 - usefulShare(path, moved) : undefined,
    'path.factor': path.factor === 1 ? undefined : path.factor,
  }
}
