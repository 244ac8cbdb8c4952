import { z } from 'zod'
import type { Fan, ShelfShown } from './fan'
import {
  batterySchema,
  feedPartSchema,
  newWiring,
  sourceSchema,
  switchProblem,
  sunSchema,
  wiringSchema,
  type Source,
} from './feed'
import { buildSchema } from './build'
import { controlSchema, dayProblem, daySchema } from './control'
import { defaultsOf, listOf, maybe } from './fields'
import { machineJobSchema, newJob } from './job'
import { eventSchema } from './logbook'
import { mayStandIn } from './path-edit'
import { placesProblem } from './place'
import { runSchema } from './run'
import { newStream, seenFrom, streamList, type Stream, type StreamPlan } from './stream'
import {
  ofLesserStage,
  targetKinds,
  targetProblem,
  targetSchema,
  wantedRange,
  type Target,
  type TargetKind,
} from './target'

/** The plan document: everything a job holds, in SI units (temperatures in degC, shares 0..1). null is "not known". */

/** The target of a kind that a stream is judged by on one side of its number; null without one. */
export const targetOf = (
  plan: Pick<StreamPlan, 'targets' | 'stream'>,
  kind: TargetKind,
  end: 'low' | 'high',
): Target | null =>
  plan.targets.find(
    (t) => t.kind === kind && !ofLesserStage(t) && wantedRange(t)[end] !== null && t.streamId === plan.stream,
  ) ?? null

/** Sources that a plan may have. */
export const MOST_SOURCES = 8

/** The document without the rules that bind its parts to each other. */
const partsSchema = z.object({
  job: machineJobSchema,
  targets: listOf(targetSchema, 20, 'Two targets share an id.').default([]),
  streams: streamList,
  /** what feeds it: a supply, rails, a header, a battery */
  sources: listOf(sourceSchema, MOST_SOURCES, 'Two sources share an id.').default([]),
  /** what hangs on them */
  feed: listOf(feedPartSchema, 140, 'Two parts share an id.').default([]),
  wiring: wiringSchema.default(newWiring()),
  battery: maybe(batterySchema),
  sun: maybe(sunSchema),
  /** what decides when the fans run */
  controls: listOf(controlSchema, 8, 'Two controls share an id.').default([]),
  /** the days that they have to serve */
  day: maybe(daySchema),
  /** what was built so far */
  build: maybe(buildSchema),
  runs: listOf(runSchema, 200, 'Two runs share an id.').default([]),
  /** what happened to it, one line each */
  logbook: listOf(eventSchema, 1000, 'Two lines of the log book share an id.').default([]),
})
export interface PlanDocument extends z.infer<typeof partsSchema> {}

/**
 * What is wrong with splits and ways: a path is a row, and ways hold no further splits, so that no loop can be made. Fans
 * stand in the row, or in the one way of openings alike, of which each has its share of them.
 */
function pathProblem({ path, branches }: Pick<Stream, 'path' | 'branches'>): string | null {
  const ways = new Set(branches.map((b) => b.id))
  const splits = new Set(path.filter((e) => e.kind === 'split').map((e) => e.id))
  if (branches.some((b) => !splits.has(b.splitId))) return 'A way belongs to no split.'
  if (path.some((e) => e.branchId !== null && !ways.has(e.branchId)))
    return 'An element stands in a way that is not there.'
  if (path.some((e) => e.branchId !== null && !mayStandIn({ branches }, e, e.branchId)))
    return 'A split cannot stand inside a way, nor a fan in one of several unlike ways: the path would go round in a loop.'
  return null
}

/** What is wrong with a feed: a part that hangs on nothing, on a load, or on itself by a detour; a stream fed twice. */
export function feedProblem({
  feed,
  sources,
  streams,
}: Pick<PlanDocument, 'feed' | 'sources' | 'streams'>): string | null {
  const of = new Map(feed.map((f) => [f.id, f]))
  const roots = new Set(sources.map((s) => s.id))
  const fed = feed.flatMap(({ streamId }) => (streamId === null ? [] : [streamId]))
  if (fed.some((id) => !streams.some((s) => s.id === id)))
    return 'A lead feeds an air stream that is not there.'
  if (new Set(fed).size < fed.length) return 'An air stream has one lead: two feed it.'
  for (const part of feed) {
    const wrong = switchProblem(part)
    if (wrong) return `${part.name}: ${wrong}`
  }
  for (const part of feed) {
    let at = part
    for (let steps = 0; at.parentId !== null && !roots.has(at.parentId); steps++) {
      const above = of.get(at.parentId)
      if (!above) return `${at.name} hangs on something that is not there.`
      if (above.kind === 'load') return `${at.name} hangs on ${above.name}, which is a load.`
      if (steps > feed.length) return `${part.name} feeds itself: a loop.`
      at = above
    }
  }
  return null
}

