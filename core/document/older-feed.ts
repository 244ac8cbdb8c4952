import { converterNames, fansLead, type ConverterKind } from './feed'

/** Feeds of older plans brought into today's shape. `029_feed_as_a_tree.sql` does the same with the tables. */

type Loose = Record<string, unknown>
const isObject = (x: unknown): x is Loose => typeof x === 'object' && x !== null && !Array.isArray(x)
const list = (x: unknown): Loose[] => (Array.isArray(x) ? x.filter(isObject) : [])
const without = (from: Loose, keys: readonly string[]): Loose =>
  Object.fromEntries(Object.entries(from).filter(([key]) => !keys.includes(key)))

/** What a source told of the lead to the fans. */
const ofLead = ['wireAwg', 'wireMm2', 'wireLengthM']
const leadTold = (source: Loose | null) => Object.fromEntries(ofLead.map((key) => [key, source?.[key] ?? null]))

/** The converter that stood beside the parts, as one of them. */
function asPart(converter: Loose, root: unknown): Loose {
  const kind = (converter.kind ?? 'buck') as ConverterKind
  return {
    setFirst: false,
    diodeKind: 'silicon',
    ...converter,
    kind: 'converter',
    converterKind: kind,
    parentId: root,
    name: converterNames[kind] ?? 'Converter',
  }
}

/** A part that hung on the first source by naming nothing. Diodes and resistors make their voltage of their parts. */
function hung(part: Loose, root: unknown, all: readonly Loose[]): Loose {
  const parentId = part.parentId ?? (part.id === root ? null : root)
  if (part.kind !== 'converter') return { ...part, parentId }
  const converterKind = part.converterKind ?? 'buck'
  const byParts =
    converterKind === 'diode' ||
    (converterKind === 'resistor' && !all.some((p) => typeof p.streamId === 'string' && p.parentId === part.id))
  return { ...part, parentId, converterKind, ...(byParts ? { outV: null } : {}) }
}

/** What stood in the lead of the first stream's fans, from its beginning on. */
function trunkOf(parts: readonly Loose[], start: unknown): Loose[] {
  const found: Loose[] = []
  for (let at = start; ;) {
    const next = parts.find(
      (p) => p.carriesFans === true && p.kind !== 'load' && p.parentId === at && !found.includes(p),
    )
    if (!next) return found
    found.push(next)
    at = next.id
  }
}

/** Whether something above a part makes its voltage. */
function isHanded(part: Loose, parts: readonly Loose[], sources: readonly Loose[]): boolean {
  let at = part
  for (let steps = 0; steps < parts.length + 1; steps++) {
    const source = sources.find((s) => s.id === at.parentId)
    if (source) return typeof source.nominalV === 'number'
    const above = parts.find((p) => p.id === at.parentId)
    if (!above) return false
    if (above.kind === 'converter' && typeof above.outV === 'number') return true
    at = above
  }
  return false
}

/**
 * A plan whose first source and whose converter for the fans of the first stream stood in the plan itself, and whose fans
 * had their voltage written beside that: sources are one list, the converter is one of the parts, and the fans of every
 * stream have a lead. What they were to be driven at is kept where nothing makes it.
 * @param plan with its streams in a list
 */
export function inOneTree(plan: Loose): Loose {
  const streams = list(plan.streams)
  const isOlder =
    plan.source !== undefined ||
    plan.converter !== undefined ||
    streams.some(({ selection }) => isObject(selection) && 'driveV' in selection)
  if (!isOlder) return plan
  const first = isObject(plan.source) ? plan.source : null
  const sources = [...(first ? [first] : []), ...list(plan.sources)]
  const root = first?.id ?? null
  const feed = list(plan.feed)
  const hanging = feed.map((part) => hung(part, root, feed))
  const made = isObject(plan.converter) ? asPart(plan.converter, root) : null
  const trunk = trunkOf(hanging, made?.id ?? root)
  const end = trunk.at(-1)?.id ?? made?.id ?? root
  const leads = streams.flatMap(({ id, job, selection }, i) => {
    const picked = isObject(selection) ? selection : null
    const wanted = picked !== null || (i === 0 && (first !== null || made !== null))
    if (!wanted || feed.some((p) => p.streamId === id)) return []
    const name = isObject(job) && typeof job.streamName === 'string' ? job.streamName : ''
    const lead: Loose = { ...fansLead(String(id), name), parentId: i === 0 ? end : root }
    // what spoke of the fans in the feed named them by their pick
    const known = i === 0 && picked && !feed.some((p) => p.id === picked.id) ? { id: picked.id } : {}
    const entry: Loose = { ...lead, ...known, ...(i === 0 ? leadTold(first) : {}) }
    return [entry]
  })
  const own = streams[0]?.id
  const parts = [
    ...(made ? [made] : []),
    ...trunk,
    ...leads.filter((l) => l.streamId === own),
    ...hanging.filter((p) => !trunk.includes(p)),
    ...leads.filter((l) => l.streamId !== own),
  ]
  const wishes = new Map(
    streams.map(({ id, selection }) => [id, isObject(selection) ? (selection.driveV ?? null) : null]),
  )
  return {
    ...without(plan, ['source', 'converter']),
    sources: sources.map((s) => without(s, ofLead)),
    feed: parts.map((part) => ({
      ...without(part, ['carriesFans']),
      ...(typeof part.streamId === 'string' && !isHanded(part, parts, sources)
        ? { wishV: wishes.get(part.streamId) ?? null }
        : {}),
    })),
    streams: streams.map((stream) =>
      isObject(stream.selection) ? { ...stream, selection: without(stream.selection, ['driveV']) } : stream,
    ),
  }
}
