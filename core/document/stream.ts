import { z } from 'zod'
import { newFeedPart } from './feed'
import { idSchema, inOneColumn as column, listOf, maybe } from './fields'
import { fitSchema } from './fit'
import { secondPlaceSchema } from './place'
import { portSchema, sinkPointSchema, streamJobSchema, streamJobKeys, uncertaintySchema } from './job'
import { branchSchema, calibrationSchema, elementSchema } from './path'
import { selectionSchema } from './selection'
import type { PlanDocument } from './plan'

/**
 * The air streams of a job. The first one stands in the plan itself, as in a job that has only one; each further one is
 * an entry of `streams` with everything that is its own. To work on a stream, the plan is turned so that this stream
 * stands in front (`faceStream`): every stage, form and rule that knows a plan of one stream then knows any of them.
 */

/** Id of the stream that stands in the plan itself. */
export const MAIN_STREAM = 'main'
export const MOST_STREAMS = 8

/** What a plan holds of each stream, beside the fields of the job that are the stream's. */
export const streamParts = {
  ports: column(listOf(portSchema, 30, 'Two openings share an id.')),
  uncertainties: column(listOf(uncertaintySchema, 60, 'An input is named twice among the uncertain ones.')),
  /** resistance of the part over airflow, rising in flow */
  sink: column(z.array(sinkPointSchema).max(40)),
  path: column(
    listOf(elementSchema, 80, 'Two elements share an id.').refine(
      (path) => path.filter((e) => e.kind === 'fan').length <= 2,
      'Fans have at most two places in the path.',
    ),
  ),
  branches: column(listOf(branchSchema, 40, 'Two ways share an id.')),
  calibration: maybe(calibrationSchema).meta({ oneColumn: true }),
  selection: maybe(selectionSchema).meta({ oneColumn: true }),
  /** where the fans are cut in and held */
  fit: maybe(fitSchema).meta({ oneColumn: true }),
  /** the same of their second place */
  secondPlace: maybe(secondPlaceSchema).meta({ oneColumn: true }),
}
const partKeys = Object.keys(streamParts) as (keyof typeof streamParts)[]

export const streamSchema = z.object({
  id: idSchema,
  job: streamJobSchema.meta({ oneColumn: true }),
  ...streamParts,
})
export const streamList = listOf(streamSchema, MOST_STREAMS - 1, 'Two air streams share an id.')
  .refine((list) => list.every((s) => s.id !== MAIN_STREAM), 'Two air streams share an id.')
  .default([])
export interface Stream extends z.infer<typeof streamSchema> {}

/** A stream of which only the name is known. */
export const newStream = (id: string, name: string): Stream =>
  streamSchema.parse({ id, job: { streamName: name } })

/** Id of the stream that stands in front. */
export const facedStream = (plan: PlanDocument): string => plan.faced ?? MAIN_STREAM

const streamFields = (job: PlanDocument['job']): Stream['job'] =>
  Object.fromEntries(streamJobKeys.map((key) => [key, job[key]])) as Stream['job']

/**
 * The plan with one of its streams in front, the one that stood there in its place in the list. Nothing is copied or lost:
 * turning it back gives the plan as it was.
 * @param id of the stream; one that is not there leaves the plan as it is
 */
export function faceStream(plan: PlanDocument, id: string): PlanDocument {
  const front = facedStream(plan)
  const wanted = plan.streams.find((s) => s.id === id)
  if (id === front || !wanted) return plan
  // home first: every stream then stands in its own place
  if (front !== MAIN_STREAM && id !== MAIN_STREAM) return faceStream(faceStream(plan, MAIN_STREAM), id)
  const left: Stream = {
    id: front,
    job: streamFields(plan.job),
    ...(Object.fromEntries(partKeys.map((key) => [key, plan[key]])) as Pick<Stream, keyof typeof streamParts>),
  }
  const { id: _, job, ...parts } = wanted
  return {
    ...plan,
    ...parts,
    faced: id === MAIN_STREAM ? undefined : id,
    job: { ...plan.job, ...job },
    streams: plan.streams.map((s) => (s === wanted ? left : s)),
  }
}

/** The ids of all streams, the first one first. */
export const streamIds = (plan: PlanDocument): string[] => [
  MAIN_STREAM,
  ...faceStream(plan, MAIN_STREAM).streams.map((s) => s.id),
]

/** The plan once for each of its streams, each in front in turn. */
export const streamFaces = (plan: PlanDocument): PlanDocument[] =>
  plan.streams.length ? streamIds(plan).map((id) => faceStream(plan, id)) : [plan]

/** What the stream in front is called. */
export const streamName = (plan: PlanDocument): string =>
  plan.job.streamName || (facedStream(plan) === MAIN_STREAM ? 'Main stream' : 'Stream')

/** What every air stream is called, by id. */
export const streamNames = (plan: PlanDocument): ReadonlyMap<string, string> =>
  new Map(streamFaces(plan).map((face) => [facedStream(face), streamName(face)]))

/** Whether nothing is planned in the stream in front: its present fans stay beside the other streams. */
export const staysAsIs = ({ job, streams }: PlanDocument): boolean => job.asIs && streams.length > 0

/** The fans that blow: those picked, or in a stream that stays as it is those that are there. */
export function runningSelection(plan: PlanDocument): PlanDocument['selection'] {
  const { job, selection } = plan
  if (!staysAsIs(plan)) return selection
  if (!job.existingFanId || job.existingV === null) return null
  return {
    id: selection?.id ?? 'present-fans',
    fanId: job.existingFanId,
    secondFanId: null,
    secondCount: null,
    count: job.existingCount,
    arrangement: job.existingCount > 1 ? 'parallel' : 'single',
    driveV: job.existingV,
    duty: null,
  }
}

/** Puts a further stream behind the others. Changes the plan, which has its first stream in front. */
export function addStream(plan: PlanDocument, id: string, name: string): void {
  plan.streams.push(newStream(id, name))
}

/** Takes a further stream away, with its leads. Changes the plan, which has its first stream in front. */
export function removeStream(plan: PlanDocument, id: string): void {
  plan.streams = plan.streams.filter((s) => s.id !== id)
  plan.feed = plan.feed.filter((part) => part.streamId !== id)
  plan.targets = plan.targets.filter((t) => t.streamId !== id)
  for (const control of plan.controls) control.streamIds = control.streamIds.filter((x) => x !== id)
  for (const part of plan.day?.parts ?? []) if (part.streamId === id) part.streamId = null
  for (const run of plan.runs) run.fans = run.fans.filter((f) => f.streamId !== id)
}

/** The lead of a further stream's fans, straight on the first source. */
export const streamLead = (id: string, name: string): PlanDocument['feed'][number] => ({
  ...newFeedPart(`lead-${id}`.slice(0, 64), 'load', null),
  name: name || 'Fans of a stream',
  loadKind: 'fan',
  streamId: id,
})

/**
 * Gives the fans of every further stream their place in the feed: a lead of their own, straight on the source until
 * somebody hangs it elsewhere. Changes the plan, which has its first stream in front.
 */
export function feedStreams(plan: PlanDocument): void {
  for (const { id, job, selection } of plan.streams) {
    const fans = selection !== null || (job.asIs && job.existingFanId !== null)
    if (!fans || plan.feed.some((part) => part.streamId === id)) continue
    plan.feed.push(streamLead(id, job.streamName))
  }
}
