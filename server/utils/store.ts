import type { Database } from '../db/database'
import { openDatabase } from '../db/database'
import type { Migration } from '../db/migrate'
import { createFan } from '../db/repositories/fans'
import { createPlan } from '../db/repositories/jobs'
import { demoFans } from '../../demo/fans'
import { demoJobs } from '../../demo/jobs'
import { demoLogs } from '../../demo/logs'
import { demoStock } from '../../demo/stock'
import { stopBox } from '../devices/box'
import { encodeBlock } from '#shared/log-blocks'
import { createLog, putBlock } from '../db/repositories/logs'
import { saveStock } from '../db/repositories/stock'

let opening: Promise<Database> | null = null

/** The open database; every route waits for it here. */
export function database(): Promise<Database> {
  if (!opening) throw new Error('The database is not open.')
  return opening
}

/** Fills an empty database with the invented workshop, all or nothing being less important than saying what happens. */
export async function fillWithDemo(db: Database): Promise<void> {
  for (const fan of demoFans) await createFan(db, fan)
  await saveStock(db, demoStock)
  for (const plan of demoJobs().reverse()) await createPlan(db, plan)
  for (const { jobId, log, times, columns } of demoLogs()) {
    await createLog(db, jobId, log)
    await putBlock(db, log.id, {
      seq: 0,
      rows: times.length,
      channels: columns.length,
      data: encodeBlock(times, columns),
    })
  }
}

const isUntouched = async (db: Database) =>
  (await db.query('SELECT 1 FROM fan UNION ALL SELECT 1 FROM job UNION ALL SELECT 1 FROM setting LIMIT 1'))
    .length === 0

/**
 * Opens the data directory at the start of the server, not at the first request.
 * @param empty leave a new data directory without the demo
 */
export function startDatabase(
  directory: string,
  migrations: Promise<Migration[]>,
  empty: boolean,
  progress: (text: string) => void,
): Promise<Database> {
  opening = (async () => {
    const db = await openDatabase(directory, await migrations, progress)
    if (!empty && (await isUntouched(db))) {
      progress('laying out the demo workshop')
      await fillWithDemo(db)
    }
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
