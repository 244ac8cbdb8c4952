import type { Database } from '../db/database'
import { asOne, openDatabase } from '../db/database'
import { DatabaseAway, NotKnown } from '../db/errors'
import { openPostgres, spokenAddress } from '../db/postgres'
import type { Migration } from '../db/migrate'
import type { Startup } from '#shared/api'
import { stopBox } from '../devices/box'

let opening: Promise<Database> | null = null

/** How far the start is: pages are served before the database is open, and say what they wait for. */
export const startup: Startup = { ready: false, away: false, doing: 'starting' }

/** The open database; every route waits for it here. @throws DatabaseAway where its server is waited for */
export async function database(): Promise<Database> {
  if (!opening) throw new Error('The database is not open.')
  if (startup.away) throw new DatabaseAway('it is waited for')
  return opening
}

const isUntouched = async (db: Database) =>
  (await db.query('SELECT 1 FROM fan UNION ALL SELECT 1 FROM job UNION ALL SELECT 1 FROM setting LIMIT 1'))
    .length === 0

/** All of it or nothing; of several servers that find an empty workshop one fills it. */
async function fillOnce(
  db: Database,
  fill: (db: Database) => Promise<void>,
  tell: (text: string) => void,
): Promise<void> {
  await db.query('LOCK TABLE setting IN EXCLUSIVE MODE')
  if (!(await isUntouched(db))) return
  tell('laying out the demo workshop')
  await fill(db)
}

/** Where the workshop is kept: in a data directory of its own, or on a PostgreSQL server. */
interface Place {
  directory: string
  /** postgres://… ; '' for the data directory */
  address: string
}

/** Between two tries to reach a database server that is away, ms. */
const AGAIN_MS = 2000
/** Waits for a database server that is not there yet, and says so meanwhile. */
async function openWhenThere(
  address: string,
  migrations: readonly Migration[],
  tell: (text: string) => void,
): Promise<Database> {
  for (;;) {
    try {
      const db = await openPostgres(address, migrations, startup.away ? () => {} : tell)
      if (startup.away) tell('the database server is there again')
      startup.away = false
      return db
    } catch (error) {
      if (!(error instanceof DatabaseAway) && !(error instanceof NotKnown)) throw error
      if (!startup.away)
        tell(`waiting for the database server at ${spokenAddress(address)}: it does not answer`)
      startup.away = true
      if (!opening) throw error
      await new Promise((done) => setTimeout(done, AGAIN_MS))
    }
  }
}

/**
 * Opens the workshop at the start of the server, not at the first request.
 * @param fill what an untouched data directory is filled with; null leaves it empty
 */
export function startDatabase(
  { directory, address }: Place,
  migrations: Promise<Migration[]>,
  fill: ((db: Database) => Promise<void>) | null,
  progress: (text: string) => void,
): Promise<Database> {
  const tell = (text: string) => {
    startup.doing = text
    progress(text)
  }
  opening = (async () => {
    const db = address
      ? await openWhenThere(address, await migrations, tell)
      : await openDatabase(directory, await migrations, tell)
    if (fill) await asOne(db, (within) => fillOnce(within, fill, tell))
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
  // one that is still waited for is not
  if (startup.away) return
  await (await db?.catch(() => null))?.close()
}
