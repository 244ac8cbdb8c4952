import type { FactSources, SiFacts } from './sources'

/** What is known of the place for the fan. */
export function placeFacts(sources: FactSources): SiFacts {
  const { job } = sources.plan
  return {
    'fit.depth': job.fitDepthM,
    'fit.stackExtra': stackExtra(sources),
    'fit.width': job.fitWidthM,
    'fit.hole': job.holeM ?? undefined,
    'fit.holeSpacing': job.existingHolesM ?? undefined,
    'fit.screwHole': job.screwHoleM ?? (job.holeM === null ? undefined : null),
    'mount.kind': job.mountKind,
    'mount.capacity': job.mountCapacityKg ?? undefined,
    'mount.isolated': job.mountIsolated,
    'mount.thinPanel': job.thinPanel,
    'mount.panelHz': job.panelHz ?? undefined,
    'air.upstreamGap': job.upstreamGapM,
    ...cutFacts(sources),
    ...guardFacts(sources),
    ...screwFacts(sources),
  }
}

/** Told together, else what was told piece by piece; nothing else was named to stand before or behind it. */
function stackExtra({ plan: { job }, mount }: FactSources): number {
  if (job.stackExtraM !== null || !mount) return job.stackExtraM ?? 0
  return mount.layers.reduce((s, l) => s + (l.outside || l.key === 'fan' ? 0 : l.thicknessM), 0)
}

function cutFacts({ plan: { fit, job }, mount }: FactSources): SiFacts {
  if (!fit) return {}
  const sides = [fit.panelWidthM, fit.panelHeightM].filter((x) => x !== null)
  return {
    'fit.panelSide': sides.length && job.holeM !== null ? Math.min(...sides) : undefined,
    'fit.panelRoom': mount?.room ?? undefined,
    'fit.inPanel': mount ? Math.ceil(mount.inOpening) : undefined,
    'fit.cableGap': fit.cableGapM,
    'fit.surfaceTemp': fit.surfaceC ?? undefined,
    'mount.softenTemp': fit.softenC ?? (fit.surfaceC === null ? undefined : null),
  }
}

function guardFacts({ plan: { fit }, mount }: FactSources): SiFacts {
  if (!fit) return {}
  const guarded = fit.guard !== null && fit.guard !== 'none'
  return {
    'guard.present': fit.guard === null ? null : guarded,
    'guard.reach': fit.reach,
    'guard.distance': guarded ? fit.guardGapM : undefined,
    'guard.required': guarded ? (mount?.guardM ?? null) : undefined,
    'guard.child': fit.childReach ?? undefined,
  }
}

function screwFacts({ plan: { fit }, mount }: FactSources): SiFacts {
  if (!fit || fit.screwM === null || !mount?.screw) return {}
  const { gripM, engageM, mostM } = mount.screw
  return {
    'screw.length': fit.screwM,
    'screw.grip': gripM,
    'screw.minEngage': engageM,
    'screw.maxDepth': mostM,
  }
}
