import { z } from 'zod'
import { idSchema, inOneColumn as column, listOf, maybe } from './fields'
import { fitSchema } from './fit'
import { facePlace, secondPlaceSchema } from './place'
import {
  machineJobKeys,
  portSchema,
  sinkPointSchema,
  streamJobKeys,
  streamJobSchema,
  uncertaintySchema,
  type Job,
} from './job'
import { branchSchema, calibrationSchema, elementSchema } from './path'
import { leadOfFans } from './feed-walk'
import { takeOut } from './feed-edit'
import { selectionSchema } from './selection'
import type { PlanDocument } from './plan'

/**
 * The air streams of a job, one or several, all alike. A stage, form or rule that works on one of them takes a
 * `StreamPlan`: the plan as it is seen from that stream, the stream's own parts beside what all have in common.
 */

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
export interface Stream extends z.infer<typeof streamSchema> {}
export const streamList = listOf(streamSchema, MOST_STREAMS, 'Two air streams share an id.').min(
  1,
  'A job has at least one air stream.',
)

/** A stream of which only the name is known. */
export const newStream = (id: string, name: string): Stream =>
  streamSchema.parse({ id, job: { streamName: name } })

/** What all streams of a plan have in common. */
export interface MachinePlan extends Omit<PlanDocument, 'streams'> {}

/** The plan as it is seen from one of its air streams. */
export interface StreamPlan extends Omit<MachinePlan, 'job'>, Omit<Stream, 'id' | 'job'> {
  /** id of the stream */
  stream: string
  /** the machine's facts and the stream's */
  job: Job
  /** the other streams in their order, and how many of them stand before this one */
  beside: readonly Stream[]
  before: number
  /** the place of its fans that stands in front, where it is the second one (`facePlace`); never stored */
  place?: 0 | 1
}

const pick = <T extends object, K extends keyof T>(from: T, keys: readonly K[]) =>
  Object.fromEntries(keys.map((key) => [key, from[key]])) as Pick<T, K>

/**
 * The plan from one of its streams.
 * @param id of the stream; the first one where it is not given or not there
 */
export function seenFrom({ streams, job, ...common }: PlanDocument, id?: string): StreamPlan {
  const before = Math.max(
    0,
    streams.findIndex((s) => s.id === id),
  )
  const { id: stream, job: own, ...parts } = streams[before]!
  const beside = streams.filter((_, i) => i !== before)
  return { ...common, ...parts, stream, job: { ...job, ...own }, beside, before }
}

/** The whole plan again, with what was changed in the stream that it was seen from: the inverse of `seenFrom`. */
export function wholePlan(plan: StreamPlan): PlanDocument {
  const { stream: id, beside, before, place: _, ...rest } = facePlace(plan, 0)
  const common = Object.fromEntries(
    Object.entries(rest).filter(([key]) => !(partKeys as string[]).includes(key)),
  ) as Omit<MachinePlan, 'job'>
  const own: Stream = { id, job: pick(plan.job, streamJobKeys), ...pick(rest, partKeys) }
  return {
    ...common,
    job: pick(plan.job, machineJobKeys),
    streams: [...beside.slice(0, before), own, ...beside.slice(before)],
  }
}

/** The plan once from each of its streams. */
export const fromEachStream = (plan: PlanDocument): StreamPlan[] =>
  plan.streams.map(({ id }) => seenFrom(plan, id))

const nameOf = ({ streamName }: { streamName: string }, at: number) => streamName || `Stream ${at + 1}`
/** What the stream is called that a plan is seen from. */
export const streamName = ({ job, before }: StreamPlan): string => nameOf(job, before)
/** What every air stream is called, by id. */
export const streamNames = (plan: StreamPlan): ReadonlyMap<string, string> =>
  new Map(wholePlan(plan).streams.map(({ id, job }, i) => [id, nameOf(job, i)]))
/** Whether a plan has more than one air stream. */
export const isOneOfSeveral = ({ beside }: Pick<StreamPlan, 'beside'>): boolean => beside.length > 0

/** Whether nothing is planned in the stream: its present fans stay beside the other streams. */
export const staysAsIs = ({ job, beside }: Pick<StreamPlan, 'job' | 'beside'>): boolean =>
  job.asIs && beside.length > 0

/** The fans that blow: those picked, or in a stream that stays as it is those that are there. */
export function runningSelection(plan: StreamPlan): StreamPlan['selection'] {
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
    duty: null,
  }
}

/** Puts a stream behind the others. Changes the plan. */
export function addStream(plan: PlanDocument, id: string, name: string): void {
  plan.streams.push(newStream(id, name))
}

/** Takes a stream away, with its lead, targets and states. Changes the plan; the last one stays. */
export function removeStream(plan: PlanDocument, id: string): void {
  if (plan.streams.length === 1) return
  const lead = leadOfFans({ ...plan, stream: id })
  if (lead) takeOut(plan, lead.id)
  plan.streams = plan.streams.filter((s) => s.id !== id)
  plan.targets = plan.targets.filter((t) => t.streamId !== id)
  for (const control of plan.controls) control.streamIds = control.streamIds.filter((x) => x !== id)
  for (const part of plan.day?.parts ?? []) if (part.streamId === id) part.streamId = plan.streams[0]!.id
  for (const run of plan.runs) run.fans = run.fans.filter((f) => f.streamId !== id)
}
