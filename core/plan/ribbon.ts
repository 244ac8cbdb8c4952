import type { ElementKind, PathElement, PlanDocument } from '#core/document'
import type { Operation, SelectionContext } from '#core/selection'
import {
  airRise,
  branchFlows,
  elementDrop,
  freeAreaOf,
  usefulShare,
  type AirSystem,
  type ElementModel,
} from '#core/system'

/** One way of a split in the ribbon. */
export interface RibbonBranch {
  id: string
  name: string
  leak: boolean
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
  plan: PlanDocument
  system: AirSystem
  context: SelectionContext
  operation: Operation
  fanName: string
}

/** Where the job's heat enters the main row: at the part's fins or the first chamber, or half way. */
function heatIndex(plan: PlanDocument, main: readonly ElementModel[]): number {
  const wanted = plan.job.goal === 'part' ? ['fins', 'chamber'] : ['chamber', 'fins']
  for (const kind of wanted) {
    const at = main.findIndex((e) => e.element.kind === kind)
    if (at >= 0) return at
  }
  return Math.floor(main.length / 2)
}

/** What every segment is drawn from. */
interface Drawn {
  plan: PlanDocument
  /** rise of the air at the flow that does the job, K */
  rise: number
  tint: number
  /** largest free area, m2: full height */
  largest: number
  /** places for fans in the row */
  places: number
  gainPa: number | null
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

function fanSegmentOf({ plan: { selection }, places }: Drawn): RibbonSegment['fans'] {
  return {
    count: Math.max(1, Math.round((selection?.count ?? 1) / places)),
    series: selection?.arrangement === 'series',
  }
}

function elementSegment(
  drawn: Drawn,
  model: ElementModel,
  through: number | null,
  warm: boolean,
): RibbonSegment {
  const e = model.element
  const isFan = e.kind === 'fan'
  const known = through !== null && !model.missing
  const ways = model.branches && known ? branchFlows(model, through) : null
  const gain = drawn.gainPa === null ? null : drawn.gainPa / drawn.places
  const areaM2 = freeAreaOf(e)
  return {
    id: e.id,
    kind: e.kind,
    name: isFan && drawn.fanName ? drawn.fanName : e.name,
    areaM2,
    height: heightOf(e, drawn.largest),
    deltaPa: isFan ? gain : known ? -elementDrop(model, through) : null,
    gaugePa: null,
    ...airOf(drawn, warm),
    speedMs: known && areaM2 ? through / areaM2 : null,
    missing: !isFan && model.missing !== null,
    fans: isFan ? fanSegmentOf(drawn) : null,
    branches: (model.branches ?? []).map((b, k) => ({
      id: b.branch.id,
      name: b.branch.name,
      leak: b.branch.leak,
      flow: ways?.[k] ?? null,
      segments: b.elements.map((x) => elementSegment(drawn, x, ways?.[k] ?? null, warm)),
    })),
  }
}

/** Running pressure behind each segment against the room; unknown from the first unknown change on. */
function gauged(segments: readonly RibbonSegment[]): RibbonSegment[] {
  let gauge: number | null = 0
  return segments.map((s) => {
    const unknown = gauge === null || (s.deltaPa === null && s.kind !== 'chamber')
    gauge = unknown ? null : gauge! + (s.deltaPa ?? 0)
    return { ...s, gaugePa: gauge }
  })
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
  const rise = airRise(job, air, usefulFlow) ?? 0
  const areas = path.elements.map((e) => freeAreaOf(e.element)).filter((a) => a !== null)
  const drawn: Drawn = {
    plan,
    rise,
    tint: Math.min(1, rise / FULL_TINT_K),
    largest: Math.max(...areas, 1e-4),
    places: Math.max(1, path.main.filter((e) => e.element.kind === 'fan').length),
    gainPa: candidate?.pressure ?? null,
    fanName,
  }
  const heatAt = heatIndex(plan, path.main)
  const flow = path.complete ? atFlow : null
  return [
    roomSegment(drawn, 'room-in', job.breathesIn || 'Air it draws in', false),
    ...gauged(path.main.map((model, i) => elementSegment(drawn, model, flow, i >= heatAt && rise > 0))),
    roomSegment(drawn, 'room-out', job.breathesOut || 'Where it leaves', path.main.length > heatAt),
  ]
}
