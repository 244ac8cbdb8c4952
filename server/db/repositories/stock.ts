import { stockPartSchema, type StockPart } from '#core/document'
import type { Database, Queryable } from '../database'
import { STOCK } from '../owners'
import { ownColumns, ownFields, ownRow } from '../parts'

const COLUMNS = ownColumns(STOCK)
const LIST = `SELECT ${ownFields(STOCK)} FROM stock_part o WHERE deleted_at IS NULL ORDER BY kind, name, id`
const UPSERT = `INSERT INTO stock_part AS t (${COLUMNS}) SELECT ${COLUMNS} FROM jsonb_populate_recordset(NULL::stock_part, $1::jsonb)
  ON CONFLICT (id) DO UPDATE SET (${COLUMNS}) = ROW (${COLUMNS.split(', ')
    .map((c) => `EXCLUDED.${c}`)
    .join(', ')}), deleted_at = NULL, revision = t.revision + 1, updated_at = now()`

/** The parts of the shelf, by kind and name. */
export async function listStock(db: Queryable): Promise<StockPart[]> {
  return (await db.query(LIST)).map((row) => stockPartSchema.parse(row))
}

/** Writes parts, new and known ones, all or none; one that was archived comes back. */
export async function saveStock(db: Database, parts: readonly StockPart[]): Promise<StockPart[]> {
  return db.transaction(async (tx) => {
    await tx.query(UPSERT, [`[${parts.map((p) => ownRow(STOCK, p)).join(',')}]`])
    return listStock(tx)
  })
}

/** Archives parts or brings them back. */
export async function archiveStock(
  db: Database,
  ids: readonly string[],
  archived: boolean,
): Promise<StockPart[]> {
  return db.transaction(async (tx) => {
    await tx.query(
      `UPDATE stock_part
        SET deleted_at = CASE WHEN $2::boolean THEN now() END, updated_at = now(), revision = revision + 1
        WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))`,
      [JSON.stringify(ids), archived],
    )
    return listStock(tx)
  })
}

/** Every part, archived ones too. */
export const keptParts = async (db: Queryable): Promise<{ part: StockPart; archived: boolean }[]> =>
  (
    await db.query(
      `SELECT ${ownFields(STOCK)}, o.deleted_at IS NOT NULL AS archived FROM stock_part o ORDER BY id`,
    )
  ).map(({ archived, ...row }) => ({ part: stockPartSchema.parse(row), archived: archived === true }))
