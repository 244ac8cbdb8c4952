import {
  converterOf,
  handedV,
  leadOfFans,
  partsAbove,
  putInLead,
  removeSource,
  setDrive,
  sourceOf,
  takeOut,
  type Converter,
  type FansLead,
  type FeedPart,
  type FanSelection,
  type Source,
  type StreamPlan,
} from '#core/document'

/** The one place where tests build plans. Each function changes the plan that it is given. */

/** A selection of one fan; what else it is, is said. */
export const selectionOf = (fanId: string, more: Partial<FanSelection> = {}): FanSelection => ({
  id: 'pick',
  fanId,
  secondFanId: null,
  secondCount: null,
  count: 1,
  arrangement: 'single',
  duty: null,
  ...more,
})

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
export function pick(plan: StreamPlan, selection: FanSelection, volts: number): void {
  plan.selection = selection
  const lead = leadOf(plan)
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
