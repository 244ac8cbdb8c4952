import { PGlite } from '@electric-sql/pglite'
import { ClusterDamaged, fileTrouble, keepCopy, prepareCluster } from './cluster'
import { DurableFs, durableParams, type Flushed } from './durable-fs'
import { layLimits } from './limits'
import { acquireLock, type Lock } from './lock'
import { migrate, pending, type Migration } from './migrate'
import { keepWritten, nextKey, withKeys, writtenBefore } from './writes'

export type Param = string | number | boolean | null | Uint8Array

/** What repositories need: SQL with parameters, rows back. */
export interface Queryable {
  query: <Row = Record<string, unknown>>(sql: string, params?: Param[]) => Promise<Row[]>
  /** several statements at once, without parameters: a migration */
  script: (sql: string) => Promise<void>
}

export interface Database extends Queryable {
  transaction: <T>(work: (tx: Queryable) => Promise<T>) => Promise<T>
  close: () => Promise<void>
}

/** Several pieces of work in one transaction: all of it is there afterwards, or nothing. */
export const asOne = <T>(db: Database, work: (within: Database) => Promise<T>): Promise<T> =>
  db.transaction((tx) => work({ ...tx, transaction: (inner) => inner(tx), close: db.close }))

interface Executor {
  query: (sql: string, params?: unknown[]) => Promise<{ rows: unknown[] }>
  exec: (sql: string) => Promise<unknown>
}

const queryable = (executor: Executor): Queryable => ({
  query: async <Row>(sql: string, params: Param[] = []) => (await executor.query(sql, params)).rows as Row[],
  script: async (sql) => {
    await executor.exec(sql)
  },
})

/**
 * Opens the embedded PostgreSQL of a data directory: takes the lock, starts, migrates.
 * @param directory created where missing; null keeps everything in memory, the dump of a cluster begins there with what
 * it holds (tests)
 * @param migrations numbered SQL files in order
 * @param progress told what is being done
 * @param flushed told what is on the disk (tests)
 * @throws ClusterDamaged where its files are not whole
 * @throws DataDirectoryBusy when another living process holds it
 */
export async function openDatabase(
  directory: string | Blob | null,
  migrations: readonly Migration[],
  progress: (text: string) => void = () => {},
  flushed?: Flushed,
): Promise<Database> {
  const kept = typeof directory === 'string' ? directory : null
  const inWords = (error: unknown) => {
    const trouble = kept === null || error instanceof ClusterDamaged ? null : fileTrouble(error)
    return trouble === null ? error : new ClusterDamaged(kept!, trouble)
  }
  let lock: Lock | null = null
  try {
    if (kept !== null) lock = acquireLock(kept)
    const place = kept === null ? null : prepareCluster(kept)
    progress('opening the database (a first start takes some seconds)')
    const open = () =>
      PGlite.create(
        place
          ? {
              fs: new DurableFs(place.cluster, flushed),
              startParams: durableParams(PGlite.defaultStartParams),
            }
          : directory instanceof Blob
            ? { loadDataDir: directory }
            : {},
      )
    let pg = await open()
    place?.opened()
    const { missing, older } = await pending(queryable(pg), migrations)
    if (kept !== null && place && older && missing.length) {
      progress('keeping a copy of the data as they were')
      await pg.close()
      keepCopy(kept, place.cluster, missing[0]!.name)
      pg = await open()
    }
    const db = withKeys({
      ...queryable(pg),
      transaction: <T>(work: (tx: Queryable) => Promise<T>) => {
        const key = nextKey()
        return pg.transaction(async (running) => {
          const tx = queryable(running as Executor)
          const before = key === null ? undefined : await writtenBefore(tx, key)
          if (before) return before.result as T
          const result = await work(tx)
          if (key !== null) await keepWritten(tx, key, result)
          return result
        }) as Promise<T>
      },
      close: async () => {
        await pg.close()
        lock?.release()
      },
    })
    for (const one of missing) await db.transaction((tx) => migrate(tx, one, progress))
    await db.transaction((tx) => layLimits(tx, progress))
    return db
  } catch (error) {
    lock?.release()
    throw inWords(error)
  }
}
