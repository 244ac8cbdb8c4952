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

/** Applies a migration with its mark, within a transaction. */
export async function migrate(
  tx: Queryable,
  { name, sql }: Migration,
  progress: (text: string) => void,
): Promise<void> {
  progress(`preparing the tables: ${name}`)
  await tx.script(sql)
  await tx.query('INSERT INTO schema_migration (name) VALUES ($1)', [name])
}
