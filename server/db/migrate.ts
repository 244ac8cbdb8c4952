import type { PGlite } from '@electric-sql/pglite'
import type { Database } from './database'

export interface Migration {
  name: string
  sql: string
}

/**
 * Applies the migrations that are missing, each in a transaction of its own with its mark, in the order of their numbers.
 * @throws Error when the data directory is newer than this program
 */
export async function migrate(
  db: Database,
  pg: PGlite,
  migrations: readonly Migration[],
  progress: (text: string) => void,
): Promise<void> {
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
  for (const { name, sql } of ordered) {
    if (applied.has(name)) continue
    progress(`preparing the tables: ${name}`)
    await pg.transaction(async (tx) => {
      await tx.exec(sql)
      await tx.query('INSERT INTO schema_migration (name) VALUES ($1)', [name])
    })
  }
}
