import { newConverter, newFeedPart, type Converter, type FeedPart } from './feed'
import { streamLead, trunkStream, type StreamPlan } from './stream'

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

/** What was chosen for another voltage and must be chosen again. */
const UNSET = { setFirst: false, measuredV: null, ohm: null, ohm2: null, diodes: null, duty: null } as const

const raises = (kind: Converter['kind']) => kind === 'boost'

/** A converter of a kind for a voltage: the one that is there where it is of that kind, else a new one in its place. */
function converterFor(plan: StreamPlan, kind: Converter['kind'], volts: number, id: string): Converter {
  const { converter } = plan
  if (converter?.kind === kind) return { ...converter, ...UNSET, outV: volts }
  return { ...newConverter(converter?.id ?? id, volts), kind, iMaxA: converter?.iMaxA ?? null }
}

/**
 * The one command that sets the drive voltage, wherever it is asked from: the fan selection and the converter that drives
 * it move together, and what hung on a converter that goes hangs on the source from then on.
 * @param plan changed in place; without a fan selection only the converter is set
 */
export function setDrive(plan: StreamPlan, { volts, duty, by = 'auto', converterId }: Drive): void {
  const { selection, source, converter } = plan
  if (selection) {
    selection.driveV = volts
    if (duty !== undefined) selection.duty = duty
  }
  if (plan.stream !== trunkStream(plan)) return driveFurther(plan, volts, by, converterId)
  if (by === 'straight') return dropConverter(plan)
  if (by !== 'auto') {
    const kind = by.kind ?? converter?.kind ?? 'buck'
    plan.converter = { ...converterFor(plan, kind, volts, converterId), ...by }
    return
  }
  const nominal = source?.nominalV ?? null
  if (nominal === null) {
    if (converter && converter.outV !== volts)
      plan.converter = converterFor(plan, converter.kind, volts, converterId)
    return
  }
  if (Math.abs(nominal - volts) < STRAIGHT * volts) return dropConverter(plan)
  const up = volts > nominal
  const suits = converter !== null && raises(converter.kind) === up
  if (suits && converter.outV === volts) return
  plan.converter = converterFor(plan, suits ? converter.kind : up ? 'boost' : 'buck', volts, converterId)
}

function dropConverter(plan: StreamPlan): void {
  const gone = plan.converter?.id
  plan.converter = null
  if (gone !== undefined) for (const part of plan.feed) if (part.parentId === gone) part.parentId = null
}

/** Kinds that a converter of the feed's tree can be; the plan's own one knows more. */
const treeKinds = ['buck', 'boost', 'linear', 'resistor'] as const
const isTreeKind = (kind: string): kind is (typeof treeKinds)[number] =>
  (treeKinds as readonly string[]).includes(kind)

/** Voltage that a part of the feed is handed, V: that of the nearest converter above it, else the source's. */
function handedV(plan: StreamPlan, parentId: string | null): number | null {
  if (parentId === null) return plan.source?.nominalV ?? null
  if (parentId === plan.converter?.id) return plan.converter.outV
  const source = [plan.source, ...plan.sources].find((s) => s?.id === parentId)
  if (source) return source.nominalV
  const part = plan.feed.find((p) => p.id === parentId)
  return part ? ((part.kind === 'converter' ? part.outV : null) ?? handedV(plan, part.parentId)) : null
}

/** A converter that feeds this lead and nothing else; null where there is none. */
function ownConverter(plan: StreamPlan, lead: FeedPart): FeedPart | null {
  const above = plan.feed.find((p) => p.id === lead.parentId && p.kind === 'converter')
  const alone = plan.feed.filter((p) => p.parentId === lead.parentId).length === 1
  return above && alone ? above : null
}

/**
 * Sets the drive voltage of a further stream's fans: by a converter in their own lead, or none where what they hang on
 * has that voltage already, or a further source has.
 */
function driveFurther(
  plan: StreamPlan,
  volts: number,
  by: NonNullable<Drive['by']>,
  converterId: string,
): void {
  const stream = plan.stream
  let lead = plan.feed.find((p) => p.streamId === stream)
  if (!lead) {
    lead = streamLead(stream, plan.job.streamName)
    plan.feed.push(lead)
  }
  const own = ownConverter(plan, lead)
  const hangsOn = own ? own.parentId : lead.parentId
  const handed = handedV(plan, hangsOn)
  const near = (v: number | null) => v !== null && Math.abs(v - volts) < STRAIGHT * volts
  // where nobody said what it hangs on, a further source that has the voltage is it
  const rail =
    by === 'auto' && hangsOn === null && !near(handed) ? plan.sources.find((s) => near(s.nominalV)) : undefined
  if (by === 'straight' || rail || (by === 'auto' && (handed === null || near(handed)))) {
    lead.parentId = rail?.id ?? hangsOn
    if (own) plan.feed = plan.feed.filter((p) => p !== own)
    return
  }
  const wanted = by === 'auto' ? null : (by.kind ?? null)
  const usual = handed !== null && volts > handed ? 'boost' : 'buck'
  const kind = wanted !== null && isTreeKind(wanted) ? wanted : usual
  const setting = { converterKind: kind, outV: volts, setFirst: false, ohm: null } as const
  if (own) {
    Object.assign(own, own.outV === volts && own.converterKind === kind ? {} : setting)
    return
  }
  const name = `Converter of ${plan.job.streamName || 'a stream'}`.slice(0, 60)
  const made = { ...newFeedPart(converterId, 'converter', lead.parentId), name, ...setting }
  plan.feed.splice(plan.feed.indexOf(lead), 0, made)
  lead.parentId = made.id
}
