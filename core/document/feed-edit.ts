import {
  converterNames,
  newConverter,
  type Converter,
  type ConverterKind,
  type FeedPart,
  type LoadKind,
  type Source,
} from './feed'
import type { Feed } from './feed-walk'

/** Edits of the feed that move several fields together. */

/**
 * Another nominal voltage: what was typed of the window moves with it.
 * @param volts V; null: not known any more
 */
export function withNominal(source: Source, volts: number | null): Source {
  const old = source.nominalV
  const moved = (end: number | null) => (end === null || volts === null || !old ? null : (end * volts) / old)
  return { ...source, nominalV: volts, lowV: moved(source.lowV), highV: moved(source.highV) }
}

const loadNames: Record<LoadKind, string> = {
  fan: 'Fan',
  led: 'Indicator',
  module: 'Module',
  board: 'Board',
  pump: 'Pump',
  other: 'Load',
}

/** Another kind of load: its name where nobody gave it one, and nothing of what belonged to the old kind. */
export function withLoadKind(part: FeedPart, loadKind: LoadKind): FeedPart {
  const named = !Object.values(loadNames).some((n) => part.name === n || part.name.startsWith(`${n} `))
  return {
    ...part,
    loadKind,
    name: named ? part.name : loadNames[loadKind],
    currentA: null,
    startA: null,
    ratedV: null,
    fanId: null,
    ledString: null,
    ledV: null,
    ledColour: null,
  }
}

/**
 * Another kind of converter in the same place: nothing of the old one's values but what it is to give, and its name where
 * nobody gave it one.
 */
export function withConverterKind(part: Converter, kind: ConverterKind): Converter {
  const { id, parentId, outV, wireAwg, wireMm2, wireLengthM, fuseA } = part
  const named = !Object.values<string>(converterNames).includes(part.name)
  const next = newConverter(id, outV, kind)
  return {
    ...next,
    parentId,
    name: named ? part.name : next.name,
    wireAwg,
    wireMm2,
    wireLengthM,
    fuseA,
  }
}

/** A converter that is to give another voltage, V: what was chosen or measured for the old one must be done again. */
export const withOutput = (part: Converter, outV: number | null): Converter => ({
  ...part,
  outV,
  setFirst: false,
  measuredV: null,
  ohm: null,
  ohm2: null,
  diodes: null,
  duty: null,
})

/** Puts a source behind the others; what hung on nothing hangs on the first one. Changes the feed. */
export function addSource(feed: Feed, source: Source): void {
  if (!feed.sources.length) for (const part of feed.feed) part.parentId ??= source.id
  feed.sources.push(source)
}

/** Takes a source away; what hung on it hangs on the first one left, or on nothing. Changes the feed. */
export function removeSource(feed: Feed, id: string): void {
  feed.sources = feed.sources.filter((s) => s.id !== id)
  for (const part of feed.feed) if (part.parentId === id) part.parentId = feed.sources[0]?.id ?? null
}

/** Takes a part out of its lead; what hung on it hangs where it hung. Changes the feed. */
export function takeOut(feed: Feed, id: string): void {
  const gone = feed.feed.find((p) => p.id === id)
  if (!gone) return
  feed.feed = feed.feed.filter((p) => p !== gone)
  for (const part of feed.feed) if (part.parentId === id) part.parentId = gone.parentId
}

/** Puts a part into the lead of another, right above it. Changes the feed. */
export function putInLead(feed: Feed, lead: FeedPart, part: FeedPart): void {
  part.parentId = lead.parentId
  lead.parentId = part.id
  feed.feed.splice(feed.feed.indexOf(lead), 0, part)
}
