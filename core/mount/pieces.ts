import { REFERENCE_DENSITY } from '#core/air'
import { bFromK, kReducer } from '#core/airpath'
import { boreOf, smallHoleK } from '#core/fit'
import { drawnPlaces, newElement, type Blows, type Fit, type PathElement, type PlacePlan } from '#core/document'
import { freeAreaRatioOf, impellerDiameter } from '#core/system'
import { guardPattern } from './guard'
import type { MountReport } from './mount'

/**
 * What of a place the air passes, as elements of the air path: one chain. The gap is the free ring round each fan, π·D·x,
 * which the air passes as it passes a sharp opening of that area: on an easy path, at a half, a quarter and a tenth of the
 * diameter, that takes 7, 21 and 52 % of the air, where common practice says 2 to 5, 10 to 20 and 30 to 50 %
 * (docs/physics.md, fit): a little on the safe side.
 */
export const pieceKeys = ['gap', 'hole', 'guard', 'filter', 'adapter'] as const
export type PieceKey = (typeof pieceKeys)[number]
export interface Piece {
  key: PieceKey
  name: string
  /** before or behind the fans, as the air goes */
  side: 'before' | 'behind'
  element: PathElement
  /** what stands for it in the path: its own, or one like it beside the fans; null where nothing does */
  found: PathElement | null
  /** what is found is the place's own */
  own: boolean
  /** what is found has other values */
  off: boolean
  /** of a gap before the intake: what is free there, m, by which the noise goes; null of others */
  clearM: number | null
}

/** Id of a piece's element: there is one of each at most, at each place. */
const idOf = ({ place }: PlacePlan, key: PieceKey) => `fit-${key}-${place.id}`.slice(0, 64)
const isOwn = (plan: PlacePlan, e: PathElement) => pieceKeys.some((key) => e.id === idOf(plan, key))
/** Where the fans of the place stand in the path; -1: it does not show them. */
const fansAt = (plan: PlacePlan): number =>
  plan.path.findIndex((e) => drawnPlaces(plan).some((d) => d.element === e && d.place === plan.place))
/** Values that differ less are the same, share. */
const SAME = 0.01
/** The pieces inside and outside, the nearest to the fans first; the filter stands on the intake side. */
const inOrder = (direction: Blows): PieceKey[][] =>
  direction === 'in'
    ? [['gap'], ['hole', 'guard', 'filter', 'adapter']]
    : [
        ['filter', 'gap'],
        ['hole', 'guard', 'adapter'],
      ]
/** Kinds that a person draws for the same piece. A gap is drawn by nobody. */
const alikeKinds: Record<PieceKey, PathElement['kind'][]> = {
  gap: [],
  hole: ['opening'],
  guard: ['grille'],
  filter: ['filter'],
  adapter: ['reducer', 'adapter'],
}

type Values = Partial<PathElement> & Pick<PathElement, 'kind' | 'name'>

/**
 * Free rings of all fans of one opening together, m2; null where nothing is left, or not told how much.
 * Reference: ring of the height x round a disc (FI16)
 */
function gapArea({ fan, inOpening, leftM, gapSide }: MountReport): number | null {
  if (leftM === null || leftM <= 0 || gapSide === null) return null
  return inOpening * Math.PI * impellerDiameter(fan) * leftM
}
function gapValues(mount: MountReport): Values | null {
  // a gap that costs less than a hundredth of the air is none to be counted
  if (mount.cost && mount.cost.flowHigh < LITTLE) return null
  const areaM2 = gapArea(mount)
  const name = mount.gapSide === 'intake' ? 'Gap before the fan' : 'Gap behind the fan'
  // how air turns in a gap is known to half as much again at best
  return areaM2 === null ? null : { kind: 'opening', name, areaM2, basis: 'rough-guess' }
}
const drawnArea = ({ opening, holeM, inOpening }: MountReport) =>
  inOpening * (opening ? opening.areaM2 : circle(holeM!))
const LITTLE = 0.01
const circle = (diameterM: number) => (Math.PI / 4) * diameterM ** 2

/** The hole where it takes air: narrower than wanted, or an opening of another shape that is less than the blades sweep. */
function holeValues({ opening, holeM, wantedM, inOpening }: MountReport, fit: Fit): Values | null {
  const name = fit.opening ? 'Opening in the panel' : 'Hole in the panel'
  if (opening && opening.shape !== 'round' && opening.shape !== 'tapered')
    return opening.withinM2 < opening.ringM2
      ? { kind: 'opening', name, areaM2: inOpening * opening.withinM2, basis: 'good-guess' }
      : null
  // down to 95 % of its diameter a hole costs nothing that counts (handbook fit 2)
  if (holeM === null || holeM >= COUNTS_BELOW * wantedM) return null
  const k = smallHoleK(holeM / wantedM)
  if (k === null) return { kind: 'opening', name, areaM2: inOpening * circle(holeM), basis: 'good-guess' }
  const b = bFromK(k, inOpening * circle(wantedM), REFERENCE_DENSITY)
  return { kind: 'custom', name, b, a: 0, basis: 'good-guess' }
}
/** Share of the wanted diameter below which a hole's loss counts. */
const COUNTS_BELOW = 0.95

