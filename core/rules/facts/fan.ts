import { bladePass } from '#core/noise'
import { gainsOf, type Candidate } from '#core/selection'
import {
  drivenArray,
  drivenSpeed,
  endsOf,
  fanAirC,
  fanFlowFor,
  fanPlaces,
  freeDelivery,
  holeSpacing,
  impellerDiameter,
  isOfOneKind,
  membersOf,
  modelFan,
  pathDrop,
  shutOffPressure,
  sweptArea,
  weakestPressure,
  type FanArray,
  type FanModel,
} from '#core/system'
import { asClaimed, sourceOf, type Fan, type PlacePlan } from '#core/document'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** The selected fans as they run; facts of fans need one. */
interface Running extends FactSources {
  fanArray: FanArray
  candidate: Candidate
}

const driveOf = ({ driveV, duty }: Candidate) => ({ volts: driveV, duty })

/** The members of a group, each model once. */
export const distinctMembers = (fanArray: FanArray): FanModel[] => [
  ...new Map(membersOf(fanArray).map((m) => [m.fan.id, m])).values(),
]

/**
 * Whether the air is enough even where everything turns out badly: fans and path at the low end, the need at its high one,
 * the filter loaded. A plan that was made for cooler air than there may be says nothing of that.
 */
function ampleOf({ plan: { job }, operation, requirement }: Running): boolean | undefined {
  const { delivered, deliveredDirty } = operation
  const { design, high, openHigh } = requirement
  if (delivered.low === null || design === null) return undefined
  const hotter = job.ambientMaxC !== null && job.ambientMaxC > job.ambientC
  const least = Math.min(delivered.low, deliveredDirty ?? Infinity)
  return !openHigh && !hotter && least >= Math.max(design, high ?? 0)
}

/** The air at the job's side: what of the fans' air does the job. */
function operatingFacts(running: Running): SiFacts {
  const { operation, candidate, system } = running
  const turns = candidate.none !== 'not-turning'
  return {
    'op.exists': !system.path.complete ? null : turns ? candidate.flow !== null : undefined,
    'op.flow': operation.delivered.flow,
    'op.flowDirty': operation.deliveredDirty ?? undefined,
    'op.ample': ampleOf(running),
    'op.dp': candidate.pressure,
  }
}

/** What a hole has to leave free: the blades, of a blower its measured intake; one that stands by its outlet has no such hole. */
const intakeOf = ({ place: { fit } }: PlacePlan, fan: Fan): number | null | undefined =>
  fan.kind === 'axial'
    ? impellerDiameter(fan)
    : fit?.blowerFace === 'outlet'
      ? undefined
      : (fit?.intakeM ?? null)
/** What they draw through, m2: the ring of the blades, of blowers the measured intake. */
function intakeAreaOf({ place: { fit } }: PlacePlan, fanArray: FanArray, sideBySide: boolean): number | null {
  const areas = membersOf(fanArray).map(({ fan }) =>
    fan.kind === 'axial' ? sweptArea(fan) : fit?.intakeM ? (Math.PI / 4) * fit.intakeM ** 2 : null,
  )
  const known = areas.filter((a) => a !== null)
  if (known.length < areas.length) return null
  return sideBySide ? known.reduce((s, a) => s + a, 0) : Math.max(...known)
}

/** What the group measures, as a whole and one of it. */
function bodyFacts({ plan, fanArray, candidate }: Running): SiFacts {
  const { fan } = fanArray.model
  const sideBySide = fanArray.arrangement === 'parallel'
  return {
    'fan.size': fan.frameM,
    'fan.thickness': candidate.thicknessM,
    'fan.impeller': intakeOf(plan, fan),
    // all that stand side by side draw through one opening
    'fan.annulus': intakeAreaOf(plan, fanArray, sideBySide),
    'fan.holeSpacing': holeSpacing(fan),
    'fan.mass': membersOf(fanArray).some((m) => m.fan.massKg === null) ? null : fan.massKg,
    'fan.wires': fan.wires,
    'fan.minDuty': fan.pwmMinDuty ?? undefined,
    'fan.startDuty': fan.pwmStartDuty ?? undefined,
  }
}

