/** Something that can be found: what it is called, of what kind it is, and what choosing it does. */
export interface PaletteEntry {
  value: string
  kind: string
  run: () => unknown
}

/** So many of one kind, and so many in all: a list that is one look and need not scroll. */
const OF_A_KIND = 5
const IN_ALL = 10

/**
 * The entries that hold every word typed, in their given order; of each kind only the first ones, the ones whose name begins
 * so before the others.
 */
export function findEntries(entries: readonly PaletteEntry[], query: string): PaletteEntry[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean)
  const found = entries.filter((e) => {
    const text = `${e.value} ${e.kind}`.toLowerCase()
    return words.every((w) => text.includes(w))
  })
  const begins = (e: PaletteEntry) => words.length > 0 && e.value.toLowerCase().startsWith(words[0]!)
  const sorted = [...found.filter(begins), ...found.filter((e) => !begins(e))]
  const count = new Map<string, number>()
  return sorted
    .filter((e) => {
      const n = (count.get(e.kind) ?? 0) + 1
      count.set(e.kind, n)
      return n <= OF_A_KIND
    })
    .slice(0, IN_ALL)
}
