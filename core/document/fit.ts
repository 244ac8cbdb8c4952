import { z } from 'zod'
import { area, defaultsOf, idSchema, inOneColumn, maybe, shortText, whole, within, yesNo } from './fields'

/** Where the fans of an air stream are cut in and held: panel, guard, screws. SI units. */

const thin = maybe(within(0, 0.1))
const threads = z.union([z.literal(2.5), z.literal(3), z.literal(4), z.literal(5)], {
  error: 'One of M2.5, M3, M4 and M5.',
})

const along = within(0, 3)
/** Something on the panel that is not to be cut: a beam, a wire, a frame. From the panel's lower left corner. */
export const keepClearSchema = z.object({
  id: idSchema,
  name: shortText.min(1, 'Name it.'),
  leftM: along,
  bottomM: along,
  widthM: within(0.001, 3),
  heightM: within(0.001, 3),
})
export interface KeepClear extends z.infer<typeof keepClearSchema> {}

/** Something in the way of the fans, fixed or moving: a shelf, a carriage, a door's handle. */
export const thingSchema = z.object({
  id: idSchema,
  name: shortText.min(1, 'Name it.'),
  side: z.enum(['inside', 'outside']).default('inside'),
  /** from the panel's face on that side, where it rests */
  fromPanelM: maybe(within(0, 5)),
  moving: z.boolean().default(false),
  /** how far it comes nearer; null: not told */
  travelM: maybe(within(0, 5)),
})
export interface Thing extends z.infer<typeof thingSchema> {}
export const newThing = (id: string, name: string): Thing => ({ ...defaultsOf(thingSchema), id, name })

/** A point on the panel, from its lower left corner. */
const spotSchema = z.object({ xM: along, yM: along })
/** A lug of a blower, from the lower left corner of its housing with the outlet at the top. */
const lugSchema = z.object({ xM: within(-0.1, 0.5), yM: within(-0.1, 0.5) })
const MOST_PLACED = 40

/** Panel, opening and how several fans stand in it. */
const panelShape = {
  /** what it is cut into */
  material: maybe(z.enum(['wood', 'plastic', 'metal', 'acrylic', 'card'])),
  panelM: maybe(within(0.0002, 0.2)),
  panelWidthM: maybe(within(0.01, 3)),
  panelHeightM: maybe(within(0.01, 3)),
  /** an opening that is there already; a round one is as wide as the hole */
  opening: maybe(z.enum(['round', 'square', 'oval', 'tapered'])),
  /** of a square or oval one; the outer diameter of a tapered one */
  openingWidthM: maybe(within(0.005, 3)),
  openingHeightM: maybe(within(0.005, 3)),
  sitsIn: maybe(z.enum(['panel', 'duct', 'shroud', 'adapter'])),
  keepClear: inOneColumn(z.array(keepClearSchema).max(12, 'At most 12.')),
  /** middles of the fans as placed by hand; none: spread evenly */
  positions: inOneColumn(z.array(spotSchema).max(MOST_PLACED, `At most ${MOST_PLACED}.`)),
  things: inOneColumn(z.array(thingSchema).max(12, 'At most 12.')),
  cutWay: maybe(z.enum(['saw', 'jig-saw', 'fly-cutter', 'chain', 'ring'])),
  /** the drill for a chain or rings of holes */
  drillM: maybe(within(0.001, 0.03)),
}

/** Guard and filter. */
const guardShape = {
  /** on the outside, before the blades */
  guard: maybe(z.enum(['none', 'wire', 'mesh', 'perforated'])),
  /** its lugs or frame */
  guardM: thin,
  /** narrow side of its openings, and what stands between two of them */
  guardOpeningM: maybe(within(0.0002, 0.2)),
  guardBarM: maybe(within(0.00005, 0.03)),
  guardShape: maybe(z.enum(['slot', 'square', 'round'])),
  /** guard to blades */
  guardGapM: maybe(within(0, 0.5)),
  /** somebody can reach the blades, from either side */
  reach: yesNo,
  childReach: yesNo,
  filterM: thin,
  /** key of the filter table, and its face */
  filterMedium: maybe(shortText),
  filterAreaM2: area,
  filterHeld: maybe(z.enum(['frame', 'slot', 'magnets', 'hook-and-loop', 'screws'])),
  /** reached without tools */
  filterReach: yesNo,
}

/** What leads from the fan to a hose or pipe: its two ends, and how long it is. */
const adapterShape = {
  /** round as the hole, or square as the frame */
  adapterFrom: maybe(z.enum(['round', 'square'])),
  adapterTo: maybe(z.enum(['round', 'square', 'oval'])),
  /** bore, or width of the far end */
  adapterM: maybe(within(0.01, 0.6)),
  adapterHeightM: maybe(within(0.01, 0.6)),
  adapterLengthM: maybe(within(0.005, 2)),
}

/** Screws, soft mounts and the cable. */
const holdShape = {
  /** free thickness of the gasket: pressed it is half */
  gasketM: thin,
  spacerM: thin,
  /** corner pads, on each face */
  padM: thin,
  thread: maybe(threads),
  washers: maybe(whole(0, 8)),
  /** the screws that lie in the drawer */
  screwM: maybe(within(0.003, 0.15)),
  /** from the far side of what is clamped to blades, fins or a board */
  behindM: maybe(within(0, 0.5)),
  /** how far soft mounts give under the fan's weight */
  sinkM: maybe(within(0.00002, 0.05)),
  /** nearest loose cable to the blades */
  cableGapM: maybe(within(0, 0.5)),
  /** outside of the cable that goes through the panel */
  cableM: maybe(within(0.0005, 0.03)),
  /** the fan's own lead, its way to the plug, and what a door or lid needs of it when it opens */
  leadM: maybe(within(0.01, 20)),
  routeM: maybe(within(0, 20)),
  slackM: maybe(within(0, 5)),
  /** warmest spot under the mount, and what the mount softens at */
  surfaceC: maybe(within(-40, 300)),
  softenC: maybe(within(0, 400)),
}

/** What a calliper showed of the frame, and of a blower's housing, which has no usual pattern. */
const measuredShape = {
  sideMeasuredM: maybe(within(0.01, 0.5)),
  spacingMeasuredM: maybe(within(0.01, 0.5)),
  /** the face that stands against the panel */
  blowerFace: maybe(z.enum(['outlet', 'intake'])),
  /** round intakes in its flat faces */
  intakes: maybe(whole(1, 2)),
  intakeM: maybe(within(0.005, 0.5)),
  outletWidthM: maybe(within(0.003, 0.5)),
  outletHeightM: maybe(within(0.003, 0.3)),
  /** from the left side of the housing to the outlet */
  outletFromM: maybe(within(0, 0.5)),
  lugs: inOneColumn(z.array(lugSchema).max(6, 'At most 6.')),
}

export const fitSchema = z.object({
  id: idSchema,
  ...panelShape,
  ...guardShape,
  ...adapterShape,
  ...holdShape,
  ...measuredShape,
})
export interface Fit extends z.infer<typeof fitSchema> {}
export type Thread = NonNullable<Fit['thread']>
/** A place of which nothing is known yet. */
export const newFit = (id: string): Fit => ({ ...defaultsOf(fitSchema), id })
