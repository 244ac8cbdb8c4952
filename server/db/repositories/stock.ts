import type { StockPart } from '#core/document'
import { stockPartSchema } from '#shared/schemas/stock'
import type { Database, Queryable } from '../database'
import { fromRow, toRowJson } from '../rows'

const COLUMNS = 'kind, name, volts, amps, price, owned, notes'

/** The parts of the shelf, by kind and name. */
export async function listStock(db: Queryable): Promise<StockPart[]> {
  return (
    await db.query<Record<string, unknown>>(
      `SELECT id, ${COLUMNS} FROM stock_part WHERE deleted_at IS NULL ORDER BY kind, name, id`,
    )
  ).map((row) => stockPartSchema.parse(fromRow(row)))
}

/** Writes parts, new and known ones, all or none; one that was put aside comes back. */
export async function saveStock(db: Database, parts: readonly StockPart[]): Promise<StockPart[]> {
  return db.transaction(async (tx) => {
    await tx.query(
      `INSERT INTO stock_part AS t (id, ${COLUMNS}) SELECT id, ${COLUMNS} FROM jsonb_populate_recordset(NULL::stock_part, $1::jsonb)
      ON CONFLICT (id) DO UPDATE SET (${COLUMNS}) = ROW (EXCLUDED.kind, EXCLUDED.name, EXCLUDED.volts, EXCLUDED.amps, EXCLUDED.price, EXCLUDED.owned, EXCLUDED.notes), deleted_at = NULL, revision = t.revision + 1, updated_at = now()`,
      [toRowJson(parts)],
    )
    return listStock(tx)
  })
}

/** Puts parts aside or brings them back. */
export async function archiveStock(db: Database, ids: readonly string[], aside: boolean): Promise<StockPart[]> {
  return db.transaction(async (tx) => {
    await tx.query(
      'UPDATE stock_part SET deleted_at = CASE WHEN $2::boolean THEN now() END, updated_at = now(), revision = revision + 1 WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))',
      [JSON.stringify(ids), aside],
    )
    return listStock(tx)
  })
}
