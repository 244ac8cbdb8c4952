import { type ElementKind, type PathElement, type StreamPlan, blowsOf, drawnPlaces } from '#core/document'
import { gainsOf, type Operation, type SelectionContext } from '#core/selection'
import {
  airRise,
  branchFlows,
  elementDrop,
  fanPlaces,
  freeAreaOf,
  groupsAt,
  pressureSteps,
  usefulShare,
  type FanGroup,
  type PressureStep,
  type AirSystem,
  type ElementModel,
} from '#core/system'

/** One way of a split in the ribbon. */
export interface RibbonBranch {
  id: string
  name: string
  leak: boolean
  /** openings alike that it stands for */
  times: number
  /** through it, m3/s; through openings alike all together */
  flow: number | null
  segments: RibbonSegment[]
}

/** One piece of the living cross-section, from the air drawn in to where it leaves. */
export interface RibbonSegment {
  id: string
  kind: ElementKind | 'room-in' | 'room-out'
  name: string
  /** free area, m2; null where it is not known */
  areaM2: number | null
  /** share of full height, 0..1 */
  height: number
  /** pressure change, Pa: losses negative, the fan positive */
  deltaPa: number | null
  /** pressure behind it against the room, Pa */
  gaugePa: number | null
  temperatureC: number | null
  /** of the air in it, m/s; null where flow or area is not known */
  speedMs: number | null
  /** 0 cool .. 1 warm */
  tint: number
  missing: boolean
  /** fans side by side (parallel) or one behind the other (series) */
  fans: { count: number; series: boolean } | null
  branches: RibbonBranch[]
}

/** Rise that paints the ribbon fully warm, K. */
const FULL_TINT_K = 15
const MIN_HEIGHT = 0.22

export interface RibbonInput {
  plan: StreamPlan
  system: AirSystem
  context: SelectionContext
  operation: Operation
  fanName: string
}

/** Where the job's heat enters the main row: at the part's fins or the first chamber, or half way. */
function heatIndex(plan: StreamPlan, main: readonly ElementModel[]): number {
  const wanted = plan.job.goal === 'part' ? ['fins', 'chamber'] : ['chamber', 'fins']
  for (const kind of wanted) {
    const at = main.findIndex((e) => e.element.kind === kind)
    if (at >= 0) return at
  }
  return Math.floor(main.length / 2)
}

/** What every segment is drawn from. */
interface Drawn {
  plan: StreamPlan
  /** rise of the air at the flow that does the job, K */
  rise: number
  tint: number
  /** largest free area, m2: full height */
  largest: number
  /** the fans at each place, by the place's id; none at a place that is left over */
  groups: ReadonlyMap<string, FanGroup>
  /** fans that are put aside */
  aside: ReadonlySet<string>
  series: boolean
  gains: ReadonlyMap<string, number | null>
  fanName: string
}

/** The air of a segment: as drawn in, or warm behind the job's heat. */
const airOf = ({ plan: { job }, rise, tint }: Drawn, warm: boolean) => ({
  temperatureC: job.ambientC + (warm ? rise : 0),
  tint: warm ? tint : 0,
})

const roomSegment = (drawn: Drawn, id: 'room-in' | 'room-out', name: string, warm: boolean): RibbonSegment => ({
  id,
  kind: id,
  name,
  areaM2: null,
  height: 1,
  deltaPa: null,
  gaugePa: null,
  ...airOf(drawn, warm),
  speedMs: null,
  missing: false,
  fans: null,
  branches: [],
})

/** Height of an element: root of its free area, so that small openings stay visible. */
function heightOf(e: PathElement, largest: number): number {
  if (e.kind === 'fan') return 0.7
  if (e.kind === 'split') return 1
  const area = freeAreaOf(e)
  return area === null ? 0.6 : Math.max(MIN_HEIGHT, Math.min(1, Math.sqrt(area / largest)))
}

