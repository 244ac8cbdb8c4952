import { expose } from 'comlink'
import type { Fan } from '#core/document'
import { columns } from '#shared/exchange/columns'
import { unitsOf } from '#shared/exchange/rows'
import { readJson, readTable, tableReader, type PreviewRow, type Table } from '#shared/exchange/shelf-file'

const PART = 500
let shelf = new Map<string, Fan>()
let table: Table | null = null
let rows: PreviewRow[] = []
let run = 0

export interface HeadingView {
  heading: string
  key: string | null
  unit: string | null
}
export interface Outcome {
  problem: string
  headings: HeadingView[]
  counts: Record<PreviewRow['state'], number>
  sample: PreviewRow[]
}

const views = (): HeadingView[] =>
  table
    ? table.headings.map((heading, i) => ({
        heading,
        key: table!.mapping[i]!.column?.key ?? null,
        unit: table!.mapping[i]!.unit?.symbol ?? null,
      }))
    : []
const SAMPLE = 60
function outcome(problem = ''): Outcome {
  const counts = { new: 0, changed: 0, same: 0, twice: 0, wrong: 0 }
  for (const r of rows) counts[r.state]++
  // what needs a look comes first
  const order: PreviewRow['state'][] = ['wrong', 'twice', 'changed', 'new', 'same']
  const sample = order.flatMap((s) => rows.filter((r) => r.state === s).slice(0, SAMPLE)).slice(0, SAMPLE)
  return { problem, headings: views(), counts, sample }
}

/** Reads shelf files beside the page: a table of any length does not hold the screen up. */
const worker = {
  setShelf(fans: Fan[]): void {
    shelf = new Map(fans.map((f) => [f.id, f]))
  },
  async open(text: string, progress: (share: number) => void): Promise<Outcome> {
    table = null
    rows = []
    if (/^\s*\{/.test(text)) {
      const read = readJson(text, (id) => shelf.get(id))
      if (typeof read === 'string') return outcome(read)
      rows = read
      return outcome()
    }
    const read = readTable(text)
    if (typeof read === 'string') return outcome(read)
    table = read
    return worker.judge(progress)
  },
  /** Another meaning or unit for a heading. */
  remap(
    index: number,
    key: string | null,
    unit: string | null,
    progress: (share: number) => void,
  ): Promise<Outcome> {
    if (!table) return Promise.resolve(outcome())
    const column = columns.find((c) => c.key === key) ?? null
    if (column)
      table.mapping = table.mapping.map((m, i) =>
        i !== index && m.column?.key === column.key ? { column: null, unit: null } : m,
      )
    table.mapping[index] = {
      column,
      unit: column ? (unitsOf(column).find((u) => u.symbol === unit) ?? null) : null,
    }
    return worker.judge(progress)
  },
  async judge(progress: (share: number) => void): Promise<Outcome> {
    const mine = ++run
    rows = []
    const read = tableReader(table!, (id) => shelf.get(id))
    const total = table!.rows.length
    for (let from = 0; from < total && mine === run; from += PART) {
      rows.push(...read(from, from + PART))
      progress(Math.min(1, (from + PART) / total))
      // lets a cancel or a new mapping in
      await new Promise((resolve) => setTimeout(resolve))
    }
    return outcome()
  },
  cancel(): void {
    run++
  },
  /** The fans to write, in parts. */
  part(from: number, size: number): Fan[] {
    return rows
      .filter((r) => r.state === 'new' || r.state === 'changed')
      .slice(from, from + size)
      .map((r) => r.fan!)
  },
}
export type ShelfWorker = typeof worker
expose(worker)
