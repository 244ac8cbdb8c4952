import { z } from 'zod'
import { idSchema, inOneColumn, limits, lines, maybe, moment, shortText, within } from './fields'

/**
 * A fan measured on a carton: it blows into a box (or draws out of it) whose other wall has sharp-edged holes; the
 * pressure in the box tells the flow through them. SI units; null is "not known".
 */

/** One reading: how many of the holes were open, and what the box's pressure and the fan's voltage were. */
export const cartonReadingSchema = z.object({
  id: idSchema,
  /** holes that were open, the first ones; 0: a card closed the fan itself */
  open: z.number().int().min(0).max(20),
  pressurePa: limits.pressure,
  volts: within(0.5, 60),
  rpm: maybe(limits.rotation),
})
export interface CartonReading extends z.infer<typeof cartonReadingSchema> {}

/** The rig and all that was read on it. */
export const cartonSchema = z.object({
  id: idSchema,
  specimen: shortText.min(1, 'Name the specimen, such as A.').default('A'),
  takenAt: moment,
  way: z.enum(['into', 'out']).default('into'),
  /** inside of the carton: the wall with the holes, and how long it is */
  widthM: within(0.05, 3),
  heightM: within(0.05, 3),
  depthM: within(0.05, 3),
  /** diameters of the holes as cut, in the order in which they are opened */
  holesM: z.array(within(0.003, 1)).max(20, 'At most 20 holes.').default([]),
  /** how far a hole may be from its diameter */
  cutM: within(0, 0.02).default(0.0005),
  /** what the pressure gauge resolves at best, and how far its scale may be off */
  gaugePa: within(0.05, 50).default(1),
  gaugeShare: within(0, 0.5).default(0.02),
  /** a card with a small hole taped over the fan, everything else closed: hole and pressure in the box */
  leakHoleM: maybe(within(0.002, 0.2)),
  leakPressurePa: maybe(limits.pressure),
  ambientC: within(-20, 60).default(20),
  altitudeM: within(-500, 6000).default(0),
  notes: lines,
  readings: inOneColumn(z.array(cartonReadingSchema).max(60, 'At most 60 readings.')),
})
export interface Carton extends z.infer<typeof cartonSchema> {}
