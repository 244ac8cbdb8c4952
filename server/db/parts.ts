import type { z } from 'zod'
import { columnKeys, momentKeys } from '#core/document'
import type { Queryable } from './database'

/**
 * Documents as tables: what a document holds stands in tables below its owner (a job or a fan), whose columns are the
 * fields of the schema. Every statement is written once, when the server starts, from the constant names of tables and
 * schemas; values are parameters only.
 */
export interface Part {
  /** where it stands in the document (or in the part that holds it) */
  key: string
  table: string
  schema: z.ZodObject
  /** field that tells the rows of one holder apart; null: it has at most one */
  by: string | null
  /** column that says which row of the holding part it belongs to */
  link?: string
  parts?: Part[]
}
/** The owner: its table and the column by which parts name it. */
export interface Owner {
  table: string
  column: string
  schema: z.ZodObject
  parts: Part[]
}

type Row = Record<string, unknown>

/** A field's column: wallLossWK is wall_loss_w_k. */
export const columnOf = (key: string) => key.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`)
const quoted = (names: readonly string[]) => names.map((n) => `"${n}"`).join(', ')
const columns = (schema: z.ZodObject) => columnKeys(schema).map(columnOf)

/** A row with column names, for jsonb_populate_recordset. */
const asRow = (schema: z.ZodObject, value: Row): Row =>
  Object.fromEntries(columnKeys(schema).map((key) => [columnOf(key), value[key] ?? null]))

/** Columns under their fields' names; moments as ISO text. */
function fields(schema: z.ZodObject, alias: string): string[] {
  const moments = momentKeys(schema)
  return columnKeys(schema).map((key) => {
    const column = `${alias}."${columnOf(key)}"`
    const value = moments.includes(key)
      ? `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`
      : column
    return `${value} AS "${key}"`
  })
}

/** A part as one JSON value under the document's names: of the owner `o`, or of the row `above` of the part that holds it. */
function jsonOf(owner: Owner, part: Part, depth = 0, holder: Part | null = null): string {
  const me = `p${depth}`
  const above = `p${depth - 1}`
  const nested = (part.parts ?? []).map((inner) => `${jsonOf(owner, inner, depth + 1, part)} AS "${inner.key}"`)
  const mine = `${me}."${owner.column}" = ${holder ? `${above}."${owner.column}"` : 'o.id'}`
  const linked = part.link && holder ? ` AND ${me}."${part.link}" = ${above}."${columnOf(holder.by!)}"` : ''
  const select = `SELECT ${[...fields(part.schema, me), ...nested].join(', ')} FROM ${part.table} ${me} WHERE ${mine}${linked}`
  if (part.by === null) return `(SELECT to_jsonb(x) FROM (${select}) x)`
  const order = part.by === 'id' || part.by === 'position' ? 'position' : columnOf(part.by)
  return `(SELECT coalesce(jsonb_agg(to_jsonb(x)), '[]'::jsonb) FROM (${select} ORDER BY ${me}."${order}") x)`
}

/** All parts below an owner, those of parts too. */
export const flat = (parts: readonly Part[]): Part[] => parts.flatMap((p) => [p, ...flat(p.parts ?? [])])
/** What tells a table's rows apart, with the owner. */
const keysOf = (owner: Owner, part: Part) => [
  owner.column,
  ...(part.link ? [part.link] : []),
  ...(part.by === null ? [] : [columnOf(part.by)]),
]
const allColumns = (owner: Owner, part: Part) => [
  ...new Set([...keysOf(owner, part), ...(part.by === 'id' ? ['position'] : []), ...columns(part.schema)]),
]

/** The statements of one table of parts. */
interface TableStatements {
  table: string
  /** columns that tell its rows apart */
  keys: string[]
  /**
   * Writes rows ($1, as JSON). A row keeps its created_at; its revision and updated_at move only when something in it
   * changed.
   */
  upsert: string
  /** deletes rows of the owners ($1, ids as JSON) that are not among those given ($2, as JSON) */
  deleteMissing: string
}

function statementsOf(owner: Owner, part: Part): TableStatements {
  const { table } = part
  const rows = (parameter: string) => `jsonb_populate_recordset(NULL::${table}, ${parameter}::jsonb)`
  const keys = keysOf(owner, part)
  const all = allColumns(owner, part)
  const rest = all.filter((c) => !keys.includes(c))
  const incoming = rest.map((c) => `EXCLUDED."${c}"`).join(', ')
  const present = rest.map((c) => `t."${c}"`).join(', ')
  return {
    table,
    keys,
    upsert: `INSERT INTO ${table} AS t (${quoted(all)}) SELECT ${quoted(all)} FROM ${rows('$1')}
      ON CONFLICT (${quoted(keys)}) DO UPDATE SET (${quoted(rest)}) = ROW (${incoming}), revision = t.revision + 1, updated_at = now()
      WHERE (${present}) IS DISTINCT FROM (${incoming})`,
    deleteMissing: `DELETE FROM ${table} WHERE ${owner.column} IN (SELECT jsonb_array_elements_text($1::jsonb))
      AND (${quoted(keys)}) NOT IN (SELECT ${quoted(keys)} FROM ${rows('$2')})`,
  }
}

/** What reads and writes the parts below owners of one kind. */
export interface PartStore {
  /** columns to select beside those of the owner `o`: each part as JSON with the document's names */
  select: string
  /**
   * Brings the tables from what is stored to what is given; tables that do not differ are not touched.
   * @param before the documents as they are stored; those not stored yet are left out
   * @param after the documents as they shall be
   */
  write: (tx: Queryable, before: readonly Held[], after: readonly Held[]) => Promise<void>
}
/** A document with its owner's id. */
export interface Held {
  id: string
  document: object
}

export function partStore(owner: Owner): PartStore {
  const tables = flat(owner.parts).map((part) => statementsOf(owner, part))
  return {
    select: owner.parts.map((p) => `${jsonOf(owner, p)} AS "${p.key}"`).join(',\n  '),
    async write(tx, before, after) {
      const stored = partRows(owner, before)
      const given = partRows(owner, after)
      const changed = tables
        .map((t) => ({ ...t, was: JSON.stringify(stored[t.table]), is: JSON.stringify(given[t.table]) }))
        .filter((t) => t.was !== t.is)
      for (const { upsert, is } of changed) if (is !== '[]') await tx.query(upsert, [is])
      const ids = JSON.stringify(before.map((d) => d.id))
      for (const { table, keys, deleteMissing, is } of changed)
        if (anyMissing(keys, stored[table]!, given[table]!)) await tx.query(deleteMissing, [ids, is])
    },
  }
}

/** Whether some row is not among those given any more. */
function anyMissing(keys: readonly string[], stored: readonly Row[], given: readonly Row[]): boolean {
  const keyOf = (row: Row) => JSON.stringify(keys.map((k) => row[k]))
  const there = new Set(given.map(keyOf))
  return stored.some((row) => !there.has(keyOf(row)))
}

/** The parts of documents as rows by table. */
function partRows(owner: Owner, documents: readonly Held[]): Record<string, Row[]> {
  const rows: Record<string, Row[]> = Object.fromEntries(flat(owner.parts).map((p) => [p.table, []]))
  const add = (part: Part, id: string, holder: Row, link: unknown) => {
    const value = holder[part.key]
    const list = (Array.isArray(value) ? value : value ? [value] : []) as Row[]
    list.forEach((item, position) => {
      const row = { ...asRow(part.schema, item), [owner.column]: id, position }
      rows[part.table]!.push(part.link ? { ...row, [part.link]: link } : row)
      for (const inner of part.parts ?? [])
        add(inner, id, item, part.by === 'position' ? position : item[part.by ?? 'id'])
    })
  }
  for (const { id, document } of documents) for (const part of owner.parts) add(part, id, document as Row, null)
  return rows
}

/** Columns of an owner's own row, quoted. */
export const ownColumns = (owner: Owner): string => quoted(columns(owner.schema))
/** An owner's own row as JSON. */
export const ownRow = (owner: Owner, value: object): string => JSON.stringify(asRow(owner.schema, value as Row))
/** Own columns under the document's names, of `o`. */
export const ownFields = (owner: Owner): string => fields(owner.schema, 'o').join(', ')
