import type { Tick } from './build'
import type { PlanDocument } from './plan'

/**
 * One job changed on two devices: what only one of them touched is kept from both. Where both changed the same thing in
 * different ways, a person decides; but two ticks of one step are both kept, since both were measured.
 */

class Clash extends Error {}
type Values = Record<string, unknown>
interface WithId extends Values {
  id: string
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
const isRecord = (x: unknown): x is Values => typeof x === 'object' && x !== null && !Array.isArray(x)
const isList = (x: unknown): x is WithId[] =>
  Array.isArray(x) && x.every((item) => isRecord(item) && typeof item.id === 'string')

/** Who decides where both measured the same thing. */
type Later = 'mine' | 'theirs'
/** What a tick writes into the plan: the later one of two stands. */
const measured = new Set(['measuredV', 'openV', 'setFirst', 'polarityChecked', 'earthRefitted'])

function merged(base: unknown, mine: unknown, theirs: unknown, key: string, later: Later): unknown {
  if (same(mine, base)) return theirs
  if (same(theirs, base) || same(mine, theirs)) return mine
  if (measured.has(key)) return later === 'mine' ? mine : theirs
  if (isList(mine) && isList(theirs)) return mergedList(isList(base) ? base : [], mine, theirs, later)
  if (isRecord(mine) && isRecord(theirs)) {
    const from = isRecord(base) ? base : {}
    const keys = [...new Set([...Object.keys(theirs), ...Object.keys(mine)])]
    return Object.fromEntries(keys.map((k) => [k, merged(from[k], mine[k], theirs[k], k, later)]))
  }
  throw new Clash()
}

/** Lists whose things have ids: those of the other side in their order, one's own new ones behind them. */
function mergedList(base: WithId[], mine: WithId[], theirs: WithId[], later: Later): WithId[] {
  const of = (list: WithId[], id: string) => list.find((x) => x.id === id)
  const ids = [...new Set([...theirs, ...mine].map((x) => x.id))]
  return ids.flatMap((id) => {
    const [b, m, t] = [of(base, id), of(mine, id), of(theirs, id)]
    if (m && t) return [merged(b, m, t, '', later) as WithId]
    const left = m ?? t!
    // one side took it away; the other must not have changed it meanwhile
    if (b && !same(b, left)) throw new Clash()
    return b ? [] : [left]
  })
}

const latestOf = (plan: PlanDocument) =>
  plan.build?.ticks
    .map((t) => t.at)
    .toSorted()
    .at(-1) ?? ''
const valueWords = (t: Tick) =>
  [t.who || 'somebody', t.value === null ? '' : String(t.value)].filter(Boolean).join(': ')

/** Ticks of one step on both sides: the later one stands, with the other's value in its note. */
function oneTick(base: PlanDocument, mine: PlanDocument, theirs: PlanDocument): string[] {
  const told: string[] = []
  for (const t of theirs.build?.ticks ?? []) {
    const ticks = mine.build!.ticks
    const i = ticks.findIndex((x) => x.id === t.id)
    const m = ticks[i]
    const before = base.build?.ticks.find((x) => x.id === t.id)
    if (!m || same(m, t) || same(m, before) || same(t, before)) continue
    const [stands, other] = m.at >= t.at ? [m, t] : [t, m]
    const note = [
      stands.note,
      `Also ticked at ${other.at.slice(0, 16).replace('T', ' ')}, ${valueWords(other)}`,
      other.note,
    ]
    const kept = {
      ...stands,
      photoId: stands.photoId ?? other.photoId,
      note: note.filter(Boolean).join('; ').slice(0, 4000),
    }
    ticks[i] = kept
    theirs.build!.ticks = theirs.build!.ticks.map((x) => (x.id === t.id ? kept : x))
    told.push(t.seen.split(':')[0] || t.id)
  }
  return told
}

/**
 * What two devices made of one job, put together.
 * @param base as both of them had it
 * @returns the plan, and the steps that both of them ticked; null where both changed the same thing
 */
export function mergePlans(
  base: PlanDocument,
  mine: PlanDocument,
  theirs: PlanDocument,
): { plan: PlanDocument; twice: string[] } | null {
  const [b, m, t] = structuredClone([base, mine, theirs]) as [PlanDocument, PlanDocument, PlanDocument]
  if (m.build && t.build) {
    m.build.id = t.build.id
    if (b.build) b.build.id = t.build.id
  }
  const later = latestOf(mine) >= latestOf(theirs) ? 'mine' : 'theirs'
  const twice = m.build && t.build ? oneTick(b, m, t) : []
  try {
    return { plan: merged(b, m, t, '', later) as PlanDocument, twice }
  } catch (error) {
    if (error instanceof Clash) return null
    throw error
  }
}
