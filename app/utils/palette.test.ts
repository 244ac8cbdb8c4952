import { describe, expect, test } from 'vitest'
import { findEntries, type PaletteEntry } from './palette'

const entry = (value: string, kind: string): PaletteEntry => ({ value, kind, run: () => undefined })
const entries = [
  entry('Need', 'station'),
  entry('Film-drying cabinet', 'job'),
  entry('Dew point', 'sum'),
  entry('Cabinet of relays', 'job'),
  ...Array.from({ length: 9 }, (_, i) => entry(`Sedge ${80 + i}`, 'fan')),
]

describe('finding in the palette', () => {
  test('every word counts, in the name or the kind; what begins so stands first', () => {
    expect(findEntries(entries, 'cabinet').map((e) => e.value)).toEqual([
      'Cabinet of relays',
      'Film-drying cabinet',
    ])
    expect(findEntries(entries, 'job film').map((e) => e.value)).toEqual(['Film-drying cabinet'])
    expect(findEntries(entries, 'nothing such')).toEqual([])
  })
  test('one kind does not push the others out', () => {
    const all = findEntries(entries, '')
    expect(all.filter((e) => e.kind === 'fan')).toHaveLength(5)
    expect(all.some((e) => e.kind === 'sum')).toBe(true)
  })
})
