import { z } from 'zod'
import type { Fan, ShelfShown } from './fan'
import {
  batterySchema,
  converterSchema,
  feedPartSchema,
  newWiring,
  sourceSchema,
  sunSchema,
  wiringSchema,
} from './feed'
import { defaultsOf, idSchema, line, lines, maybe, whole, within } from './fields'
import { jobSchema, newJob, portSchema, sinkPointSchema, uncertaintySchema } from './job'
import { branchSchema, calibrationSchema, elementSchema } from './path'
import { runSchema } from './run'

/** The plan document: everything a job holds, in SI units (temperatures in degC, shares 0..1). null is "not known". */

/** What the verdict is judged by. */
export const targetSchema = z.object({
  id: idSchema,
  kind: z.enum(['temperature', 'level', 'flow', 'runtime', 'money', 'thickness']),
  limit: within(-60, 1e8),
  place: line,
  setBy: line,
  why: lines,
})
export interface Target extends z.infer<typeof targetSchema> {}
export type TargetKind = Target['kind']

/** The chosen fan array. */
export const selectionSchema = z.object({
  id: idSchema,
  fanId: idSchema,
  /** the other one of an unlike pair */
  secondFanId: maybe(idSchema),
  count: whole(1, 12).default(1),
  /**
   * side by side, one behind the other at one place, or one at each of two places of the path (pressures add, no stage
   * disturbs the other)
   */
  arrangement: z.enum(['single', 'parallel', 'series', 'places']).default('single'),
  driveV: within(0.5, 60),
  /** drives the PWM wire; null without */
  duty: maybe(z.number().gt(0, 'A duty must be above zero.').max(1, 'A duty cannot be above 100 %.')),
})
export interface FanSelection extends z.infer<typeof selectionSchema> {}
export type Arrangement = FanSelection['arrangement']

const unique = (list: { id: string }[]) => new Set(list.map((x) => x.id)).size === list.length

/** The document without the rules that bind its parts to each other. */
const partsSchema = z.object({
  job: jobSchema,
  targets: z.array(targetSchema).max(20).refine(unique, 'Two targets share an id.').default([]),
  ports: z.array(portSchema).max(30).refine(unique, 'Two openings share an id.').default([]),
  uncertainties: z
    .array(uncertaintySchema)
    .max(60)
    .refine(unique, 'An input is named twice among the uncertain ones.')
    .default([]),
  /** resistance of the part over airflow, rising in flow */
  sink: z.array(sinkPointSchema).max(40).default([]),
  path: z
    .array(elementSchema)
    .max(80, 'At most 80 elements.')
    .refine(unique, 'Two elements share an id.')
    .refine(
      (path) => path.filter((e) => e.kind === 'fan').length <= 2,
      'Fans have at most two places in the path.',
    )
    .default([]),
  branches: z
    .array(branchSchema)
    .max(40, 'At most 40 ways.')
    .refine(unique, 'Two ways share an id.')
    .default([]),
  calibration: maybe(calibrationSchema),
  selection: maybe(selectionSchema),
  source: maybe(sourceSchema),
  converter: maybe(converterSchema),
  /** what else the source feeds */
  feed: z
    .array(feedPartSchema)
    .max(120, 'At most 120 parts.')
    .refine(unique, 'Two parts share an id.')
    .default([]),
  wiring: wiringSchema.default(newWiring()),
  battery: maybe(batterySchema),
  sun: maybe(sunSchema),
  runs: z.array(runSchema).max(200).refine(unique, 'Two runs share an id.').default([]),
})
export interface PlanDocument extends z.infer<typeof partsSchema> {}

/** What is wrong with splits and ways: a path is a row, and ways hold neither the fan nor further splits, so that no loop can be made. */
function pathProblem({ path, branches }: Pick<PlanDocument, 'path' | 'branches'>): string | null {
  const ways = new Set(branches.map((b) => b.id))
  const splits = new Set(path.filter((e) => e.kind === 'split').map((e) => e.id))
  if (branches.some((b) => !splits.has(b.splitId))) return 'A way belongs to no split.'
  if (path.some((e) => e.branchId !== null && !ways.has(e.branchId)))
    return 'An element stands in a way that is not there.'
  if (path.some((e) => e.branchId !== null && (e.kind === 'split' || e.kind === 'fan')))
    return 'Neither the fan nor a split can stand inside a way: the path would go round in a loop.'
  return null
}

/** What is wrong with a feed: a part that hangs on nothing, on a load, or on itself by a detour. */
export function feedProblem({ feed, converter }: Pick<PlanDocument, 'feed' | 'converter'>): string | null {
  const of = new Map(feed.map((f) => [f.id, f]))
  for (const part of feed) {
    let at = part
    for (let steps = 0; at.parentId !== null && at.parentId !== converter?.id; steps++) {
      const above = of.get(at.parentId)
      if (!above) return `${at.name} hangs on something that is not there.`
      if (above.kind === 'load') return `${at.name} hangs on ${above.name}, which is a load.`
      if (steps > feed.length) return `${part.name} feeds itself: a loop.`
      at = above
    }
  }
  return null
}

/** What is wrong with a source's voltages: its nominal one must lie between its lowest and its highest. */
export function windowProblem({
  source,
}: Pick<PlanDocument, 'source'>): { key: 'nominalV' | 'lowV' | 'highV'; message: string } | null {
  if (!source) return null
  const { nominalV, lowV, highV } = source
  if (lowV !== null && highV !== null && lowV > highV)
    return { key: 'lowV', message: 'The lowest voltage lies above the highest.' }
  if (nominalV !== null && lowV !== null && nominalV < lowV)
    return { key: 'nominalV', message: `Lies below the lowest voltage, ${lowV} V: correct one of the two.` }
  if (nominalV !== null && highV !== null && nominalV > highV)
    return { key: 'nominalV', message: `Lies above the highest voltage, ${highV} V: correct one of the two.` }
  return null
}

export const planSchema = partsSchema.superRefine((plan, context) => {
  const problem = pathProblem(plan)
  if (problem) context.addIssue({ code: 'custom', path: ['path'], message: problem })
  const fed = feedProblem(plan)
  if (fed) context.addIssue({ code: 'custom', path: ['feed'], message: fed })
  const window = windowProblem(plan)
  if (window) context.addIssue({ code: 'custom', path: ['source', window.key], message: window.message })
})

/** A plan of which only the name is known. */
export const newPlan = (id: string, name: string): PlanDocument => ({
  ...defaultsOf(partsSchema),
  job: newJob(id, name),
})

/** A plan with the fans it speaks of: what the report is computed from. */
export interface PlanInput {
  plan: PlanDocument
  fans: readonly Fan[]
  /** how claims held on this shelf, for plans that discount them; null where no fan of it was tested */
  shown: ShelfShown | null
}

/** Ids of the fans a plan speaks of. */
export const fanIdsOf = (plan: PlanDocument): string[] =>
  [
    plan.selection?.fanId,
    plan.selection?.secondFanId,
    plan.job.existingFanId,
    plan.calibration?.fanId,
    ...plan.feed.map((f) => f.fanId),
  ].filter((id) => typeof id === 'string')