/** Name of a place for fans: who stands there, where that is known. */
function fanNameOf({ groups, aside, fanName }: Drawn, e: PathElement, times: number): string {
  if (aside.has(e.id)) return `${e.name}, put aside`
  const group = groups.get(e.id)
  if (!group) return fanName && groups.size ? `${e.name}, empty` : fanName || e.name
  return groups.size > 1 || times > 1 ? `${group.count / times} × ${group.model.fan.model}` : fanName
}

function elementSegment(
  drawn: Drawn,
  model: ElementModel,
  through: number | null,
  warm: boolean,
  step: Omit<PressureStep, 'id'> | null = null,
  times = 1,
): RibbonSegment {
  const e = model.element
  const isFan = e.kind === 'fan'
  const group = drawn.groups.get(e.id)
  const known = through !== null && !model.missing
  const ways = model.branches && known ? branchFlows(model, through) : null
  const areaM2 = freeAreaOf(e)
  return {
    id: e.id,
    kind: e.kind,
    name: isFan ? fanNameOf(drawn, e, times) : e.name,
    areaM2,
    height: heightOf(e, drawn.largest),
    deltaPa: isFan
      ? (drawn.gains.get(e.id) ?? null)
      : step
        ? step.deltaPa
        : known
          ? -elementDrop(model, through)
          : null,
    gaugePa: step?.gaugePa ?? null,
    ...airOf(drawn, warm),
    speedMs: known && areaM2 ? through / areaM2 : null,
    missing: !isFan && model.missing !== null,
    fans:
      isFan && !drawn.aside.has(e.id)
        ? { count: group || !drawn.groups.size ? (group?.count ?? times) / times : 0, series: drawn.series }
        : null,
    branches: (model.branches ?? []).map((b, k) => ({
      id: b.branch.id,
      name: b.branch.name,
      leak: b.branch.leak,
      times: b.branch.times,
      flow: ways?.[k] ?? null,
      segments: b.elements.map((x) =>
        elementSegment(drawn, x, ways ? ways[k]! / b.branch.times : null, warm, null, b.branch.times),
      ),
    })),
  }
}

/** Which fans stand at which place. */
function groupsByElement(plan: StreamPlan, { fanArray }: AirSystem): Map<string, FanGroup> {
  if (!fanArray) return new Map()
  return new Map(
    fanPlaces(plan).flatMap((place) => {
      const [first, ...more] = groupsAt(fanArray, place)
      if (!first) return []
      return [[place.element.id, { ...first, count: more.reduce((sum, g) => sum + g.count, first.count) }]]
    }),
  )
}

/**
 * The ribbon of a plan: heights follow free area, tints the air's temperature, the running pressure tells where the path
 * is under and where over the room's.
 */
export function ribbonOf({ plan, system, context, operation, fanName }: RibbonInput): RibbonSegment[] {
  const { path, air } = system
  const { job } = plan
  const { candidate, delivered } = operation
  const atFlow = candidate?.flow ?? context.designFlow
  const usefulFlow = candidate ? delivered.flow : atFlow && atFlow * usefulShare(path, atFlow)
  const rise = airRise(job, blowsOf(plan), air, usefulFlow) ?? 0
  const areas = path.elements.map((e) => freeAreaOf(e.element)).filter((a) => a !== null)
  const drawn: Drawn = {
    plan,
    rise,
    tint: Math.min(1, rise / FULL_TINT_K),
    largest: Math.max(...areas, 1e-4),
    groups: groupsByElement(plan, system),
    aside: new Set(drawnPlaces(plan).flatMap((d) => (d.place?.aside ? [d.element.id] : []))),
    series: system.fanArray?.arrangement === 'series',
    gains: gainsOf(plan, system, operation),
    fanName,
  }
  const heatAt = heatIndex(plan, path.main)
  const flow = path.complete ? atFlow : null
  const steps = pressureSteps(path, flow, drawn.gains)
  return [
    roomSegment(drawn, 'room-in', job.breathesIn || 'Air it draws in', false),
    ...path.main.map((model, i) => elementSegment(drawn, model, flow, i >= heatAt && rise > 0, steps[i])),
    roomSegment(drawn, 'room-out', job.breathesOut || 'Where it leaves', path.main.length > heatAt),
  ]
}
