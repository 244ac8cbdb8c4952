import type { PGlite } from '@electric-sql/pglite'
import type { Queryable } from './database'

export interface Migration {
  name: string
  sql: string
}

/**
 * The migrations that are missing, in the order of their numbers.
 * @returns also whether any was applied before: whether there is something to lose
 * @throws Error when the data directory is newer than this program
 */
export async function pending(
  db: Queryable,
  migrations: readonly Migration[],
): Promise<{ missing: Migration[]; older: boolean }> {
  await db.query(
    'CREATE TABLE IF NOT EXISTS schema_migration (name text PRIMARY KEY, applied_at timestamptz NOT NULL DEFAULT now())',
  )
  const applied = new Set(
    (await db.query<{ name: string }>('SELECT name FROM schema_migration')).map((r) => r.name),
  )
  const ordered = [...migrations].sort((a, b) => a.name.localeCompare(b.name))
  const unknown = [...applied].filter((name) => !ordered.some((m) => m.name === name))
  if (unknown.length)
    throw new Error(`This data directory was written by a newer Redpoll (${unknown.join(', ')}).`)
  return { missing: ordered.filter((m) => !applied.has(m.name)), older: applied.size > 0 }
}

/** Applies migrations, each in a transaction of its own with its mark. */
export async function migrate(
  pg: PGlite,
  missing: readonly Migration[],
  progress: (text: string) => void,
): Promise<void> {
  for (const { name, sql } of missing) {
    progress(`preparing the tables: ${name}`)
    await pg.transaction(async (tx) => {
      await tx.exec(sql)
      await tx.query('INSERT INTO schema_migration (name) VALUES ($1)', [name])
    })
  }
}
