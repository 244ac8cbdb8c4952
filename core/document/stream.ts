import { z } from 'zod'
import { idSchema, inOneColumn as column, listOf, maybe } from './fields'
import { newPlace, placeList, placesInUse, plannedFans, type FanSelection, type Place } from './place'
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
import { fansLead } from './feed'
import { leadOfFans } from './feed-walk'
import { takeOut } from './feed-edit'
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
  path: column(listOf(elementSchema, 80, 'Two elements share an id.')),
  branches: column(listOf(branchSchema, 40, 'Two ways share an id.')),
  calibration: maybe(calibrationSchema).meta({ oneColumn: true }),
  /** where its fans stand */
  places: placeList.meta({ oneColumn: true }),
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
  streamSchema.parse({ id, job: { streamName: name }, places: [newPlace(`place-${id}`.slice(0, 64))] })

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
}
/** An air stream as it is seen from one of the places of its fans. */
export interface PlacePlan extends StreamPlan {
  /** one of its `places`, itself */
  place: Place
}
/**
 * An air stream from one of the places of its fans.
 * @param id of the place; where it is not given or not there, the one that fans stand at
 */
export function seenAt(plan: StreamPlan, id?: string): PlacePlan {
  const place = plan.places.find((p) => p.id === id) ?? placesInUse(plan).find((p) => p.fans.length > 0)
  return { ...plan, place: place ?? placesInUse(plan)[0] ?? plan.places[0]! }
}
/** An air stream once from each place of its fans that is not put aside. */
export const fromEachPlace = (plan: StreamPlan): PlacePlan[] =>
  placesInUse(plan).map((place) => ({ ...plan, place }))

const pick = <T extends object, K extends keyof T>(from: T, keys: readonly K[]) =>
  Object.fromEntries(keys.map((key) => [key, from[key]])) as Pick<T, K>

/**
 * The plan from one of its streams.
 * @param id of the stream; the first one that is not put aside where it is not given or not there
 */
export function seenFrom({ streams, job, ...common }: PlanDocument, id?: string): StreamPlan {
  const wanted = [(s: Stream) => s.id === id, (s: Stream) => !s.job.aside].map((is) => streams.findIndex(is))
  const before = wanted.find((at) => at >= 0) ?? 0
  const { id: stream, job: own, ...parts } = streams[before]!
  const beside = streams.filter((_, i) => i !== before)
  return { ...common, ...parts, stream, job: { ...job, ...own }, beside, before }
}

/** The whole plan again, with what was changed in the stream that it was seen from: the inverse of `seenFrom`. */
export function wholePlan(plan: StreamPlan): PlanDocument {
  const { stream: id, beside, before, ...rest } = plan
  const common = Object.fromEntries(
    Object.entries(rest).filter(([key]) => key !== 'place' && !(partKeys as string[]).includes(key)),
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

/** The fans that blow: those planned, or in a stream that stays as it is those that are there. */
export function fansOf(plan: Pick<StreamPlan, 'job' | 'beside' | 'places' | 'path'>): FanSelection | null {
  const { job } = plan
  if (!staysAsIs(plan)) return plannedFans(plan)
  if (!job.existingFanId || job.existingV === null) return null
  const [place] = placesInUse(plan)
  const count = job.existingCount
  return {
    groups: [{ placeId: place?.id ?? plan.places[0]!.id, fanId: job.existingFanId, count }],
    count,
    arrangement: count > 1 ? 'parallel' : 'single',
  }
}

/** Puts a stream behind the others. Changes the plan. */
export function addStream(plan: PlanDocument, id: string, name: string): void {
  plan.streams.push(newStream(id, name))
}

/** Puts a stream another place among the others. Changes the plan. @param by places, negative: before others */
export function moveStream(plan: PlanDocument, id: string, by: number): void {
  const from = plan.streams.findIndex((s) => s.id === id)
  const to = Math.min(plan.streams.length - 1, Math.max(0, from + by))
  if (from >= 0) plan.streams.splice(to, 0, ...plan.streams.splice(from, 1))
}

/**
 * Puts a stream like another one behind the others: its need, path and fans, fed by what feeds the other. Targets are the
 * other's own: what was read there would seem to be read of this one. Changes the plan.
 * @param makeId makes ids of a kind that nothing has
 */
export function copyStream(
  plan: PlanDocument,
  from: string,
  id: string,
  makeId: (kind: string) => string,
): void {
  const old = plan.streams.find((s) => s.id === from)
  if (!old) return
  const name = `${nameOf(old.job, plan.streams.indexOf(old))}, copy`.slice(0, 60)
  // what is told of a thing is told of this one: nothing of it bears the name of another
  const things = { place: old.places, element: old.path, way: old.branches, port: old.ports }
  const ids = new Map(
    Object.entries(things).flatMap(([kind, list]) => list.map((x) => [x.id, makeId(kind)] as const)),
  )
  for (const { id: place } of old.places)
    for (const e of old.path) if (isPieceOf(e.id, place)) ids.set(e.id, e.id.replace(place, ids.get(place)!))
  const stream = { ...(renamedIn(structuredClone(old), ids) as Stream), id }
  stream.job.streamName = name
  plan.streams.push(stream)
  const lead = leadOfFans({ ...plan, stream: from })
  if (lead) plan.feed.push({ ...structuredClone(lead), ...fansLeadNames(id, name) })
}
/** Whether an element of the path is one that a place put there. */
const isPieceOf = (id: string, place: string) => id.startsWith('fit-') && id.endsWith(`-${place}`)
/** The same value, whatever bears or names one of these ids with its new one. */
function renamedIn(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(value)) return value.map((v) => renamedIn(v, ids))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value).map(([key, v]) => [
      key,
      typeof v === 'string' && /^id$|Id$/.test(key) ? (ids.get(v) ?? v) : renamedIn(v, ids),
    ]),
  )
}
const fansLeadNames = (streamId: string, name: string) => {
  const { id } = fansLead(streamId, name)
  return { id, name, streamId }
}

/** The plan without the streams that are put aside; the one that is looked at stays. */
export function withoutAside(plan: PlanDocument, shown: string): PlanDocument {
  const gone = plan.streams.filter((s) => s.job.aside && s.id !== shown)
  if (!gone.length) return plan
  const left = structuredClone(plan)
  for (const { id } of gone) removeStream(left, id)
  return left
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
