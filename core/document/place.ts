import { z } from 'zod'
import { idSchema, line, listOf, maybe, whole, within, yesNo } from './fields'
import { fitSchema } from './fit'
import type { PathElement } from './path'

/** The places of an air stream's fans: which fans stand there, which way they blow, what is around them and holds them. */

/** Fans that one air stream may have. */
export const MOST_FANS = 16
/** Places that a stream may have, those put aside counted; and those that the air may come through. */
export const MOST_PLACES = 8
export const MOST_PASSED = 2

const size = maybe(within(0.001, 20))
const direction = maybe(z.enum(['in', 'out']))

/** Where the air goes there, and what stands around the fans. */
const roundShape = {
  /** planned direction of the air through their opening, and as they are mounted */
  direction,
  mountedDirection: direction,
  fitDepthM: size,
  fitWidthM: size,
  inletClearM: maybe(within(0, 20)),
  outletClearM: maybe(within(0, 20)),
  /** impeller to the next grille, strut or guard on its intake side */
  upstreamGapM: maybe(within(0, 1)),
}

/** How they are held. */
const heldShape = {
  /** how the shaft will lie */
  shaft: maybe(z.enum(['horizontal', 'vertical'])),
  /** guards, gasket, filter frame and screw heads together */
  stackExtraM: maybe(within(0, 1)),
  /** screw pattern that is there already, centre to centre */
  existingHolesM: maybe(within(0.01, 0.5)),
  /** hole that is there or will be cut, and the screw holes */
  holeM: maybe(within(0.005, 0.6)),
  screwHoleM: maybe(within(0.0005, 0.03)),
  /** 'screws' pass both flanges */
  mountKind: maybe(
    z.enum([
      'screws',
      'near-flange',
      'self-tapping',
      'inserts',
      'push-pins',
      'clips',
      'strips',
      'adhesive',
      'magnets',
      'bracket',
      'rubber',
      'ties',
    ]),
  ),
  mountCapacityKg: maybe(within(0.001, 100)),
  mountIsolated: yesNo,
  thinPanel: yesNo,
  panelHz: maybe(within(1, 20000)),
  fit: maybe(fitSchema),
}

/** So many fans of one kind. */
const fansSchema = z.object({ fanId: idSchema, count: whole(1, MOST_FANS).default(1) })

export const placeSchema = z.object({
  id: idSchema,
  /** what it is called as long as the path does not show it; then its element's name is its name */
  name: line,
  /** the element of the path where its fans stand; null: the path does not show it yet */
  elementId: maybe(idSchema),
  /** planned, but left out: the air passes it as if nothing stood there */
  aside: z.boolean().default(false),
  /** what stands there: nothing, fans of one kind, or an unlike pair */
  fans: z
    .array(fansSchema)
    .max(2, 'At most two kinds of fan at one place.')
    .refine((fans) => new Set(fans.map((f) => f.fanId)).size === fans.length, 'A fan is named twice there.')
    .default([]),
  /** side by side, or one behind the other */
  arrangement: z.enum(['parallel', 'series']).default('parallel'),
  ...roundShape,
  ...heldShape,
})
export interface Place extends z.infer<typeof placeSchema> {}
/** Fields of a place that say what is around its fans and what holds them. */
export const placeKeys = [...Object.keys(roundShape), ...Object.keys(heldShape)] as (
  keyof typeof roundShape | keyof typeof heldShape
)[]

export const placeList = listOf(placeSchema, MOST_PLACES, 'Two places of fans share an id.')
  .min(1, 'An air stream has at least one place for fans.')
  .refine((places) => {
    const at = places.flatMap(({ elementId }) => (elementId === null ? [] : [elementId]))
    return new Set(at).size === at.length
  }, 'Two places of fans stand at one element of the path.')

/** A place of which nothing is known. */
export const newPlace = (id: string, elementId: string | null = null): Place =>
  placeSchema.parse({ id, elementId })