/** What is wrong with the controls: a stream that is not there, or one that two of them steer. */
export function controlProblem({ controls, streams }: PlanDocument): string | null {
  const known = new Set(streams.map((s) => s.id))
  const steered = controls.flatMap((c) => c.streamIds)
  if (steered.some((id) => !known.has(id))) return 'A control steers an air stream that is not there.'
  return new Set(steered).size < steered.length ? 'An air stream has one control: it is named in two.' : null
}

/** What is wrong with a source's voltages: its nominal one must lie between its lowest and its highest. */
export function windowProblem({
  nominalV,
  lowV,
  highV,
}: Source): { key: 'nominalV' | 'lowV' | 'highV'; message: string } | null {
  if (lowV !== null && highV !== null && lowV > highV)
    return { key: 'lowV', message: 'The lowest voltage lies above the highest.' }
  if (nominalV !== null && lowV !== null && nominalV < lowV)
    return { key: 'nominalV', message: `Lies below the lowest voltage, ${lowV} V: correct one of the two.` }
  if (nominalV !== null && highV !== null && nominalV > highV)
    return { key: 'nominalV', message: `Lies above the highest voltage, ${highV} V: correct one of the two.` }
  return null
}

export const planSchema = partsSchema.superRefine((plan, context) => {
  for (const [i, stream] of plan.streams.entries()) {
    const wrong = pathProblem(stream)
    if (wrong) context.addIssue({ code: 'custom', path: ['streams', i, 'path'], message: wrong })
    const places = placesProblem(stream)
    if (places) context.addIssue({ code: 'custom', path: ['streams', i, 'places'], message: places })
  }
  const streamIds = new Set(plan.streams.map((s) => s.id))
  if (
    plan.targets.some((t) => (t.streamId === null ? targetKinds[t.kind].ofStream : !streamIds.has(t.streamId)))
  )
    context.addIssue({
      code: 'custom',
      path: ['targets'],
      message: 'A target is about an air stream that is not there.',
    })
  for (const [i, target] of plan.targets.entries()) {
    const wrong = targetProblem(target)
    if (wrong) context.addIssue({ code: 'custom', path: ['targets', i, wrong.key], message: wrong.message })
  }
  const steered = controlProblem(plan)
  if (steered) context.addIssue({ code: 'custom', path: ['controls'], message: steered })
  const days = plan.day && dayProblem(plan.day)
  if (days) context.addIssue({ code: 'custom', path: ['day', days.key], message: days.message })
  const fed = feedProblem(plan)
  if (fed) context.addIssue({ code: 'custom', path: ['feed'], message: fed })
  for (const [i, source] of plan.sources.entries()) {
    const window = windowProblem(source)
    if (window) context.addIssue({ code: 'custom', path: ['sources', i, window.key], message: window.message })
  }
})

/** A plan of which only the name is known: one stream, about which nothing is known. */
export const newPlan = (id: string, name: string): PlanDocument => ({
  ...defaultsOf(partsSchema),
  job: newJob(id, name),
  streams: [newStream('main', '')],
})
/** The same from its only stream. */
export const newStreamPlan = (id: string, name: string): StreamPlan => seenFrom(newPlan(id, name))

/** A plan, seen from one of its streams, with the fans it speaks of: what the report is computed from. */
export interface PlanInput {
  plan: StreamPlan
  fans: readonly Fan[]
  /** how claims held on this shelf, for plans that discount them; null where no fan of it was tested */
  shown: ShelfShown | null
}

/** Ids of the fans a plan speaks of. */
export const fanIdsOf = (plan: PlanDocument): string[] =>
  [
    ...plan.streams.flatMap(({ job, places, calibration }) => [
      ...places.flatMap(({ fans }) => fans.map((f) => f.fanId)),
      job.existingFanId,
      calibration?.fanId,
    ]),
    ...plan.feed.map((f) => f.fanId),
  ].filter((id) => typeof id === 'string')