/** Blade-pass frequency of a fan as driven, Hz. */
function bladePassOf(m: FanModel, candidate: Candidate): number | null {
  const { blades, ratedRpm } = m.fan
  return blades === null || ratedRpm === null
    ? null
    : bladePass(ratedRpm * drivenSpeed(m, candidate.driveV, candidate.duty), blades)
}

/** Least pressure made at one of two places, Pa. */
function leastAtPlace({ plan, system, operation, candidate }: Running): number | undefined {
  if (candidate.arrangement !== 'places') return undefined
  const gains = [...gainsOf(plan, system, operation).values()].filter((g) => g !== null)
  return gains.length > 1 ? Math.min(...gains) : undefined
}

function arrayFacts(running: Running): SiFacts {
  const { plan, system, operation, fanArray, candidate } = running
  const several = fanArray.count > 1
  const openings = fanPlaces(plan)[0]?.times ?? 1
  const { flow, arrangement } = candidate
  const { flowOfOne } = operation
  const { fan } = fanArray.model
  const passes = membersOf(fanArray).map((m) => bladePassOf(m, candidate))
  const known = passes.filter((p) => p !== null)
  return {
    'group.count': fanArray.count,
    'group.openings': openings,
    'group.placesDrawn': fanPlaces(plan).length || undefined,
    'group.placesFilled': arrangement === 'places' ? 2 : 1,
    'group.placeLeast': leastAtPlace(running),
    'group.sharedEvenly': openings > 1 ? fanArray.count % openings === 0 : undefined,
    'group.alike': isOfOneKind(fanArray),
    'group.arrangement': arrangement === 'places' ? 'series' : arrangement,
    // before a source is chosen nothing feeds them together
    'group.voltagesMixed': sourceOf(plan)
      ? fanArray.groups.some((g) => g.model.fan.ratedV !== fan.ratedV)
      : undefined,
    'group.flowGain': !several ? undefined : flow && flowOfOne ? flow / flowOfOne : null,
    'group.weakestPressure': several ? weakestPressure(fanArray, driveOf(candidate), system.air) : undefined,
    'group.bladePassDiff': !several
      ? undefined
      : known.length === passes.length
        ? Math.max(...known) - Math.min(...known)
        : null,
  }
}

function noiseFacts({ plan: { job }, candidate }: Running): SiFacts {
  const level = candidate.level?.value ?? null
  return {
    'noise.level': level,
    'noise.other': job.roomDbA,
    'safety.exposure': level === null ? null : exposureOf(level, job.hoursPerDay),
  }
}

/** Hours of the working day that exposure limits speak of. Directive 2003/10/EC (from memory). */
const DAY_H = 8
/** Level over a working day, dB(A): energy mean of the hours beside it. */
const exposureOf = (level: number, hours: number) =>
  hours > 0 ? level + 10 * Math.log10(Math.min(hours, 24) / DAY_H) : null

const runningOf = (sources: FactSources): Running | null => {
  const { fanArray } = sources.system
  const { candidate } = sources.operation
  return fanArray && candidate ? { ...sources, fanArray, candidate } : null
}

/** The selected fans as a whole: where they run, what they measure, how they work together. */
export function fanFacts(sources: FactSources): SiFacts[] {
  const running = runningOf(sources)
  if (!running) return []
  return [operatingFacts(running), bodyFacts(running), arrayFacts(running), noiseFacts(running)]
}

/** The group at its own side of the path: all the air that goes through it, against its own curve as driven. */
function fanSideFacts({ system, requirement, candidate, fanArray }: Running): SiFacts {
  const { path } = system
  const driven = drivenArray(fanArray, driveOf(candidate), system.air)
  const ends = driven && endsOf(driven)
  return {
    'op.flow': candidate.flow,
    'op.dpAtNeed':
      !path.complete || requirement.wanted === null
        ? null
        : pathDrop(path, fanFlowFor(path, requirement.wanted)),
    'fan.freeFlow': ends?.free,
    'fan.maxPressure': ends?.highest,
    'fan.stallFlow': candidate.stallFlow ?? undefined,
    'fan.curveBasis': fanArray.model.curves.basis,
  }
}

