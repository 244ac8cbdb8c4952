import Papa from 'papaparse'
import { stockKinds, type StockPart } from '#core/document'
import { parseQuantity } from '#core/units'
import { stockPartSchema } from '#core/document'
import { csvOf, plainCell } from './csv'

const headings = ['id', 'kind', 'name', 'volts', 'amps', 'price', 'owned', 'notes'] as const

/** Parts as a table. */
export const writeStock = (parts: readonly StockPart[]): string =>
  csvOf(
    headings,
    parts.map((p) =>
      headings.map((h) =>
        p[h] === null ? '' : typeof p[h] === 'boolean' ? (p[h] ? 'yes' : 'no') : String(p[h]),
      ),
    ),
  )

export interface StockRow {
  line: number
  part: StockPart | null
  message: string
}

/**
 * Reads a table of parts: kind and name are needed, the rest may be missing; a number may carry its unit.
 * @returns the reason where it is no table
 */
export function readStock(text: string): StockRow[] | string {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
    transform: plainCell,
  })
  if (!meta.fields?.includes('kind') || !meta.fields.includes('name'))
    return (
      `A table of parts has the headings kind and name; beside them ` +
      `${headings.filter((h) => h !== 'kind' && h !== 'name').join(', ')}.`
    )
  return data.map((row, i) => {
    const line = i + 1
    const number = (key: 'volts' | 'amps' | 'price', quantity: 'voltage' | 'current' | 'money') => {
      const cell = row[key]?.trim()
      if (!cell) return { value: null }
      const read = parseQuantity(cell, quantity)
      return read.ok ? { value: read.value } : { value: null, message: `${key}: ${read.message}` }
    }
    const [volts, amps, price] = [
      number('volts', 'voltage'),
      number('amps', 'current'),
      number('price', 'money'),
    ]
    const bad = [volts, amps, price].find((n) => n.message)
    if (bad) return { line, part: null, message: bad.message! }
    const kind = row.kind?.trim().toLowerCase() ?? ''
    const name = row.name?.trim() ?? ''
    const id =
      row.id?.trim() ||
      `part-${`${kind} ${name}`
        .normalize('NFKD')
        .toLowerCase()
        .replaceAll(/[^a-z0-9]+/g, '-')
        .replaceAll(/^-|-$/g, '')}`.slice(0, 60)
    const checked = stockPartSchema.safeParse({
      id,
      kind,
      name,
      volts: volts.value,
      amps: amps.value,
      price: price.value,
      owned: /^(yes|y|true|1|x|owned)$/i.test(row.owned?.trim() ?? ''),
      notes: row.notes ?? '',
    })
    return checked.success
      ? { line, part: checked.data, message: '' }
      : {
          line,
          part: null,
          message: stockKinds.includes(kind as 'supply')
            ? checked.error.issues[0]!.message
            : `“${kind}” is none of ${stockKinds.join(', ')}.`,
        }
  })
}
