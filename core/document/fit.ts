import { z } from 'zod'
import { defaultsOf, idSchema, inOneColumn, maybe, shortText, whole, within, yesNo } from './fields'

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

export const fitSchema = z.object({
  id: idSchema,
  /** what it is cut into */
  material: maybe(z.enum(['wood', 'plastic', 'metal', 'acrylic', 'card'])),
  panelM: maybe(within(0.0002, 0.2)),
  panelWidthM: maybe(within(0.01, 3)),
  panelHeightM: maybe(within(0.01, 3)),
  keepClear: inOneColumn(z.array(keepClearSchema).max(12, 'At most 12.')),
  /** on the outside, before the blades */
  guard: maybe(z.enum(['none', 'wire', 'mesh', 'perforated'])),
  /** its lugs or frame */
  guardM: thin,
  /** narrow side of its openings */
  guardOpeningM: maybe(within(0.0002, 0.2)),
  guardShape: maybe(z.enum(['slot', 'square', 'round'])),
  /** guard to blades */
  guardGapM: maybe(within(0, 0.5)),
  /** somebody can reach the blades, from either side */
  reach: yesNo,
  childReach: yesNo,
  /** free thickness of the gasket: pressed it is half */
  gasketM: thin,
  spacerM: thin,
  /** corner pads, on each face */
  padM: thin,
  filterM: thin,
  /** an adapter from the fan's hole to a hose or pipe: its bore, and how long it is */
  adapterM: maybe(within(0.01, 0.6)),
  adapterLengthM: maybe(within(0.005, 2)),
  thread: maybe(threads),
  washers: maybe(whole(0, 8)),
  /** the screws that lie in the drawer */
  screwM: maybe(within(0.003, 0.15)),
  /** from the far side of what is clamped to blades, fins or a board */
  behindM: maybe(within(0, 0.5)),
  /** nearest loose cable to the blades */
  cableGapM: maybe(within(0, 0.5)),
  /** warmest spot under the mount, and what the mount softens at */
  surfaceC: maybe(within(-40, 300)),
  softenC: maybe(within(0, 400)),
  /** what a calliper showed of the frame */
  sideMeasuredM: maybe(within(0.01, 0.5)),
  spacingMeasuredM: maybe(within(0.01, 0.5)),
})
export interface Fit extends z.infer<typeof fitSchema> {}
export type Thread = NonNullable<Fit['thread']>
/** A place of which nothing is known yet. */
export const newFit = (id: string): Fit => ({ ...defaultsOf(fitSchema), id })
