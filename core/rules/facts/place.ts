import type { FactSources, SiFacts } from './sources'

/** What is known of the place for the fan. */
export function placeFacts({ plan: { job } }: FactSources): SiFacts {
  return {
    'fit.depth': job.fitDepthM,
    'fit.stackExtra': job.stackExtraM ?? (job.fitDepthM === null ? null : 0),
    'fit.width': job.fitWidthM,
    'fit.hole': job.holeM,
    'fit.holeSpacing': job.existingHolesM,
    'fit.screwHole': job.screwHoleM,
    'mount.kind': job.mountKind,
    'mount.capacity': job.mountCapacityKg,
    'mount.isolated': job.mountIsolated,
    'mount.thinPanel': job.thinPanel,
    'mount.panelHz': job.panelHz,
    'air.upstreamGap': job.upstreamGapM,
  }
}
