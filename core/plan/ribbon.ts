import { temperatureRise } from '../need'
import type { ElementKind, PathElement, PlanDocument } from './document'
import { elementDrop, type PathModel } from './path'

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
  temperatureC: number | null
  /** 0 cool .. 1 warm */
  tint: number
  missing: boolean
  /** fans side by side (parallel) or one behind the other (series) */
  fans: { count: number, series: boolean } | null
}

/** Rise that paints the ribbon fully warm, K. */
const FULL_TINT_K = 15
const LEAST_HEIGHT = 0.22

function areaOf(e: PathElement): number | null {
  if (e.kind === 'grille') return e.areaM2 !== null && e.freeAreaRatio !== null ? e.areaM2 * e.freeAreaRatio : e.areaM2
  return e.areaM2 ?? (e.diameterM === null ? null : Math.PI / 4 * e.diameterM ** 2)
}

/**
 * The ribbon of a plan: heights follow free area (root, so that small openings stay visible), tints the air's temperature.
 * The job's heat enters at the first chamber, or at the middle of the path when there is none.
 */
export function ribbonOf(plan: PlanDocument, path: PathModel, flow: number | null, gainPa: number | null, fanName: string, density: number): RibbonSegment[] {
  const { job } = plan
  const rise = flow && job.heatW !== null ? temperatureRise(job.heatW, flow, density) : 0
  const chamberAt = plan.path.findIndex(e => e.kind === 'chamber')
  const heatAt = chamberAt >= 0 ? chamberAt : Math.floor(plan.path.length / 2)
  const areas = plan.path.map(areaOf).filter((a): a is number => a !== null && a > 0)
  const largest = Math.max(...areas, 1e-4)
  const tint = Math.min(1, (rise ?? 0) / FULL_TINT_K)
  const height = (area: number | null) => area === null ? 0.6 : Math.max(LEAST_HEIGHT, Math.min(1, Math.sqrt(area / largest)))
  const room = (id: 'room-in' | 'room-out', name: string, warm: boolean): RibbonSegment => ({
    id, kind: id, name, areaM2: null, height: 1, deltaPa: null, temperatureC: job.ambientC + (warm ? rise ?? 0 : 0), tint: warm ? tint : 0, missing: false, fans: null,
  })
  const middle = path.elements.map((model, i): RibbonSegment => {
    const e = model.element
    const warm = i >= heatAt && (rise ?? 0) > 0
    const isFan = e.kind === 'fan'
    return {
      id: e.id, kind: e.kind, name: isFan && fanName ? fanName : e.name, areaM2: areaOf(e), height: isFan ? 0.7 : height(areaOf(e)),
      deltaPa: isFan ? gainPa : flow === null || model.missing ? null : -elementDrop(model, flow),
      temperatureC: job.ambientC + (warm ? rise ?? 0 : 0), tint: warm ? tint : 0, missing: !isFan && model.missing !== null,
      fans: isFan ? { count: plan.pick?.count ?? 1, series: plan.pick?.arrangement === 'series' } : null,
    }
  })
  return [room('room-in', job.breathesIn || 'Air it draws in', false), ...middle, room('room-out', job.breathesOut || 'Where it leaves', plan.path.length > heatAt)]
}
