import { newFan, fanSchema } from '#core/document'
import type { Fan, FanPoint, VoltageCurve } from '#core/document'
import { fromSi, parseNumber, parseQuantity, quantityInfo, toSi } from '#core/units'
import { columns, writtenUnit, type Column, type Mapped } from './columns'

export interface CellIssue {
  column: string
  message: string
}
export type RowResult = { ok: true; fan: Fan } | { ok: false; issues: CellIssue[] }

/** What a cell says in its column; undefined for an empty one. */
function readCell(
  cell: string,
  { column, unit }: Mapped,
): { value: unknown } | { message: string } | undefined {
  const text = cell.trim()
  if (!text || !column) return undefined
  if (column.kind === 'text') return { value: text }
  if (column.kind === 'yes-no') {
    if (/^(yes|y|true|1|x|owned)$/i.test(text)) return { value: true }
    return /^(no|n|false|0|-)$/i.test(text) ? { value: false } : { message: `“${text}” is neither yes nor no.` }
  }
  if (column.kind === 'choice') {
    const found = Object.entries(column.choices!).find(([, words]) => words.includes(text.toLowerCase()))
    return found
      ? { value: found[0] }
      : { message: `“${text}” is none of ${Object.keys(column.choices!).join(', ')}.` }
  }
  if (column.kind === 'curve') return readCurve(text)
  if (column.kind === 'curves') return readCurves(text)
  // a bare number stands in the heading's unit; a cell may bring its own
  const bare = parseNumber(text)
  if (bare && bare !== 'ambiguous' && !bare.rest.trim() && unit) return { value: toSi(bare.value, unit) }
  const read = parseQuantity(text, column.quantity!)
  return read.ok ? { value: read.value } : { message: read.message }
}

/** A curve in a cell: "flow:pressure" pairs with blanks or semicolons between them, m3/h and Pa. */
function readCurve(text: string): { value: FanPoint[] } | { message: string } {
  const pairs = text
    .split(/[;\s]+/)
    .filter(Boolean)
    .map((p) => p.split(':'))
  const points = pairs.map(([q, p]) => ({ flowM3s: Number(q) / 3600, pressurePa: Number(p) }))
  if (
    pairs.some((p) => p.length !== 2) ||
    points.some((p) => !Number.isFinite(p.flowM3s) || !Number.isFinite(p.pressurePa))
  )
    return { message: 'A curve is written as flow:pressure pairs in m³/h and Pa, such as 0:40 20:30 45:0.' }
  return { value: points.sort((a, b) => a.flowM3s - b.flowM3s) }
}

/** Curves at other voltages in a cell: "7 V: pairs | 9 V: pairs". */
function readCurves(text: string): { value: VoltageCurve[] } | { message: string } {
  const curves: VoltageCurve[] = []
  for (const part of text.split('|').filter((p) => p.trim())) {
    const found = /^\s*([\d.]+)\s*V\s*(measured|claim|curve)?\s*:\s*(.+)$/i.exec(part)
    if (!found) return { message: 'Curves at other voltages are written as 7 V: 0:12 20:8 30:0 | 9 V: ….' }
    const read = readCurve(found[3]!.trim())
    if ('message' in read) return read
    curves.push({
      volts: Number(found[1]),
      basis: (found[2]?.toLowerCase() ?? 'curve') as VoltageCurve['basis'],
      points: read.value,
    })
  }
  return { value: curves }
}

/** An id that the same maker and model always get, so that a second import meets the first. */
export function fanId(maker: string, model: string): string {
  const slug = `${maker} ${model}`
    .normalize('NFKD')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '')
  return `fan-${slug || 'unnamed'}`.slice(0, 64).replace(/-$/, '')
}

/**
 * A row of a table as a fan.
 * @param cells in the order of the mapping
 * @param known the fan this id already has: its other values stay
 */
export function readRow(
  cells: readonly string[],
  mapping: readonly Mapped[],
  known: (id: string) => Fan | undefined,
): RowResult {
  const issues: CellIssue[] = []
  const values: Partial<Record<Column['key'], unknown>> = {}
  mapping.forEach((mapped, i) => {
    const read = readCell(cells[i] ?? '', mapped)
    if (!read || !mapped.column) return
    if ('message' in read) issues.push({ column: mapped.column.heading, message: read.message })
    else values[mapped.column.key] = read.value
  })
  const id =
    typeof values.id === 'string' ? values.id : fanId(String(values.maker ?? ''), String(values.model ?? ''))
  const before = known(id)
  if (!before)
    for (const needed of ['model', 'frameM', 'thicknessM', 'ratedV'] as const)
      if (values[needed] === undefined)
        issues.push({
          column: columns.find((c) => c.key === needed)!.heading,
          message: 'Is needed for a new fan.',
        })
  if (issues.length) return { ok: false, issues }
  const checked = fanSchema.safeParse({ ...(before ?? newFan(id)), ...values, id })
  if (checked.success) return { ok: true, fan: checked.data }
  return {
    ok: false,
    issues: checked.error.issues.map((issue) => ({
      column: columns.find((c) => c.key === issue.path[0])?.heading ?? String(issue.path[0] ?? ''),
      message: issue.message,
    })),
  }
}

/** Digits that bring a written number back to the same double. */
const exact = (value: number) => String(Number(value.toPrecision(15)))

const pairsOf = (points: readonly FanPoint[]) =>
  points.map((p) => `${exact(p.flowM3s * 3600)}:${exact(p.pressurePa)}`).join(' ')

/** A fan as the cells of the columns; numbers in the written units. */
export function writeRow(fan: Fan): string[] {
  return columns.map((column) => {
    const value = fan[column.key]
    if (value === null || value === undefined) return ''
    if (column.kind === 'curve') return pairsOf(value as FanPoint[])
    if (column.kind === 'curves')
      return (value as VoltageCurve[])
        .map((c) => `${exact(c.volts)} V ${c.basis}: ${pairsOf(c.points)}`)
        .join(' | ')
    if (column.kind === 'yes-no') return value ? 'yes' : 'no'
    if (typeof value !== 'number') return String(value)
    const unit = writtenUnit(column)
    return exact(unit ? fromSi(value, unit) : value)
  })
}
export const writtenHeadings = (): string[] =>
  columns.map((c) => {
    const unit = writtenUnit(c)
    return c.kind === 'curve' || c.kind === 'curves'
      ? `${c.heading} (m³/h:Pa)`
      : unit
        ? `${c.heading} (${unit.symbol})`
        : c.heading
  })

/** Whether two fans say the same: numbers to ten digits, so that a written table that is read again changes nothing. */
export function sameFan(a: Fan, b: Fan): boolean {
  const same = (x: unknown, y: unknown): boolean => {
    if (typeof x === 'number' && typeof y === 'number')
      return Math.abs(x - y) <= 1e-10 * Math.max(Math.abs(x), Math.abs(y))
    if (Array.isArray(x) && Array.isArray(y)) return x.length === y.length && x.every((v, i) => same(v, y[i]))
    if (x && y && typeof x === 'object' && typeof y === 'object')
      return Object.keys(x).every((k) => same(x[k as keyof typeof x], y[k as keyof typeof y]))
    return x === y
  }
  return same(a, b)
}

/** Units a number column may be told to stand in. */
export const unitsOf = (column: Column) => (column.quantity ? quantityInfo(column.quantity).units : [])