/** One of the picked fans in the air it stands in. */
function memberFacts({ plan, system, requirement, candidate, fanArray }: Running, m: FanModel): SiFacts {
  const { fan } = m
  const group = fanArray.groups.find((g) => g.model === m)
  const at = plan.places.find((p) => p.id === group?.placeId) ?? plan.place
  return {
    'fan.size': fan.frameM,
    'fan.bearing': fan.bearing,
    'fan.shaft': at.shaft,
    // drawn out the air is warm, blown in it is the room's
    'fan.airTemp': fanAirC(plan.job, at.direction, requirement.insideMaxC, candidate.flow, system.air),
    'fan.maxAirTemp': fan.maxAirC,
    'fan.ipWater': fan.ipWater,
    'noise.bladePass': bladePassOf(m, candidate),
  }
}

/**
 * What the sheet claims of one fan, at rated voltage, whatever the plan believes of it. A claim printed twice: the first
 * stands for the metric figure, the second for the other unit.
 */
function claimFacts(fan: Fan): SiFacts {
  const made = modelFan({ ...asClaimed(fan), trusted: undefined })
  // what is estimated from the label claims nothing
  const model = made.ok && !made.model.curves.fromLabel ? made.model : null
  return {
    'fan.freeFlow': fan.maxFlowM3s ?? (model ? freeDelivery(model) : undefined),
    'fan.maxPressure': fan.maxPressurePa ?? (model ? shutOffPressure(model) : undefined),
    'fan.ratedV': fan.ratedV,
    'fan.ratedA': fan.ratedA ?? undefined,
    'fan.ratedW': fan.ratedW ?? (fan.ratedA === null ? undefined : fan.ratedA * fan.ratedV),
    // a label's current is the most it ever takes
    'fan.labelIsMost': true,
    'fan.flowMetric': fan.alsoFlowM3s === null ? undefined : (fan.maxFlowM3s ?? undefined),
    'fan.flowCfm': fan.alsoFlowM3s ?? undefined,
    'fan.pressurePa': fan.alsoPressurePa === null ? undefined : (fan.maxPressurePa ?? undefined),
    'fan.pressureMm': fan.alsoPressurePa ?? undefined,
    // sone and sound power have a distance of their own
    'noise.distanceStated': fan.noiseDbA === null ? undefined : fan.noiseDistanceM !== null || fan.noiseIsPower,
  }
}

/** Every fan the plan would buy or feed: its claims; the picked ones as they run. */
export function fanSubjects(sources: FactSources): SiSubject[] {
  const { plan, fans } = sources
  const { fanArray } = sources.system
  const running = runningOf(sources)
  const picked = fanArray ? distinctMembers(fanArray) : []
  const fed = plan.feed
    .map((part) => fans.find((f) => f.id === part.fanId))
    .filter((f) => f !== undefined)
    .filter((f) => !picked.some((m) => m.fan.id === f.id))
  const at = { station: 'line-up' } as const
  const claims = [...picked.map((m) => m.fan), ...new Map(fed.map((f) => [f.id, f])).values()].map(
    (fan): SiSubject => ({ kind: 'sheet', id: fan.id, name: fan.model, at, facts: claimFacts(fan) }),
  )
  if (!running) return claims
  return [
    ...claims,
    { kind: 'array', id: plan.place.id, name: '', at: null, facts: fanSideFacts(running) },
    ...picked.map((m): SiSubject => ({
      kind: 'member',
      id: m.fan.id,
      name: picked.length > 1 ? m.fan.model : '',
      at: null,
      facts: memberFacts(running, m),
    })),
  ]
}
