import { z } from 'zod'
import { maybe } from './fields'
import { fitSchema } from './fit'
import { streamJobSchema } from './job'
import type { StreamPlan } from './stream'

/**
 * The places of an air stream's fans. What is told of the first place stands in the plan itself, as in a stream that has
 * only one; the second has a record of its own. To work on a place, the plan is turned so that this place stands in front
 * (`facePlace`).
 */

/** What of a job is told of one place. */
const placeJobSchema = streamJobSchema.pick({
  direction: true,
  fitDepthM: true,
  fitWidthM: true,
  inletClearM: true,
  outletClearM: true,
  stackExtraM: true,
  holeM: true,
  screwHoleM: true,
  existingHolesM: true,
  upstreamGapM: true,
  shaft: true,
  mountKind: true,
  mountCapacityKg: true,
  mountIsolated: true,
  thinPanel: true,
  panelHz: true,
})
type PlaceJob = z.infer<typeof placeJobSchema>
const placeKeys = Object.keys(placeJobSchema.shape) as (keyof PlaceJob)[]

export const secondPlaceSchema = z.object({
  job: placeJobSchema.meta({ oneColumn: true }),
  fit: maybe(fitSchema).meta({ oneColumn: true }),
})

const placeFields = (job: StreamPlan['job']): PlaceJob =>
  Object.fromEntries(placeKeys.map((key) => [key, job[key]])) as PlaceJob

/** Which place stands in front, 0 or 1. */
export const facedPlace = ({ place }: StreamPlan): 0 | 1 => place ?? 0

/**
 * The plan with one of the places of its fans in front. A second place of which nothing is told blows the way the first
 * one does, as the air goes the same way through both.
 * @param place 0 or 1
 */
export function facePlace(plan: StreamPlan, place: 0 | 1): StreamPlan {
  if (facedPlace(plan) === place) return plan
  const other = plan.secondPlace ?? { job: nothingTold(plan.job), fit: null }
  return {
    ...plan,
    place: place === 0 ? undefined : place,
    job: { ...plan.job, ...other.job },
    fit: other.fit,
    secondPlace: { job: placeFields(plan.job), fit: plan.fit },
  }
}
/** The air that is blown in at one place is drawn out at the other. */
const through = { in: 'out', out: 'in' } as const
const nothingTold = ({ direction }: StreamPlan['job']): PlaceJob => ({
  ...placeJobSchema.parse({}),
  direction: direction && through[direction],
})
