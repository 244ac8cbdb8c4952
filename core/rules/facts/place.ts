import { piecesOf } from '#core/mount'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** What is known of the place for the fan. */
export function placeFacts(sources: FactSources): SiFacts {
  const { place } = sources.plan
  return {
    'fit.depth': place.fitDepthM,
    'fit.stackExtra': stackExtra(sources),
    'fit.width': place.fitWidthM,
    'fit.hole': place.holeM ?? undefined,
    'fit.holeSpacing': place.existingHolesM ?? undefined,
    'fit.screwHole': place.screwHoleM ?? (place.holeM === null ? undefined : null),
    'mount.kind': place.mountKind,
    'mount.capacity': place.mountCapacityKg ?? undefined,
    'mount.isolated': place.mountIsolated,
    'mount.thinPanel': place.thinPanel,
    'mount.panelHz': place.panelHz ?? undefined,
    'air.upstreamGap': place.upstreamGapM,
    ...cutFacts(sources),
    ...guardFacts(sources),
    ...screwFacts(sources),
    ...layoutFacts(sources),
    ...openingFacts(sources),
    ...partFacts(sources),
  }
}

/** Everything in the way by itself. */
export const placeSubjects = ({ mount }: FactSources): SiSubject[] =>
  (mount?.things ?? []).map(({ thing, nearestM, roomM }) => ({
    kind: 'thing',
    id: thing.id,
    name: thing.name,
    at: { station: 'fit', field: 'things' },
    facts: {
      // that its travel is not told is told by itself
      'thing.room': roomM ?? (thing.fromPanelM === null ? null : undefined),
      'thing.nearest': nearestM ?? undefined,
      'thing.travelTold': thing.moving ? thing.travelM !== null || roomM !== null : undefined,
    },
  }))

/** How the fans were placed by hand. */
function layoutFacts({ mount }: FactSources): SiFacts {
  const gaps = mount?.layout?.gaps
  if (!gaps) return {}
  return {
    'fit.frameGap': gaps.frameM ?? undefined,
    'fit.edgeGap': gaps.edgeM,
    'fit.zoneGap': gaps.zoneM ?? undefined,
    'fit.placed': mount.layout!.placed,
  }
}

/** The opening that is there, where it is not round: a round one is the hole. */
function openingFacts({
  plan: {
    place: { fit },
  },
  mount,
}: FactSources): SiFacts {
  const opening = mount?.opening
  const inDuct = fit?.sitsIn === 'duct' ? true : undefined
  if (!opening || opening.shape === 'round' || opening.shape === 'tapered') return { 'fit.inDuct': inDuct }
  return {
    'fit.inDuct': inDuct,
    'opening.within': opening.withinM2,
    'opening.ring': opening.ringM2,
    'opening.side': Math.max(opening.widthM, opening.heightM),
    'opening.corners': opening.corners,
  }
}

/** Guard, filter, adapter, soft mounts, lead; what the air path counts is judged there. */
function partFacts({ plan, mount }: FactSources): SiFacts {
  const { fit } = plan.place
  if (!fit || !mount) return {}
  const counted = new Set(piecesOf(plan, mount).flatMap((p) => (p.found && !p.off ? [p.key] : [])))
  const { guardShare, filter, adapter, soft, cable } = mount
  return {
    'guard.share': guardShare === null || counted.has('guard') ? undefined : guardShare,
    'place.filterSpeed': counted.has('filter') ? undefined : (filter?.faceMs ?? undefined),
    'place.filterRated': filter?.ratedMs,
    'place.filterReach': filter ? fit.filterReach : undefined,
    'adapter.steep': adapter ? (adapter.way === null ? undefined : adapter.tooSteep) : undefined,
    'adapter.halfAngle': adapter?.steepDeg,
    'mount.ownHz': soft?.ownHz ?? undefined,
    'mount.turnHz': soft?.turnHz,
    'mount.wantedSink': soft?.wantedSinkM,
    'lead.own': cable.neededM === null ? undefined : fit.leadM,
    'lead.needed': cable.neededM ?? undefined,
    'blower.intakes': fit.intakes ?? undefined,
    'blower.face': fit.blowerFace ?? undefined,
  }
}

/** Told together, else what was told piece by piece; nothing else was named to stand before or behind it. */
function stackExtra({ plan: { place }, mount }: FactSources): number {
  if (place.stackExtraM !== null || !mount) return place.stackExtraM ?? 0
  return mount.layers.reduce((s, l) => s + (l.outside || l.key === 'fan' ? 0 : l.thicknessM), 0)
}

function cutFacts({ plan: { place }, mount }: FactSources): SiFacts {
  const { fit } = place
  if (!fit) return {}
  const sides = [fit.panelWidthM, fit.panelHeightM].filter((x) => x !== null)
  return {
    'fit.panelSide': sides.length && place.holeM !== null ? Math.min(...sides) : undefined,
    // where somebody placed them the gaps tell
    'fit.panelRoom': fit.positions.length ? undefined : (mount?.room ?? undefined),
    'fit.panelCrowded': mount?.crowded ?? undefined,
    'fit.inPanel': mount ? Math.ceil(mount.inOpening) : undefined,
    'fit.cableGap': fit.cableGapM,
    'fit.surfaceTemp': fit.surfaceC ?? undefined,
    'mount.softenTemp': fit.softenC ?? (fit.surfaceC === null ? undefined : null),
  }
}

function guardFacts({
  plan: {
    place: { fit },
  },
  mount,
}: FactSources): SiFacts {
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

function screwFacts({
  plan: {
    place: { fit },
  },
  mount,
}: FactSources): SiFacts {
  if (!fit || fit.screwM === null || !mount?.screw) return {}
  const { gripM, engageM, mostM } = mount.screw
  return {
    'screw.length': fit.screwM,
    'screw.grip': gripM,
    'screw.minEngage': engageM,
    'screw.maxDepth': mostM,
  }
}
