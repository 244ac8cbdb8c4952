import Papa from 'papaparse'
import { csvOf, plainCell } from './csv'
import { z } from 'zod'
import type { Fan } from '#core/document'
import { fanSchema } from '#core/document'
import { detectColumns, type Mapped } from './columns'
import { readRow, sameFan, writeRow, writtenHeadings, type CellIssue } from './rows'

/** The open shelf file: see docs/formats.md. */
export const SHELF_FORMAT = 'redpoll-shelf'
export const SHELF_VERSION = 1
export const shelfFileSchema = z.object({
  format: z.literal(SHELF_FORMAT),
  version: z.literal(SHELF_VERSION),
  fans: z.array(z.unknown()),
})

/** The same as a JSON Schema, for other programs: docs/shelf.schema.json. */
export const shelfJsonSchema = () =>
  z.toJSONSchema(
    z.object({ format: z.literal(SHELF_FORMAT), version: z.literal(SHELF_VERSION), fans: z.array(fanSchema) }),
    { io: 'input' },
  )

export const writeJson = (fans: readonly Fan[]): string =>
  JSON.stringify({ format: SHELF_FORMAT, version: SHELF_VERSION, fans }, null, 1)
export const writeCsv = (fans: readonly Fan[]): string => csvOf(writtenHeadings(), fans.map(writeRow))

export type RowState = 'new' | 'changed' | 'same' | 'twice' | 'wrong'
export interface PreviewRow {
  line: number
  state: RowState
  name: string
  issues: CellIssue[]
  fan: Fan | null
}
/** A table that was read: its headings, how they are understood, its cells. */
export interface Table {
  headings: string[]
  mapping: Mapped[]
  rows: string[][]
}

/** A sheet of fans has tens of columns; the first line is looked at before the rest is read. */
const MOST_COLUMNS = 300
const HEAD = 100_000

/**
 * Reads text as a table: commas, semicolons or tabs between the cells.
 * @returns the reason where there is none
 */
export function readTable(text: string): Table | string {
  const width = Papa.parse<string[]>(text.slice(0, HEAD), { preview: 1 }).data[0]?.length ?? 0
  if (width > MOST_COLUMNS) return `This table has ${width} columns: at most ${MOST_COLUMNS} are read.`
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    transform: plainCell,
  })
  const [headings, ...rows] = data
  if (!headings || headings.length < 2)
    return 'This is no table: a first line with at least two headings is wanted, cells parted by commas, semicolons or tabs.'
  const broken = errors.find((e) => e.code === 'MissingQuotes')
  if (broken) return `A quote is opened in line ${(broken.row ?? 0) + 1} and never closed.`
  if (!rows.length) return 'There are headings, but no rows below them.'
  return { headings, mapping: detectColumns(headings), rows }
}

/** Reads a JSON shelf file; each fan is judged on its own. */
export function readJson(text: string, known: (id: string) => Fan | undefined): PreviewRow[] | string {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return 'This is not JSON.'
  }
  const file = shelfFileSchema.safeParse(json)
  if (!file.success)
    return `A shelf file says "format": "${SHELF_FORMAT}", "version": ${SHELF_VERSION} and has a list of fans.`
  const judge = judging(known)
  return file.data.fans.map((raw, i) => {
    const checked = fanSchema.safeParse(raw)
    const name = typeof raw === 'object' && raw !== null && 'model' in raw ? String(raw.model) : `fan ${i + 1}`
    return checked.success
      ? judge(i + 1, checked.data)
      : {
          line: i + 1,
          state: 'wrong',
          name,
          fan: null,
          issues: checked.error.issues.map((x) => ({ column: x.path.join('.'), message: x.message })),
        }
  })
}

/** Judges fans one after the other: new, changed, as it stands, or named twice in this file. */
function judging(known: (id: string) => Fan | undefined) {
  const seen = new Map<string, number>()
  return (line: number, fan: Fan): PreviewRow => {
    const earlier = seen.get(fan.id)
    seen.set(fan.id, earlier ?? line)
    const before = known(fan.id)
    const state: RowState =
      earlier !== undefined ? 'twice' : !before ? 'new' : sameFan(before, fan) ? 'same' : 'changed'
    return {
      line,
      state,
      name: `${fan.maker} ${fan.model}`.trim(),
      fan: state === 'twice' ? null : fan,
      issues:
        earlier === undefined
          ? []
          : [{ column: 'model', message: `Stands already in row ${earlier}; the first one counts.` }],
    }
  }
}

/** Reads a table's rows as fans, from one to another: in parts, so that progress can be told. */
export function tableReader(table: Table, known: (id: string) => Fan | undefined) {
  const judge = judging(known)
  return (from: number, to: number): PreviewRow[] =>
    table.rows.slice(from, to).map((cells, i) => {
      const line = from + i + 1
      const result = readRow(cells, table.mapping, known)
      if (result.ok) return judge(line, result.fan)
      const at = table.mapping.findIndex((m) => m.column?.key === 'model')
      return { line, state: 'wrong', name: at >= 0 ? (cells[at] ?? '') : '', fan: null, issues: result.issues }
    })
}
