import type { Database } from '../db/database'
import { openDatabase } from '../db/database'
import type { Migration } from '../db/migrate'
import type { Startup } from '#shared/api'
import { stopBox } from '../devices/box'

let opening: Promise<Database> | null = null

/** How far the start is: pages are served before the database is open, and say what they wait for. */
export const startup: Startup = { ready: false, doing: 'starting' }

/** The open database; every route waits for it here. */
export function database(): Promise<Database> {
  if (!opening) throw new Error('The database is not open.')
  return opening
}

const isUntouched = async (db: Database) =>
  (await db.query('SELECT 1 FROM fan UNION ALL SELECT 1 FROM job UNION ALL SELECT 1 FROM setting LIMIT 1'))
    .length === 0

/**
 * Opens the data directory at the start of the server, not at the first request.
 * @param fill what an untouched data directory is filled with; null leaves it empty
 */
export function startDatabase(
  directory: string,
  migrations: Promise<Migration[]>,
  fill: ((db: Database) => Promise<void>) | null,
  progress: (text: string) => void,
): Promise<Database> {
  const tell = (text: string) => {
    startup.doing = text
    progress(text)
  }
  opening = (async () => {
    const db = await openDatabase(directory, await migrations, tell)
    if (fill && (await isUntouched(db))) {
      tell('laying out the demo workshop')
      await fill(db)
    }
    startup.ready = true
    return db
  })()
  return opening
}

/** Closes cleanly; safe to call twice. */
export async function stopDatabase(): Promise<void> {
  stopBox()
  const db = opening
  opening = null
  await (await db?.catch(() => null))?.close()
}
