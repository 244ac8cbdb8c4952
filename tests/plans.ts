import {
  converterOf,
  handedV,
  leadOfFans,
  partsAbove,
  placeBehind,
  placeKeys,
  placesInUse,
  putFans,
  putInLead,
  removeSource,
  seenAt,
  setDrive,
  settlePlaces,
  sourceOf,
  takeOut,
  type Converter,
  type FansLead,
  type FeedPart,
  type Job,
  type Place,
  type Arrangement,
  type Source,
  type StreamPlan,
} from '#core/document'

/** The one place where tests build plans. Each function changes the plan that it is given. */

/** Fans to be picked. */
export interface Picked {
  fanId: string
  count: number
  arrangement: Arrangement
  /** the other fan of a pair, or of a second place; how many of all it is, else half of them */
  other: string
  others: number
  duty: number | null
}
/** A pick of one fan; what else it is, is said. */
export const selectionOf = (fanId: string, more: Partial<Picked> = {}): Picked => ({
  fanId,
  count: 1,
  arrangement: 'single',
  other: fanId,
  others: Math.max(1, Math.floor((more.count ?? 1) / 2)),
  duty: null,
  ...more,
})

/** Stands picked fans where they are meant to: at the first place in use, or at both. What feeds them stays. */
export function stand(
  plan: Pick<StreamPlan, 'places' | 'path'>,
  { fanId, count, arrangement, other, others }: Picked,
): void {
  settlePlaces(plan)
  if (arrangement === 'places' && placesInUse(plan).length < 2)
    plan.places.push(placeBehind('place-beyond', null, plan.places[0]!))
  const [here, there] = placesInUse(plan)
  const apart = arrangement === 'places'
  const pair = apart || other !== fanId
  putFans(plan, {
    arrangement,
    groups: [
      { placeId: here!.id, fanId, count: pair ? count - others : count },
      ...(pair ? [{ placeId: apart ? there!.id : here!.id, fanId: other, count: others }] : []),
    ],
  })
}

/** Picks nothing any more. */
export const unpick = (plan: Pick<StreamPlan, 'places' | 'path'>): void =>
  putFans(plan, { groups: [], arrangement: 'parallel' })

/** What can be said of a stream and of the place of its fans. */
export type Told = Partial<Job & Omit<Place, 'id' | 'name'>>
const isOfPlace = (key: string) => (placeKeys as string[]).includes(key)
/** Says facts of a stream: of its job, and of the place where its fans stand. */
export function tell(plan: StreamPlan, facts: Told): void {
  const { place } = seenAt(plan)
  for (const [key, value] of Object.entries(facts))
    Object.assign(isOfPlace(key) ? place : plan.job, { [key]: value })
}

/** The lead of the stream's fans, made where there is none. */
function leadOf(plan: StreamPlan): FansLead {
  if (!leadOfFans(plan)) setDrive(plan, { volts: 12, by: 'straight', converterId: '' })
  return leadOfFans(plan)!
}

/** Says what the fans are driven at: by what makes their voltage, else as a wish. Nothing is put in or taken away. */
export function driveAt(plan: StreamPlan, volts: number): void {
  const lead = leadOf(plan)
  const made = converterOf(plan)
  if (made) made.outV = volts
  else lead.wishV = handedV(plan, lead) === null ? volts : null
}

/** Picks fans, driven at a voltage where nothing makes another. */
export function pick(plan: StreamPlan, picked: Picked, volts: number): void {
  stand(plan, picked)
  const lead = leadOf(plan)
  lead.duty = picked.duty
  if (handedV(plan, lead) === null) lead.wishV = volts
}

type Wire = Partial<Pick<FansLead, 'wireAwg' | 'wireMm2' | 'wireLengthM'>>
/** Puts a source where the stream's one is, or takes that away; what hung on it hangs on the new one. */
export function feedFrom(plan: StreamPlan, source: Source | null, wire: Wire = {}): void {
  const lead = leadOf(plan)
  const old = sourceOf(plan)
  Object.assign(lead, wire)
  if (!source) {
    if (old) removeSource(plan, old.id)
    return
  }
  plan.sources = [source, ...plan.sources.filter((s) => s !== old && s.id !== source.id)]
  for (const part of plan.feed)
    if (part.parentId === null || part.parentId === old?.id) part.parentId = source.id
}

/** Puts a converter into the lead of the stream's fans, in the place of the one that is there; null: takes that away. */
export function convertBy(plan: StreamPlan, converter: Converter | null): void {
  const lead = leadOf(plan)
  const old = converterOf(plan)
  if (old && converter) {
    plan.feed[plan.feed.indexOf(old)] = { ...converter, parentId: old.parentId }
    for (const part of plan.feed) if (part.parentId === old.id) part.parentId = converter.id
  } else if (old) takeOut(plan, old.id)
  else if (converter) putInLead(plan, lead, converter)
}

/** Puts parts beside what the stream's fans hang on; one that names nothing hangs on the first source. */
export function hang(plan: StreamPlan, ...parts: FeedPart[]): void {
  const lead = leadOf(plan)
  const own = [lead, ...partsAbove(plan, lead)]
  plan.feed = [
    ...plan.feed.filter((p) => own.includes(p)),
    ...parts.map((p) => ({ ...p, parentId: p.parentId ?? plan.sources[0]?.id ?? null })),
  ]
}

/** Puts parts into the lead of the stream's fans, each behind the last one. */
export function putBefore(plan: StreamPlan, ...parts: FeedPart[]): void {
  for (const part of parts) putInLead(plan, leadOf(plan), { ...part })
}
