import { z } from 'zod'
import { idSchema, maybe, whole } from './fields'

/** Fans that one air stream may have. */
export const MOST_FANS = 16

/** The chosen fan array. */
export const selectionSchema = z.object({
  id: idSchema,
  fanId: idSchema,
  /** the other one of an unlike pair */
  secondFanId: maybe(idSchema),
  count: whole(1, MOST_FANS).default(1),
  /**
   * side by side, one behind the other at one place, or one at each of two places of the path (pressures add, no stage
   * disturbs the other)
   */
  arrangement: z.enum(['single', 'parallel', 'series', 'places']).default('single'),
  /**
   * how many of the `count` fans are the other one of an unlike pair, or stand at the second place; null: one of a pair,
   * or half of those at two places
   */
  secondCount: maybe(whole(1, MOST_FANS - 1)),
  /** drives the PWM wire; null without */
  duty: maybe(z.number().gt(0, 'A duty must be above zero.').max(1, 'A duty cannot be above 100 %.')),
})
export interface FanSelection extends z.infer<typeof selectionSchema> {}
export type Arrangement = FanSelection['arrangement']
