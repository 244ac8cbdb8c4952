import type { Side } from '#core/document'
import { fanFlowFor, usefulShare } from '#core/system'
import type { FactSources, SiFacts } from './sources'

const HOUR = 3600

/** Where the air goes in and out, and what the equipment itself does. */
export function breathingFacts({ plan, system: { path }, requirement, operation }: FactSources): SiFacts {
  const { job, ports } = plan
  const { design } = requirement
  const usefulFlow = operation.delivered.flow
  const moved = operation.candidate?.flow ?? (design === null ? null : fanFlowFor(path, design))
  const own = (role: 'in' | 'out') => ports.filter((p) => p.role === role)
  const area = (role: 'in' | 'out') =>
    own(role).length && own(role).every((p) => p.areaM2 !== null)
      ? own(role).reduce((s, p) => s + p.areaM2!, 0)
      : null
  const blown = (role: 'in' | 'out') =>
    own(role).reduce((s, p) => s + (p.flowM3s ?? 0), 0) + (job.direction === role ? (usefulFlow ?? 0) : 0)
  const flowsKnown = usefulFlow !== null && job.direction !== null
  const served = (role: 'in' | 'out', side: Side | null) =>
    !own(role).length || side === null ? null : own(role).some((p) => p.side === side)
  return {
    'air.direction': job.direction,
    'fan.direction': job.mountedDirection,
    'air.intakeFlow': flowsKnown ? blown('in') : null,
    'air.exhaustFlow': flowsKnown ? blown('out') : null,
    'air.intakeHeight': job.intakeHeightM,
    'air.exhaustHeight': job.outletHeightM,
    'air.intakeTemp': job.intakeAirC,
    'air.gasketed': job.gasketed,
    'air.outlet': job.airOutlet,
    'air.outdoorOpening': job.airOutlet === null ? null : job.airOutlet === 'outdoors',
    'air.backflowFlap': job.backflowFlap ?? (plan.path.some((e) => e.kind === 'flap') ? true : null),
    'air.exhaustToOpening': job.outletToOpeningM,
    'filter.fumeRated': job.fumeRated,
    'filter.carbonHours': job.carbonHours === null ? null : job.carbonHours * HOUR,
    'filter.carbonLife': job.carbonLifeH === null ? null : job.carbonLifeH * HOUR,
    'port.intakeServed': served('in', job.intakeSide),
    'port.outletServed': served('out', job.outletSide),
    'port.sameSide':
      job.intakeSide === null || job.outletSide === null ? null : job.intakeSide === job.outletSide,
    'port.intakeArea': area('in'),
    'port.outletArea': area('out'),
    'path.elements': plan.path.filter((e) => e.kind !== 'fan').length,
    'path.leakShare': path.complete && moved ? 1 - usefulShare(path, moved) : null,
    'path.factor': path.factor === 1 ? null : path.factor,
  }
}
