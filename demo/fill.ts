import { encodeBlock } from '#shared/log-blocks'
import { asOne, type Database } from '../server/db/database'
import { createFan } from '../server/db/repositories/fans'
import { createPlan } from '../server/db/repositories/jobs'
import { createLog, finishLog, putBlock } from '../server/db/repositories/logs'
import { saveStock } from '../server/db/repositories/stock'
import { demoFans } from './fans'
import { demoJobs } from './jobs'
import { demoLogs } from './logs'
import { demoStock } from './stock'

/** Lays out the invented workshop in an empty database. */
export const fillWithDemo = (database: Database): Promise<void> =>
  // all or nothing: a first start that is killed begins again
  asOne(database, async (db) => {
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
      if (log.origin === 'imported') await finishLog(db, log.id, times.length)
    }
  })
