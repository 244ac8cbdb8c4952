import { AsyncLocalStorage } from 'node:async_hooks'
import type { Database, Param, Queryable } from './database'

/**
 * Writes that may come twice, because the answer to the first was lost. A request that writes carries an id; with each of
 * its transactions a row is written that holds the id and what came of it, in the same commit. The repeat finds the row and
 * answers from it.
 */

interface Writing {
  id: string
  /** transactions of this request that were begun */
  begun: number
}
const current = new AsyncLocalStorage<Writing | null>()

/** Does the work of a request that carries an id. */
export const asWrite = <T>(id: string | null, work: () => Promise<T>): Promise<T> =>
  current.run(id === null ? null : { id, begun: 0 }, work)
/** Does work whose result is not to be kept: a secret that is told once, work that goes on, or that knows its repeat. */
export const unkept = <T>(work: () => Promise<T>): Promise<T> => current.run(null, work)

/** The key of the transaction that begins now; null where the request has no id. */
export function nextKey(): string | null {
  const writing = current.getStore()
  return writing ? `${writing.id} ${writing.begun++}` : null
}

/** What a transaction of that key came to before; undefined where there was none. */
export async function writtenBefore(tx: Queryable, key: string): Promise<{ result: unknown } | undefined> {
  const [row] = await tx.query<{ result: unknown }>('SELECT result FROM written WHERE id = $1', [key])
  return row
}
/** Keeps what a transaction came to. @throws a unique violation where one of that key was faster */
export const keepWritten = (tx: Queryable, key: string, result: unknown) =>
  tx.query('INSERT INTO written (id, result) VALUES ($1, $2::jsonb)', [key, JSON.stringify(result ?? null)])
/** Forgets what nobody asks again any more. */
export const forgetWritten = (db: Queryable) =>
  db.query("DELETE FROM written WHERE created_at < now() - interval '1 day'")

const WRITES = /^\s*(INSERT|UPDATE|DELETE|WITH)\b/i
export const writes = (sql: string): boolean => WRITES.test(sql)
/** The same database, where a statement of a request that writes by itself is a transaction of its own, with its key. */
export const withKeys = (db: Database): Database => ({
  ...db,
  query: <Row>(sql: string, params?: Param[]) =>
    current.getStore() && writes(sql)
      ? db.transaction((tx) => tx.query<Row>(sql, params))
      : db.query<Row>(sql, params),
})
