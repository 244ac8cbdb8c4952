import { temperatureRise } from '#core/need'
import type { ElementKind, PlanDocument } from '#core/document'
import type { ElementModel, PathModel } from '#core/system'
import { freeAreaOf, branchFlows, elementDrop } from '#core/system'

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
  path: PathModel
  flow: number | null
  usefulFlow: number | null
  gainPa: number | null
  fanName: string
  density: number
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

/**
 * The ribbon of a plan: heights follow free area (root, so that small openings stay visible), tints the air's temperature,
 * the running pressure tells where the path is under and where over the room's.
 */
export function ribbonOf({
  plan,
  path,
  flow,
  usefulFlow,
  gainPa,
  fanName,
  density,
}: RibbonInput): RibbonSegment[] {
  const { job } = plan
  const rise = usefulFlow && job.heatW !== null ? (temperatureRise(job.heatW, usefulFlow, density) ?? 0) : 0
  const heatAt = heatIndex(plan, path.main)
  const areas = path.elements.map((e) => freeAreaOf(e.element)).filter((a): a is number => a !== null && a > 0)
  const places = Math.max(1, path.main.filter((e) => e.element.kind === 'fan').length)
  const largest = Math.max(...areas, 1e-4)
  const warmTint = Math.min(1, rise / FULL_TINT_K)
  const height = (area: number | null) =>
    area === null ? 0.6 : Math.max(MIN_HEIGHT, Math.min(1, Math.sqrt(area / largest)))
  const room = (id: 'room-in' | 'room-out', name: string, warm: boolean): RibbonSegment => ({
    id,
    kind: id,
    name,
    areaM2: null,
    height: 1,
    deltaPa: null,
    gaugePa: null,
    temperatureC: job.ambientC + (warm ? rise : 0),
    tint: warm ? warmTint : 0,
    missing: false,
    fans: null,
    branches: [],
  })
  const segment = (model: ElementModel, through: number | null, warm: boolean): RibbonSegment => {
    const e = model.element
    const isFan = e.kind === 'fan'
    const ways = model.branches && through !== null && !model.missing ? branchFlows(model, through) : null
    return {
      id: e.id,
      kind: e.kind,
      name: isFan && fanName ? fanName : e.name,
      areaM2: freeAreaOf(e),
      height: isFan ? 0.7 : e.kind === 'split' ? 1 : height(freeAreaOf(e)),
      deltaPa: isFan
        ? gainPa === null
          ? null
          : gainPa / places
        : through === null || model.missing
          ? null
          : -elementDrop(model, through),
      gaugePa: null,
      temperatureC: job.ambientC + (warm ? rise : 0),
      tint: warm ? warmTint : 0,
      missing: !isFan && model.missing !== null,
      fans: isFan
        ? {
            count: Math.max(1, Math.round((plan.selection?.count ?? 1) / places)),
            series: plan.selection?.arrangement === 'series',
          }
        : null,
      branches: (model.branches ?? []).map((b, k) => ({
        id: b.branch.id,
        name: b.branch.name,
        leak: b.branch.leak,
        flow: ways?.[k] ?? null,
        segments: b.elements.map((x) => segment(x, ways?.[k] ?? null, warm)),
      })),
    }
  }
  let gauge: number | null = 0
  const middle = path.main.map((model, i) => {
    const made = segment(model, flow, i >= heatAt && rise > 0)
    gauge =
      gauge === null || (made.deltaPa === null && made.kind !== 'chamber') ? null : gauge + (made.deltaPa ?? 0)
    return { ...made, gaugePa: gauge }
  })
  return [
    room('room-in', job.breathesIn || 'Air it draws in', false),
    ...middle,
    room('room-out', job.breathesOut || 'Where it leaves', path.main.length > heatAt),
  ]
}

/** Pressure of the first chamber against the room, Pa; null where none is known. */
export const chamberPressure = (ribbon: readonly RibbonSegment[]) =>
  ribbon.find((s) => s.kind === 'chamber')?.gaugePa ?? null
