/** Database names to document names and back: wall_loss_w_k is wallLossWK. */
const snake = (key: string) => key.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`)
const camel = (key: string) => key.replace(/_([a-z])/g, (_, c: string) => c.toUpperCase())

type Row = Record<string, unknown>

/** JSON with database column names, for jsonb_populate_record(set). */
export const toRowJson = (value: object | readonly object[]): string =>
  JSON.stringify(Array.isArray(value) ? value.map(snakeKeys) : snakeKeys(value))

const snakeKeys = (value: object): Row =>
  Object.fromEntries(Object.entries(value).map(([k, v]) => [snake(k), v]))

/** Columns that belong to the database only. */
const bookkeeping = new Set([
  'created_at',
  'updated_at',
  'deleted_at',
  'revision',
  'job_id',
  'run_id',
  'position',
])

/** A row as a document part: camel case, timestamps as ISO text, bookkeeping left out. */
export function fromRow(row: Row): Row {
  return Object.fromEntries(
    Object.entries(row)
      .filter(([k]) => !bookkeeping.has(k))
      .map(([k, v]) => [camel(k), v instanceof Date ? v.toISOString() : v]),
  )
}
