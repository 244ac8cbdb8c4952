/** What the commands that open a workshop themselves share: the data directory or DATABASE_URL, as the server does. */
import { readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { openDatabase, type Database } from '../server/db/database'
import { DataDirectoryBusy } from '../server/db/lock'
import { openPostgres } from '../server/db/postgres'

// what is made here is for its owner only
process.umask(0o077)
const root = join(import.meta.dirname, '..')
const folder = join(root, 'server', 'db', 'migrations')
const migrations = readdirSync(folder).map((name) => ({
  name,
  sql: readFileSync(join(folder, name), 'utf8'),
}))

/** Opens it; ends this process with a sentence where that cannot be done. */
export async function openWorkshop(data: string): Promise<Database> {
  const address = process.env.DATABASE_URL
  try {
    return await (address ? openPostgres(address, migrations) : openDatabase(resolve(root, data), migrations))
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    console.error(
      error instanceof DataDirectoryBusy
        ? `${message} While Redpoll runs, its page “Backup” does the same.`
        : message,
    )
    process.exit(1)
  }
}
