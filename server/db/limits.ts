import { createHash } from 'node:crypto'
import { z } from 'zod'
import { columnKeys } from '#core/document'
import type { Queryable } from './database'
import { tables } from './owners'
import { columnOf } from './parts'

/**
 * Limits of columns, taken from the schemas that check what comes in: there is one source of them, and a row that could
 * not be read is not stored, whoever writes it. They are laid anew when the schemas have changed. Rows of before stay as
 * they are.
 */

/** What a JSON Schema says of a value; the part of it that a column can hold to. */
interface Said {
  type?: string
  enum?: unknown[]
  minimum?: number
  maximum?: number
  exclusiveMinimum?: number
  exclusiveMaximum?: number
  minLength?: number
  maxLength?: number
  maxItems?: number
  anyOf?: Said[]
}
/** A bound beyond this is the number's own, not one of the field. */
const UNBOUND = Number.MAX_SAFE_INTEGER
const text = (value: string) => `'${value.replaceAll("'", "''")}'`

/** What a column must be, as SQL conditions; a value that is not known passes. @param kind the column's type */
function conditionsOf(column: string, said: Said, kind: string): string[] {
  const own = said.anyOf?.filter((s) => s.type !== 'null') ?? [said]
  if (own.length !== 1) return []
  const [s] = own as [Said]
  const all: string[] = []
  const bound = (sign: string, value: number | undefined) => {
    if (value !== undefined && Math.abs(value) < UNBOUND) all.push(`${column} ${sign} (${value})`)
  }
  if (kind === 'ARRAY' && s.maxItems !== undefined) all.push(`cardinality(${column}) <= ${s.maxItems}`)
  if (kind === 'jsonb' && s.type === 'array' && s.maxItems !== undefined)
    all.push(`jsonb_typeof(${column}) = 'array' AND jsonb_array_length(${column}) <= ${s.maxItems}`)
  if (['double precision', 'integer', 'bigint'].includes(kind)) {
    bound('>=', s.minimum)
    bound('<=', s.maximum)
    bound('>', s.exclusiveMinimum)
    bound('<', s.exclusiveMaximum)
    if (s.enum?.every((v) => typeof v === 'number')) all.push(`${column} IN (${s.enum.join(', ')})`)
  }
  if (kind === 'text') {
    if (s.minLength !== undefined) all.push(`length(${column}) >= ${s.minLength}`)
    if (s.maxLength !== undefined) all.push(`length(${column}) <= ${s.maxLength}`)
    const values = s.enum?.filter((v) => typeof v === 'string')
    if (values?.length) all.push(`${column} IN (${values.map(text).join(', ')})`)
  }
  return all
}

/** A limit of a column, as one condition. */
interface Limit {
  table: string
  column: string
  check: string
}
const said = (schema: z.ZodObject) =>
  (z.toJSONSchema(schema, { unrepresentable: 'any', io: 'output' }).properties ?? {}) as Record<string, Said>

/** @param kinds types of the columns there are, by table and column */
function limitsOf(kinds: ReadonlyMap<string, string>): Limit[] {
  return tables().flatMap(({ table, schema }) => {
    const fields = said(schema)
    return columnKeys(schema).flatMap((key) => {
      const column = columnOf(key)
      const kind = kinds.get(`${table}.${column}`)
      const all = kind ? conditionsOf(`"${column}"`, fields[key] ?? {}, kind) : []
      return all.length ? [{ table, column, check: all.join(' AND ') }] : []
    })
  })
}

const KINDS = `SELECT table_name || '.' || column_name AS name, data_type AS kind
  FROM information_schema.columns WHERE table_schema = current_schema()`
/** Conditions on one column, by table and column: what earlier versions wrote, and what stands here from before. */
const PRESENT = `SELECT c.conname AS name, t.relname AS "table", a.attname AS "column"
  FROM pg_constraint c
  JOIN pg_class t ON t.oid = c.conrelid AND t.relnamespace = current_schema()::regnamespace
  JOIN pg_attribute a ON a.attrelid = t.oid AND a.attnum = c.conkey[1]
  WHERE c.contype = 'c' AND cardinality(c.conkey) = 1`
const MARK = "SELECT obj_description('schema_migration'::regclass) AS mark"

/** Lays the limits where they are not those of the schemas. @returns how many were laid */
export async function layLimits(tx: Queryable, progress: (text: string) => void = () => {}): Promise<number> {
  const kinds = new Map((await tx.query<{ name: string; kind: string }>(KINDS)).map((r) => [r.name, r.kind]))
  // tables of an older version, as tests make them: their own limits stand
  const there = new Set([...kinds.keys()].map((name) => name.split('.')[0]))
  if (tables().some((t) => !there.has(t.table))) return 0
  const limits = limitsOf(kinds)
  const mark = `limits ${createHash('sha256').update(JSON.stringify(limits)).digest('hex').slice(0, 16)}`
  const [stands] = await tx.query<{ mark: string | null }>(MARK)
  if (stands?.mark === mark) return 0
  progress('laying the limits of the tables')
  const present = await tx.query<{ name: string; table: string; column: string }>(PRESENT)
  for (const table of new Set(limits.map((l) => l.table))) {
    const own = limits.filter((l) => l.table === table)
    const old = present.filter((p) => p.table === table && own.some((l) => l.column === p.column))
    const changes = [
      ...old.map((p) => `DROP CONSTRAINT "${p.name}"`),
      ...own.map((l) => `ADD CONSTRAINT "limit_${l.column}" CHECK (${l.check}) NOT VALID`),
    ]
    await tx.script(`ALTER TABLE "${table}" ${changes.join(', ')}`)
  }
  await tx.script(`COMMENT ON TABLE schema_migration IS '${mark}'`)
  return limits.length
}
