import { isConverter, isFansLead, type Converter, type FansLead, type FeedPart, type Source } from './feed'
import { staysAsIs, type StreamPlan } from './stream'

/** The feed read from its parts towards its sources: what a part hangs on, and what voltage that makes. */

/** Sources and parts of a plan. */
export interface Feed {
  sources: Source[]
  feed: FeedPart[]
}
type Fed = Feed & Pick<StreamPlan, 'stream'>

/** The parts that a part hangs on, the nearest first. */
export function partsAbove({ feed }: Feed, part: FeedPart): FeedPart[] {
  const above: FeedPart[] = []
  for (let at: FeedPart | undefined = part; at;) {
    const { parentId }: FeedPart = at
    at = feed.find((p) => p.id === parentId && p !== part && !above.includes(p))
    if (at) above.push(at)
  }
  return above
}

/** The source that a part hangs on; null where it hangs on none. */
export function sourceAbove(feed: Feed, part: FeedPart): Source | null {
  const { parentId } = partsAbove(feed, part).at(-1) ?? part
  return feed.sources.find((s) => s.id === parentId) ?? null
}

/** Everything that hangs on a part, itself included. */
export function partsBelow({ feed }: Feed, id: string): FeedPart[] {
  const below = feed.filter((p) => p.id === id)
  for (const part of below) below.push(...feed.filter((p) => p.parentId === part.id && !below.includes(p)))
  return below
}

/** The lead of the fans of the stream that a plan is seen from; null where nothing was planned for them yet. */
export const leadOfFans = ({ feed, stream }: Fed): FansLead | null =>
  feed.filter(isFansLead).find((p) => p.streamId === stream) ?? null

/** The source that the stream's fans hang on, or would: that of their lead; null where they hang on none. */
export function sourceOf(plan: Fed): Source | null {
  const lead = leadOfFans(plan)
  return lead ? sourceAbove(plan, lead) : (plan.sources[0] ?? null)
}

/** Kinds of source that the battery of a plan can be told for. */
const storing: Source['kind'][] = ['pack', 'power-bank', 'house-battery', 'vehicle', 'solar']
/** The source whose battery a plan tells of: the first one that has one, else the first. */
export const batterySource = ({ sources }: Pick<Feed, 'sources'>): Source | null =>
  sources.find((s) => storing.includes(s.kind)) ?? sources[0] ?? null

/** The converters in the lead of the stream's fans, the nearest first. */
const convertersOf = (plan: Fed): Converter[] => {
  const lead = leadOfFans(plan)
  return lead ? partsAbove(plan, lead).filter(isConverter) : []
}
/** The nearest converter in the lead of the stream's fans; null where they hang straight on their source. */
export const converterOf = (plan: Fed): Converter | null => convertersOf(plan)[0] ?? null

/** What a part is handed, V: what the nearest converter above it is to give, else what its source has; null: not known. */
export function handedV(feed: Feed, part: FeedPart): number | null {
  const made = partsAbove(feed, part)
    .filter(isConverter)
    .find((c) => c.outV !== null)
  return made?.outV ?? sourceAbove(feed, part)?.nominalV ?? null
}

/** Duty on the PWM wire of the stream's fans, 0..1; null where the voltage alone drives them. */
export const dutyOf = (plan: Fed & Pick<StreamPlan, 'job' | 'beside'>): number | null =>
  staysAsIs(plan) ? null : (leadOfFans(plan)?.duty ?? null)

/**
 * The voltage that the stream's fans are driven at, V: what makes it is asked, a converter or the source; where nothing
 * does yet, what is wished for them, or what the present ones have. Null where none is known.
 */
export function driveVolts(plan: Fed & Pick<StreamPlan, 'job'>): number | null {
  const lead = leadOfFans(plan)
  const told = lead && (handedV(plan, lead) ?? lead.wishV)
  return told ?? (plan.job.asIs ? plan.job.existingV : null)
}