function guardValues({ guarded, guardShare, holeM, wantedM, inOpening }: MountReport, fit: Fit): Values | null {
  if (!guarded || guardShare === null) return null
  return {
    kind: 'grille',
    name: 'Guard',
    areaM2: inOpening * circle(holeM ?? wantedM),
    freeAreaRatio: null,
    pattern: guardPattern(fit),
    holeM: fit.guardOpeningM,
    pitchM: fit.guardOpeningM! + fit.guardBarM!,
    basis: 'good-guess',
  }
}
function filterValues({ filter }: MountReport, fit: Fit): Values | null {
  if (!filter || filter.areaM2 === null || fit.filterMedium === null) return null
  return {
    kind: 'filter',
    name: 'Filter',
    areaM2: filter.areaM2,
    medium: fit.filterMedium,
    basis: 'good-guess',
  }
}
/** An adapter of one fan: both ends as round bores of their area. */
function adapterValues({ adapter, inOpening }: MountReport, behind: boolean): Values | null {
  if (!adapter || inOpening !== 1) return null
  const [near, far] = [boreOf(adapter.fanEnd), boreOf(adapter.farEnd)]
  // ends alike lose nothing that could be counted
  if (kReducer(circle(near), circle(far), 180) < SAME ** 2) return null
  return {
    kind: 'reducer',
    name: 'Adapter',
    diameterM: behind ? near : far,
    diameter2M: behind ? far : near,
    angleDeg: Math.min(180, 2 * adapter.steepDeg),
    basis: 'good-guess',
  }
}

/** What is beside the fans in their row, the nearest first, as far as the air meets nothing but pieces of the place. */
function besideFans(plan: PlacePlan, side: Piece['side']): PathElement[] {
  const place = plan.path[fansAt(plan)]
  if (!place) return []
  const row = plan.path.filter((e) => e.branchId === place.branchId)
  const fans = row.indexOf(place)
  return side === 'before' ? row.slice(0, fans).toReversed() : row.slice(fans + 1)
}
function foundOf(plan: PlacePlan, key: PieceKey, side: Piece['side']): PathElement | null {
  const own = plan.path.find((e) => e.id === idOf(plan, key))
  if (own) return own
  const next = besideFans(plan, side).find((e) => !isOwn(plan, e))
  return next && alikeKinds[key].includes(next.kind) ? next : null
}

const numbersOf = ['areaM2', 'diameterM', 'diameter2M', 'angleDeg', 'b'] as const
const unlike = (has: number | null, wanted: number | null | undefined) =>
  typeof wanted === 'number' && (has === null || Math.abs(has - wanted) > SAME * Math.abs(wanted))
/** Whether an element has other values than the piece. */
function differs(found: PathElement, values: PathElement): boolean {
  if (numbersOf.some((key) => unlike(found[key], values[key]))) return true
  if (values.kind === 'grille') return unlike(freeAreaRatioOf(found), freeAreaRatioOf(values))
  return values.medium !== null && values.medium !== found.medium
}

/** Every piece of a place that can be counted, and those that are counted although the place no longer has them. */
export function piecesOf(plan: PlacePlan, mount: MountReport): Piece[] {
  const { fit, direction, inletClearM } = plan.place
  const outside = direction === 'in' ? 'before' : 'behind'
  const inside = outside === 'before' ? 'behind' : 'before'
  const fans = plan.path[fansAt(plan)]
  if (!fans || direction === null) return []
  const made: [PieceKey, Piece['side'], Values | null][] = [
    ['gap', inside, gapValues(mount)],
    ['hole', outside, fit && holeValues(mount, fit)],
    ['guard', outside, fit && guardValues(mount, fit)],
    ['filter', 'before', fit && filterValues(mount, fit)],
    ['adapter', outside, fit && adapterValues(mount, outside === 'behind')],
  ]
  return made.flatMap(([key, side, values]) => {
    if (!values) return []
    const found = foundOf(plan, key, side)
    const own = found?.id === idOf(plan, key)
    const clearM = key === 'gap' && mount.gapSide === 'intake' ? mount.leftM : null
    // a hole that somebody drew is an opening, and loses what openings lose
    const drawn = key === 'hole' && found && !own
    const element: PathElement = {
      ...newElement(idOf(plan, key), drawn ? found.kind : values.kind, fans.branchId),
      ...(drawn ? { areaM2: drawnArea(mount) } : values),
      name: values.name,
    }
    return [
      {
        key,
        name: values.name,
        side,
        element,
        found,
        own,
        off: found !== null && (differs(found, element) || unlike(inletClearM, clearM)),
        clearM,
      },
    ]
  })
}

/** What a path counts of a place that no longer has it. */
export function staleOf(plan: PlacePlan, pieces: readonly Piece[]): PathElement[] {
  return plan.path.filter((e) => isOwn(plan, e) && !pieces.some((p) => p.found?.id === e.id))
}

/** Puts a piece beside the fans, or gives what stands for it the values that it has. Changes the plan. */
export function countPiece(plan: PlacePlan, { key, side, element, found, clearM }: Piece): void {
  // one chain: what a wall before the intake adds to the noise goes by the same gap
  if (clearM !== null) plan.place.inletClearM = clearM
  const stands = plan.path.find((e) => e.id === found?.id)
  if (stands) {
    const { id, name, branchId, ...values } = element
    Object.assign(stands, values)
    return
  }
  const at = fansAt(plan)
  if (at < 0) return
  const step = side === 'before' ? -1 : 1
  const group = inOrder(plan.place.direction).find((keys) => keys.includes(key))!
  const nearer = new Set(group.slice(0, group.indexOf(key)).flatMap((k) => foundOf(plan, k, side)?.id ?? []))
  let to = at + step
  while (nearer.has(plan.path[to]?.id ?? '')) to += step
  plan.path.splice(side === 'before' ? to + 1 : to, 0, element)
}
/** Takes what is no longer there out of the path. Changes the plan. */
export function dropStale(plan: PlacePlan, stale: readonly PathElement[]): void {
  plan.path = plan.path.filter((e) => !stale.some((s) => s.id === e.id))
}
