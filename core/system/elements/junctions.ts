import { kContraction, kExpansion, type GrillePlace } from '#core/airpath'
import type { PathElement } from '#core/document'
import type { Spot } from './model'

/**
 * What happens where one element passes the air on to the next. Every entrance and every exit is paid once, by the
 * bore on which it is stated; a plate (grille, hole, fins) brings its own.
 */

/**
 * Area of a bore, m2.
 * @param diameter m, above 0
 */
export const circle = (diameter: number) => (Math.PI / 4) * diameter ** 2

/** A room inside the path: air comes to rest there. */
export const isRoom = (e: PathElement | undefined) => e?.kind === 'chamber' || e?.kind === 'split'

/** Filters and own values neither end nor mend a jet: what stands before them meets what stands behind them. */
const isLookedThrough = (e: PathElement | undefined) => e?.kind === 'filter' || e?.kind === 'custom'

/** Where the neighbour stands that shapes the flow. */
function neighbourIndex({ row, index }: Spot, step: 1 | -1): number {
  let i = index + step
  while (isLookedThrough(row[i])) i += step
  return i
}
/** The neighbour that shapes the flow; undefined at an end of the row. */
const neighbour = (spot: Spot, step: 1 | -1): PathElement | undefined => spot.row[neighbourIndex(spot, step)]

/** Cross-section of a duct-like element, m2. */
export function boreArea(e: PathElement): number | null {
  if (e.widthM && e.heightM) return e.widthM * e.heightM
  return e.diameterM ? circle(e.diameterM) : null
}

const isBore = (e: PathElement) =>
  ['duct', 'bend', 'reducer', 'wye', 'damper', 'flap', 'hood', 'outlet', 'adapter'].includes(e.kind)
/** Bore that an element takes the air in by, m2; null where it has none or lacks its size. */
const boreIn = (e: PathElement): number | null => (isBore(e) ? boreArea(e) : null)
/** Bore that it passes the air on by, m2. */
const boreOut = (e: PathElement): number | null =>
  e.kind === 'reducer' || e.kind === 'adapter' ? e.diameter2M && circle(e.diameter2M) : boreIn(e)

/**
 * Face of a plate that the air meets, m2; null for what is none. One inside a duct is taken as wide as the duct: what it
 * loses is all in its own coefficient.
 */
function plateArea(spot: Spot, step: 1 | -1): number | null {
  const index = neighbourIndex(spot, step)
  const e = spot.row[index]!
  if (e.kind === 'grille') return placeOf({ ...spot, index }) === 'in-duct' ? null : e.areaM2
  if (e.kind === 'opening') return e.areaM2
  if (e.kind === 'slot') return e.widthM && e.gapM ? e.widthM * e.gapM : null
  if (e.kind !== 'fins' || !e.gapM || !e.heightM || !e.count) return null
  return e.heightM * (e.count * e.gapM + (e.count + 1) * (e.finM ?? 0))
}

/** Entrance loss of a duct that begins flush in a wall, on the duct's velocity. Published. */
const K_ENTRANCE = 0.5

/**
 * Loss coefficient of the way into a bore, on its velocity: from a room, out of a wider bore, or behind a larger plate
 * (which mends nothing: its velocity counts as none of the bore's).
 * @param area of the bore, m2, above 0
 * Reference: entrance 0.5 and narrowing, hydraulics handbooks (from memory)
 */
export function entranceLoss(spot: Spot, area: number): number {
  const before = neighbour(spot, -1)
  if (!before || isRoom(before)) return K_ENTRANCE
  const wide = boreOut(before)
  if (wide) return wide > area ? kContraction(wide, area) : 0
  const plate = plateArea(spot, -1)
  return plate && plate > area ? K_ENTRANCE * (1 - (area / plate) ** 2) : 0
}

/**
 * Loss coefficient of the way out of a bore, on its velocity: a free exit into a room (also one before a filter), the
 * widening into a larger bore, the velocity that a larger plate does not give back. An outlet, a flap and the fan bring
 * their own.
 * @param area of the bore, m2, above 0
 * @param free loss coefficient of a free exit: 1, in laminar flow 2
 * Reference: Borda-Carnot
 */
export function exitLoss(spot: Spot, area: number, free = 1): number {
  const after = neighbour(spot, 1)
  if (!after || isRoom(after)) return free
  const wide = boreIn(after)
  if (wide) return wide > area ? kExpansion(area, wide) : 0
  const plate = plateArea(spot, 1)
  return plate && plate > area ? free * (1 - (area / plate) ** 2) : 0
}

/** How a plate stands: takes the air in from a room, passes it on inside a duct, or lets it out into a room. */
export function placeOf(spot: Spot): GrillePlace {
  const before = neighbour(spot, -1)
  const after = neighbour(spot, 1)
  const toOpen = !after || isRoom(after)
  if ((!before || isRoom(before)) && !toOpen) return 'intake'
  return toOpen ? 'exhaust' : 'in-duct'
}

/** Fittings that disturb each other where no straight piece calms the air between them. */
const isFitting = (e: PathElement | undefined) =>
  e !== undefined && ['bend', 'reducer', 'wye', 'damper', 'flap', 'fan'].includes(e.kind)
/** Straight length that calms the air, bores. Common practice, no source. */
const CALM_BORES = 5
/** Doubt of two fittings nearer than that, share. Common practice, no source (±30 %). */
export const CROWDED_DOUBT = 0.3

/** Whether a fitting stands nearer than five bores to another one (or to the fan). */
export function isCrowded({ row, index }: Spot): boolean {
  const reaches = (step: 1 | -1) => {
    const next = row[index + step]
    if (next?.kind !== 'duct') return isFitting(next)
    const bore = next.diameterM ?? (next.widthM && next.heightM ? Math.min(next.widthM, next.heightM) : null)
    return bore !== null && (next.lengthM ?? Infinity) < CALM_BORES * bore && isFitting(row[index + 2 * step])
  }
  return isFitting(row[index]) && (reaches(-1) || reaches(1))
}
