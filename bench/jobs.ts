/** Jobs: each read in one statement against one statement a table and job; a save against a read. */
import type { Database } from '../server/db/database'
import { createFan } from '../server/db/repositories/fans'
import { createPlan, getPlan, listHeads, readPlan, savePlan } from '../server/db/repositories/jobs'
import { summaries } from '../server/utils/summaries'
import { demoFans } from '../demo/fans'
import { demoJobs } from '../demo/jobs'
import { memoryDatabase } from '../tests/api/harness'
import { line } from './measure'

const REPEATS = 15
async function median(work: () => Promise<unknown>): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < REPEATS; i++) {
    const from = performance.now()
    await work()
    times.push(performance.now() - from)
  }
  return times.sort((a, b) => a - b)[Math.floor(REPEATS / 2)]!
}

/** Every table that holds rows of a job. */
async function jobTables(db: Database): Promise<string[]> {
  const rows = await db.query<{ table_name: string }>(
    `SELECT DISTINCT table_name FROM information_schema.columns
      WHERE table_schema = 'public' AND column_name = 'job_id' ORDER BY table_name`,
  )
  return rows.map((r) => r.table_name)
}

/** Longest time in which nothing else was done while something goes on, ms. */
async function longestHold(work: () => Promise<unknown>): Promise<number> {
  let [last, longest] = [performance.now(), 0]
  const look = () => {
    const now = performance.now()
    longest = Math.max(longest, now - last)
    last = now
  }
  const timer = setInterval(look, 1)
  await work()
  look()
  clearInterval(timer)
  return longest
}

const MANY = 200
/** The bench's list of many jobs: at once, worked out beside other requests, and again when it is known. */
async function benchList(db: Database): Promise<void> {
  const plans = demoJobs()
  for (let i = plans.length; i < MANY; i++) {
    const { job, ...plan } = plans[i % plans.length]!
    await createPlan(db, { ...plan, job: { ...job, id: `copy-${i}`, variantOf: null } })
  }
  const from = performance.now()
  await summaries(db, true)
  const cold = performance.now() - from
  const hold = await longestHold(() => summaries(db, false))
  const warm = await median(() => summaries(db, false))
  const said = (ms: number) => `${ms.toFixed(0)} ms`
  line(`list of ${MANY} jobs, of which nothing is known yet`, said(cold), 'under 150 ms', cold < 150)
  line(`list of ${MANY} jobs that did not change`, said(warm), 'under 150 ms', warm < 150)
  line('longest that others wait while they are worked out', said(hold), 'under 50 ms', hold < 50)
}

export async function benchJobs(): Promise<void> {
  const db = await memoryDatabase()
  for (const fan of demoFans) await createFan(db, fan)
  for (const plan of demoJobs()) await createPlan(db, plan)
  const tables = await jobTables(db)
  const everyPlan = async () => {
    const plans = []
    for (const { id } of await listHeads(db)) plans.push((await readPlan(db, id))!)
    return plans.filter((p) => 'plan' in p)
  }
  const jobs = await everyPlan()

  const list = await median(everyPlan)
  const byTable = await median(async () => {
    for (const { plan } of jobs)
      for (const table of tables) await db.query(`SELECT * FROM "${table}" WHERE job_id = $1`, [plan.job.id])
  })
  line(
    `${jobs.length} jobs with their plans: a statement a table and job, against ours`,
    `${(byTable / list).toFixed(1)} x`,
    'at least 2 x',
    byTable / list >= 2,
  )

  const { id } = jobs[0]!.plan.job
  const read = await median(() => getPlan(db, id))
  let margin = 0
  const save = await median(async () => {
    const { plan, revision } = await getPlan(db, id)
    margin += 0.001
    plan.streams[0]!.job.margin = margin
    await savePlan(db, plan, revision)
  })
  line(
    'reading a job, changing a field and saving it, against reading it',
    `${(save / read).toFixed(1)} x`,
    'at most 8 x',
    save / read <= 8,
  )
  await benchList(db)
  await db.close()
}
