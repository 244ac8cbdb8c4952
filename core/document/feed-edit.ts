import type { FeedPart, LoadKind, Source } from './feed'

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

/** Another kind of converter below a source or branch: nothing of the old one's values. */
export const withPartConverter = (
  part: FeedPart,
  converterKind: NonNullable<FeedPart['converterKind']>,
): FeedPart => ({
  ...part,
  converterKind,
  diodes: converterKind === 'diode' ? 1 : null,
  efficiency: null,
  ohm: null,
  setFirst: false,
  iMaxA: null,
})
