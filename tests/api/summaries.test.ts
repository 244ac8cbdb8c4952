import { afterAll, beforeAll, expect, test } from 'vitest'
import { fillWithDemo } from '../../demo/fill'
import type { Database } from '../../server/db/database'
import { getFan, saveFan } from '../../server/db/repositories/fans'
import { createJob, deleteJob, getPlan, savePlan } from '../../server/db/repositories/jobs'
import { summaries } from '../../server/utils/summaries'
import { memoryDatabase } from './harness'

/** The bench's list: at once with what is known, whole when it is waited for, never stale. */

let db: Database
beforeAll(async () => {
  db = await memoryDatabase()
  await fillWithDemo(db)
})
afterAll(() => db.close())
const JOB = 'job-film-cabinet'
const pickedOf = async (soon = false) => {
  const job = (await summaries(db, soon)).find((j) => j.id === JOB)!
  return JSON.stringify(job.stations.find((s) => s.key === 'line-up')?.headline)
}

test('comes at once without what has to be worked out, and whole the next time', async () => {
  const first = await summaries(db, true)
  expect(first.length).toBeGreaterThan(10)
  expect(first.every((j) => j.pending && j.name && !j.stations.length)).toBe(true)
  const whole = await summaries(db, false)
  expect(whole.map((j) => j.id)).toEqual(first.map((j) => j.id))
  expect(whole.every((j) => !j.pending && j.stations.length === 10)).toBe(true)
  expect(await summaries(db, true)).toEqual(whole)
})
test('only what was changed is worked out anew; until then it stands as before', async () => {
  const before = await summaries(db, false)
  const { plan, revision } = await getPlan(db, JOB)
  const hotter = structuredClone(plan)
  hotter.job.name = 'Cabinet'
  hotter.streams[0]!.job.heatW = 900
  await savePlan(db, hotter, revision)
  const soon = await summaries(db, true)
  expect(soon.filter((j) => j.pending).map((j) => j.id)).toEqual([JOB])
  const was = before.find((j) => j.id === JOB)!
  // its head is that of now, how it stands that of before
  expect(soon.find((j) => j.id === JOB)).toMatchObject({ name: 'Cabinet', stations: was.stations })
  expect((await summaries(db, false)).some((j) => j.pending)).toBe(false)
  await savePlan(db, plan, revision + 1)
})
test('a fan that is changed changes the jobs that speak of it', async () => {
  const { plan } = await getPlan(db, JOB)
  const before = await pickedOf()
  const { fan, revision } = await getFan(db, plan.streams[0]!.places[0]!.fans[0]!.fanId)
  await saveFan(db, { ...fan, model: 'Renamed' }, revision)
  const soon = await summaries(db, true)
  expect(soon.find((j) => j.id === JOB)!.pending).toBe(true)
  expect(soon.filter((j) => !j.pending).length).toBeGreaterThan(5)
  expect(await pickedOf()).toContain('Renamed')
  await saveFan(db, fan, revision + 1)
  expect(await pickedOf()).toBe(before)
})
test('a new job, one that goes, and one that cannot be read', async () => {
  await createJob(db, 'job-new', 'New')
  expect((await summaries(db, false)).find((j) => j.id === 'job-new')).toMatchObject({
    pending: false,
    problem: '',
  })
  await db.script('ALTER TABLE plan_event DROP CONSTRAINT limit_what')
  await db.query(
    "INSERT INTO plan_event (job_id, id, position, at, kind, what) VALUES ('job-new', 'e', 0, now(), 'note', '')",
  )
  await db.query("UPDATE job SET revision = revision + 1 WHERE id = 'job-new'")
  const list = await summaries(db, false)
  expect(list.find((j) => j.id === 'job-new')).toMatchObject({
    pending: false,
    stations: [],
    problem: 'logbook.0.what: Say what happened.',
  })
  expect(list.filter((j) => j.problem)).toHaveLength(1)
  await deleteJob(db, 'job-new')
  expect((await summaries(db, false)).map((j) => j.id)).not.toContain('job-new')
})
test('while jobs are worked out, what else is asked comes in between', async () => {
  const { plan, revision } = await getPlan(db, JOB)
  const { fan, revision: at } = await getFan(db, plan.streams[0]!.places[0]!.fans[0]!.fanId)
  await saveFan(db, { ...fan, notes: 'x' }, at)
  await savePlan(db, { ...plan, job: { ...plan.job, complaint: 'y' } }, revision)
  const order: string[] = []
  const list = summaries(db, false).then(() => order.push('list'))
  const other = (async () => {
    for (let i = 0; i < 3; i++) await new Promise((done) => setImmediate(done))
    order.push('other')
  })()
  await Promise.all([list, other])
  expect(order).toEqual(['other', 'list'])
})
