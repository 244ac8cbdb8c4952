import {
  converterNames,
  fansLead,
  isConverter,
  newConverter,
  type Converter,
  type ConverterKind,
  type FansLead,
  type FeedPart,
} from './feed'
import { putInLead, takeOut, withConverterKind, withOutput } from './feed-edit'
import { driveVolts, handedV, leadOfFans, partsAbove, partsBelow } from './feed-walk'
import { plannedFans } from './place'
import type { PlanDocument } from './plan'
import { seenFrom, streamName, isOneOfSeveral, type StreamPlan } from './stream'

/** Share of the drive voltage that a source may differ by and still drive the fan straight. Common practice, no source. */
const STRAIGHT = 0.05

/** How the selected fans come to their voltage. */
export interface Drive {
  /** voltage at the fans, V, 0.5 to 60 */
  volts: number
  /** PWM duty 0..1, null without; left as it is where not given */
  duty?: number | null
  /**
   * What makes the voltage: nothing ('straight'), a converter as described, or whatever suits the source ('auto', where
   * not given): straight within 5 % of it, else the converter that is there if it can, else one up or down.
   */
  by?: 'auto' | 'straight' | Partial<Converter>
  /** id for a converter that has to be made */
  converterId: string
}

const raises = (kind: ConverterKind) => kind === 'boost'

/** The lead of the stream's fans, made where there is none yet: on the first source. Changes the plan. */
function leadFor(plan: StreamPlan): FansLead {
  const there = leadOfFans(plan)
  if (there) return there
  const lead = fansLead(plan.stream, isOneOfSeveral(plan) ? streamName(plan) : '')
  lead.parentId = plan.sources[0]?.id ?? null
  plan.feed.push(lead)
  return lead
}

/** The lead with what stands in it and feeds nothing else, the nearest first. */
function ownChain(plan: StreamPlan, lead: FansLead): FeedPart[] {
  const chain: FeedPart[] = [lead]
  for (const part of partsAbove(plan, lead)) {
    if (partsBelow(plan, part.id).some((p) => p !== part && !chain.includes(p))) break
    chain.push(part)
  }
  return chain
}

/** Takes the lead from behind converters that others hang on too: those are not turned behind their backs. */
function leaveShared(plan: StreamPlan, top: FeedPart): void {
  for (;;) {
    const above = plan.feed.find((p) => p.id === top.parentId)
    if (!above || !isConverter(above)) return
    top.parentId = above.parentId
  }
}

/** Sets a converter of the lead: the one that is there as far as it is of that kind, else a new one in its place. */
function setConverter(plan: StreamPlan, own: Converter | undefined, to: Partial<Converter>, id: string): void {
  const kind = to.converterKind ?? own?.converterKind ?? 'buck'
  if (own) {
    const outV = to.outV ?? own.outV
    const next = kind === own.converterKind ? withOutput(own, outV) : withConverterKind({ ...own, outV }, kind)
    plan.feed[plan.feed.indexOf(own)] = { ...next, ...to }
    return
  }
  const made = newConverter(id, null, kind)
  if (isOneOfSeveral(plan)) made.name = `${converterNames[kind]} of ${streamName(plan)}`.slice(0, 60)
  putInLead(plan, ownChain(plan, leadFor(plan)).at(-1)!, { ...made, ...to })
}

/**
 * The one command that sets the drive voltage of the stream's fans, wherever it is asked from: what makes that voltage is
 * set, made or taken away in their own lead; nothing else gets another voltage.
 * @param plan changed in place
 */
export function setDrive(plan: StreamPlan, { volts, duty, by = 'auto', converterId }: Drive): void {
  const lead = leadFor(plan)
  if (duty !== undefined) lead.duty = duty
  const chain = ownChain(plan, lead)
  const own = chain.find(isConverter)
  const near = (v: number | null) => v !== null && Math.abs(v - volts) < STRAIGHT * volts
  if (!own && (by !== 'auto' || !near(handedV(plan, lead)))) leaveShared(plan, chain.at(-1)!)
  const handed = handedV(plan, own ?? lead)
  // with nothing else in their lead, the fans may as well hang on another source that has the voltage; a header rather steers
  const straight = partsAbove(plan, lead).every((p) => p === own) && (own ?? lead).parentId !== null
  const rail = straight ? plan.sources.find((s) => s.kind !== 'header' && near(s.nominalV)) : undefined
  if (by === 'straight') {
    if (own) takeOut(plan, own.id)
  } else if (by !== 'auto') setConverter(plan, own, { outV: volts, ...by }, converterId)
  else if (handed === null) {
    // what makes it is told already, though not what feeds that
    if (own && own.outV !== volts) setConverter(plan, own, { outV: volts }, converterId)
  } else if (near(handed)) {
    if (own) takeOut(plan, own.id)
  } else if (rail) {
    if (own) takeOut(plan, own.id)
    lead.parentId = rail.id
  } else {
    const up = volts > handed
    const suits = own !== undefined && raises(own.converterKind) === up
    const kind = suits ? own.converterKind : up ? 'boost' : 'buck'
    if (!suits || own.outV !== volts) setConverter(plan, own, { converterKind: kind, outV: volts }, converterId)
  }
  lead.wishV = handedV(plan, lead) === null ? volts : null
}

/** Sets the duty on the PWM wire of the stream's fans, 0..1; null: the voltage alone drives them. Changes the plan. */
export function setDuty(plan: StreamPlan, duty: number | null): void {
  leadFor(plan).duty = duty
}

/**
 * Gives the fans of every stream their lead, and keeps what they were driven at where nothing makes it any more. Changes
 * the plan.
 * @param before the plan before it was changed; null for none
 */
export function settleFeed(plan: PlanDocument, before: PlanDocument | null): void {
  for (const { id } of plan.streams) {
    const seen = seenFrom(plan, id)
    if (!plannedFans(seen) && !(seen.job.asIs && seen.job.existingFanId !== null) && !leadOfFans(seen)) continue
    const lead = leadFor(seen)
    const volts = handedV(plan, lead)
    if (volts !== null) lead.wishV = null
    else if (before?.streams.some((s) => s.id === id)) lead.wishV ??= driveVolts(seenFrom(before, id))
  }
}
