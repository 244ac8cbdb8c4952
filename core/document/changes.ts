import type { StreamPlan } from './stream'

/** What tells two plans apart, in words: for undo and redo that say what they take back. */

type Named = { id: string; name?: string }
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/** What happened to a list of things: one that came, went or changed, or several. */
function listChange(before: readonly Named[], after: readonly Named[], one: string, many: string): string {
  const nameOf = (x: Named) => x.name?.trim() || one
  const came = after.filter((x) => !before.some((y) => y.id === x.id))
  const went = before.filter((x) => !after.some((y) => y.id === x.id))
  const changed = after.filter((x) => before.some((y) => y.id === x.id && !same(x, y)))
  if (came.length + went.length + changed.length > 1) return many
  if (came[0]) return `${nameOf(came[0])} added`
  if (went[0]) return `${nameOf(went[0])} removed`
  if (changed[0]) return `${nameOf(changed[0])} changed`
  return `order of ${many}`
}

const lists: {
  key:
    | 'path'
    | 'places'
    | 'targets'
    | 'ports'
    | 'feed'
    | 'runs'
    | 'branches'
    | 'beside'
    | 'sources'
    | 'controls'
    | 'logbook'
  one: string
  many: string
}[] = [
  { key: 'path', one: 'element', many: 'the air path' },
  { key: 'places', one: 'place of the fans', many: 'places of the fans' },
  { key: 'branches', one: 'way', many: 'ways side by side' },
  { key: 'targets', one: 'target', many: 'targets' },
  { key: 'ports', one: 'opening', many: 'own openings' },
  { key: 'runs', one: 'run', many: 'runs' },
  { key: 'sources', one: 'source', many: 'sources' },
  { key: 'feed', one: 'part', many: 'the feed' },
  { key: 'controls', one: 'control', many: 'controls' },
  { key: 'logbook', one: 'line of the log book', many: 'the log book' },
  { key: 'beside', one: 'air stream', many: 'air streams' },
]
const singles: { key: keyof StreamPlan; name: string }[] = [
  { key: 'wiring', name: 'wiring' },
  { key: 'battery', name: 'battery' },
  { key: 'sun', name: 'sun' },
  { key: 'calibration', name: 'calibration' },
  { key: 'sink', name: 'heatsink' },
  { key: 'day', name: 'the day' },
  { key: 'build', name: 'steps of the build' },
]

/**
 * What changed between two states of a plan, in few words.
 * @param label what the person calls the field that was typed in, if it was one
 * @example changeWords(before, after) // "Outlet grille changed"
 */
export function changeWords(before: StreamPlan, after: StreamPlan, label = ''): string {
  if (label) return label
  const parts = [
    ...(same(
      before.places.map((p) => p.fans),
      after.places.map((p) => p.fans),
    )
      ? []
      : ['picked fan']),
    ...lists
      .filter(({ key }) => !same(before[key], after[key]))
      .map(({ key, one, many }) => listChange(before[key], after[key], one, many)),
    ...singles.filter(({ key }) => !same(before[key], after[key])).map(({ name }) => name),
    ...(same(before.job, after.job) ? [] : ['facts of the job']),
    ...(same(before.uncertainties, after.uncertainties) ? [] : ['how sure a number is']),
  ]
  // what is named first brought the others along
  return parts[0] ?? 'nothing'
}