/** The air that is blown in at one place is drawn out at the other. */
const through = { in: 'out', out: 'in' } as const
/**
 * A further place along the same air: beyond what is cooled or filled it passes on what the other one lets in; in the same
 * duct it blows the same way.
 */
export const placeBehind = (id: string, elementId: string | null, other: Place, beyond = true): Place => ({
  ...newPlace(id, elementId),
  direction: other.direction && (beyond ? through[other.direction] : other.direction),
})
/** Whether the air passes a chamber between two elements of the path. */
function isBeyond(path: readonly PathElement[], a: string | null, b: string): boolean {
  const [from, to] = [a, b].map((id) => path.findIndex((e) => e.id === id)).toSorted((x, y) => x - y)
  return from! < 0 || path.slice(from, to).some((e) => e.kind === 'chamber')
}

interface Placed {
  places: Place[]
  path: PathElement[]
}

/** A fan of the path, and the place that it is; null where none is told of. */
interface Drawn {
  element: PathElement
  place: Place | null
}
/**
 * The fans that a path shows, in its order, each with its place: the one that names it, else the next one that stands
 * nowhere yet.
 */
export function drawnPlaces({ places, path }: Placed): Drawn[] {
  const drawn = path.filter((e) => e.kind === 'fan')
  const named = new Map(places.map((p) => [p.elementId, p]))
  const free = places.filter((p) => !p.aside && !drawn.some((e) => e.id === p.elementId))
  return drawn.map((element) => ({ element, place: named.get(element.id) ?? free.shift() ?? null }))
}

/** What a place is called where a stream has several. */
export function placeName(plan: Placed, place: Place): string {
  const drawn = drawnPlaces(plan).find((d) => d.place === place)?.element.name
  return drawn || place.name || `Place ${plan.places.indexOf(place) + 1}`
}

/** Calls a place something: its element of the path where there is one. Changes the plan. */
export function namePlace(plan: Placed, place: Place, name: string): void {
  const drawn = drawnPlaces(plan).find((d) => d.place === place)
  if (drawn) drawn.element.name = name
  else place.name = name
}

/** Places that are not put aside, in the order of the path as far as it shows them. */
export function placesInUse(plan: Placed): Place[] {
  const drawn = drawnPlaces(plan).flatMap(({ place }) => place ?? [])
  return [...drawn, ...plan.places.filter((p) => !drawn.includes(p))].filter((p) => !p.aside)
}

/** How fans stand to each other: alone, beside or behind one another, or at two places of the path (pressures add). */
export type Arrangement = 'single' | 'parallel' | 'series' | 'places'
/** So many fans of one kind at a place. */
export interface FansAt {
  placeId: string
  fanId: string
  count: number
}
/** The fans that work together in a stream. */
export interface FanSelection {
  groups: FansAt[]
  /** of all groups */
  count: number
  arrangement: Arrangement
}

/** The fans that are planned in a stream, those at places put aside left out; null without any. */
export function plannedFans(plan: Placed): FanSelection | null {
  const filled = placesInUse(plan).filter((p) => p.fans.length > 0)
  const groups = filled.flatMap(({ id, fans }) => fans.map((f): FansAt => ({ placeId: id, ...f })))
  const count = groups.reduce((sum, g) => sum + g.count, 0)
  if (!count) return null
  const arrangement = count === 1 ? 'single' : filled.length > 1 ? 'places' : filled[0]!.arrangement
  return { groups, count, arrangement }
}

/**
 * Lets fans stand where they are chosen to; other places of the stream keep theirs only where `FanSelection` names them.
 * Changes the plan.
 */
export function putFans(plan: Placed, { groups, arrangement }: Omit<FanSelection, 'count'>): void {
  for (const place of placesInUse(plan)) {
    place.fans = groups.filter((g) => g.placeId === place.id).map(({ fanId, count }) => ({ fanId, count }))
    place.arrangement = place.fans.length && arrangement === 'series' ? 'series' : 'parallel'
  }
}

