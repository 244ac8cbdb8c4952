import type { FactSources, SiFacts } from './sources'

/** What is known of the place for the fan. */
export function placeFacts({ plan: { job } }: FactSources): SiFacts {
  return {
    'fit.depth': job.fitDepthM,
    // nothing else was named to stand before or behind it
    'fit.stackExtra': job.stackExtraM ?? 0,
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
  }
}