/** Which way fans blow through the wall of what they cool; null: not told. */
export type Blows = Place['direction']
/** Which way each of the places that have fans lets the air go; before any are chosen, each that could have some. */
export function directionsOf(plan: Placed): Blows[] {
  const used = placesInUse(plan)
  const filled = used.filter((p) => p.fans.length > 0)
  return (filled.length ? filled : used).map((p) => p.direction)
}
/**
 * Which way the fans of a stream blow as its heat sees them: that of the fans which the air meets first. Drawing out they
 * have the warm air, and so have all behind them; null: not told.
 */
export const blowsOf = (plan: Placed): Blows => directionsOf(plan)[0] ?? null

/** What is wrong with the places of a stream's fans; null where nothing is. */
export function placesProblem(plan: Placed): string | null {
  const drawn = drawnPlaces(plan)
  if (plan.places.some(({ elementId }) => elementId !== null && !drawn.some((d) => d.element.id === elementId)))
    return 'A place of fans stands at no fan of the path.'
  const used = placesInUse(plan)
  if (Math.max(used.length, drawn.filter((d) => !d.place?.aside).length) > MOST_PASSED)
    return `Fans have at most ${MOST_PASSED} places in one air stream: put the others aside.`
  const filled = used.filter((p) => p.fans.length > 0)
  if (filled.length > 1 && filled.some((p) => p.fans.length > 1 || p.arrangement === 'series'))
    return 'Where fans stand at two places, those of each are of one kind, side by side.'
  const count = filled.flatMap((p) => p.fans).reduce((sum, f) => sum + f.count, 0)
  return count > MOST_FANS ? `At most ${MOST_FANS} fans in one air stream.` : null
}

/**
 * Holds the places against the path: a fan that was drawn takes the place that stands nowhere yet, or gets one of its own;
 * a place whose fan was taken out of the path stands nowhere, and goes where nothing was told of it and another is there.
 * Changes the plan.
 */
export function settlePlaces(plan: Placed): void {
  const drawn = drawnPlaces(plan)
  for (const place of plan.places)
    if (!drawn.some(({ element }) => element.id === place.elementId)) place.elementId = null
  for (const { element, place } of drawn)
    if (place) place.elementId = element.id
    else if (plan.places.length < MOST_PLACES) plan.places.push(further(plan, element.id))
  const isBare = (p: Place) =>
    p.elementId === null &&
    !p.fans.length &&
    !p.name &&
    placeKeys.every((key) => key === 'direction' || p[key] === null)
  const told = plan.places.filter((p) => !isBare(p))
  plan.places = told.length ? told : plan.places.slice(0, 1)
}
/**
 * Tells of a place what is told of another: what is around its fans and what holds them; which way they blow, and which
 * they are, stays. Changes the place.
 */
export function copyPlace(from: Place, to: Place): void {
  const { direction, mountedDirection, ...told } = structuredClone(
    Object.fromEntries(placeKeys.map((key) => [key, from[key]])),
  )
  Object.assign(to, told, to.fit && told.fit ? { fit: { ...(told.fit as object), id: to.fit.id } } : {})
}

/** The place of a fan that was drawn beside others. */
function further({ places, path }: Placed, elementId: string): Place {
  const [other] = places as [Place]
  const beyond = isBeyond(path, other.elementId, elementId)
  return placeBehind(freeId({ places }, `place-${elementId}`), elementId, other, beyond)
}
/** An id that no place of the stream has. */
function freeId({ places }: Pick<Placed, 'places'>, wanted: string): string {
  const id = wanted.slice(0, 60)
  for (let n = 1; ; n++) {
    const free = n === 1 ? id : `${id}-${n}`
    if (!places.some((p) => p.id === free)) return free
  }
}
