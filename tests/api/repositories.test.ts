import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { demoFans } from '../../demo/fans'
import { demoJobs } from '../../demo/jobs'
import type { Database } from '../../server/db/database'
import { createFan, deleteFan, getFan, listFans, restoreFan, saveFan } from '../../server/db/repositories/fans'
import { createJob, createPlan, deleteJob, getPlan, listPlans, restoreJob, savePlan } from '../../server/db/repositories/jobs'
import { getSettings, saveSettings } from '../../server/db/repositories/settings'
import { Conflict, NotFound, Refused } from '../../server/db/errors'
import { memoryDatabase, migrations } from './harness'

let db: Database
beforeAll(async () => {
  db = await memoryDatabase()
  for (const fan of demoFans) await createFan(db, fan)
})
afterAll(() => db.close())

const count = async (table: 'path_element' | 'reading' | 'target' | 'pick') => Number((await db.query<{ n: string }>({
  path_element: 'SELECT count(*) AS n FROM path_element', reading: 'SELECT count(*) AS n FROM reading', target: 'SELECT count(*) AS n FROM target', pick: 'SELECT count(*) AS n FROM pick',
}[table]))[0]!.n)

describe('plans', () => {
  test('every part of a whole plan comes back as it was stored', async () => {
    for (const plan of demoJobs()) {
      const { plan: stored, revision } = await createPlan(db, plan)
      expect(stored).toEqual(plan)
      expect(revision).toBe(1)
    }
    expect(await listPlans(db)).toHaveLength(4)
  })
  test('saving changes what changed and nothing else', async () => {
    const { plan, revision } = await getPlan(db, 'job-film-cabinet')
    plan.path[0]!.areaM2 = 0.03
    plan.targets.pop()
    const saved = await savePlan(db, plan, revision)
    expect(saved.revision).toBe(revision + 1)
    expect((await getPlan(db, 'job-film-cabinet')).plan).toEqual(plan)
    const rows = await db.query<{ id: string, revision: number }>('SELECT id, revision FROM path_element WHERE job_id = $1 ORDER BY position', ['job-film-cabinet'])
    expect(rows.map(r => r.revision)).toEqual([2, 1, 1, 1, 1])
  })
  test('an old revision is refused and changes nothing', async () => {
    const { plan } = await getPlan(db, 'job-film-cabinet')
    const before = await getPlan(db, 'job-film-cabinet')
    plan.job.name = 'Overwritten'
    await expect(savePlan(db, plan, 1)).rejects.toThrow(Conflict)
    expect(await getPlan(db, 'job-film-cabinet')).toEqual(before)
  })
  test('a failing part rolls the whole save back', async () => {
    const { plan, revision } = await getPlan(db, 'job-mushroom-tent')
    const elements = await count('path_element')
    plan.job.name = 'Half saved'
    plan.path = []
    plan.loads = [{ id: 'l', name: 'bad', count: -1, currentA: 1, startA: null, afterConverter: false }]
    await expect(savePlan(db, plan, revision)).rejects.toThrow()
    expect((await getPlan(db, 'job-mushroom-tent')).plan.job.name).toBe('Mushroom fruiting tent')
    expect(await count('path_element')).toBe(elements)
  })
  test('an unknown fan is refused in words', async () => {
    const { plan, revision } = await getPlan(db, 'job-mushroom-tent')
    plan.pick!.fanId = 'no-such-fan'
    await expect(savePlan(db, plan, revision)).rejects.toThrow(Refused)
  })
  test('two jobs may use the same ids for their parts', async () => {
    const copy = demoJobs()[0]!
    copy.job.id = 'job-copy'
    const readings = await count('reading')
    await createPlan(db, copy)
    expect(await count('reading')).toBe(readings + 4)
    expect((await getPlan(db, 'job-copy')).plan.runs[1]!.readings).toHaveLength(2)
  })
  test('a deleted job is gone until it is restored', async () => {
    await createJob(db, 'job-new', 'New')
    await deleteJob(db, 'job-new')
    await expect(getPlan(db, 'job-new')).rejects.toThrow(NotFound)
    await expect(deleteJob(db, 'job-new')).rejects.toThrow(NotFound)
    await restoreJob(db, 'job-new')
    expect((await getPlan(db, 'job-new')).plan.job.name).toBe('New')
  })
})

describe('the shelf', () => {
  test('fans come back as they were stored', async () => {
    const stored = (await listFans(db)).map(s => s.fan)
    expect(stored).toHaveLength(demoFans.length)
    for (const fan of demoFans) expect(stored.find(f => f.id === fan.id)).toEqual(fan)
  })
  test('shorter curves lose their last points only', async () => {
    const { fan, revision } = await getFan(db, 'fan-sedge-60x25-12v')
    const saved = await saveFan(db, { ...fan, points: fan.points.slice(0, 3) }, revision)
    expect(saved.fan.points).toHaveLength(3)
    await expect(saveFan(db, fan, revision)).rejects.toThrow(Conflict)
  })
  test('a deleted fan leaves the shelf, not the plans that speak of it', async () => {
    const id = 'fan-sedge-92x25-12v'
    await deleteFan(db, id)
    expect((await listFans(db)).some(s => s.fan.id === id)).toBe(false)
    expect((await getFan(db, id)).fan.model).toBe('Sedge 92')
    const { plan, revision } = await getPlan(db, 'job-copy')
    await savePlan(db, plan, revision)
    await restoreFan(db, id)
    expect((await listFans(db)).some(s => s.fan.id === id)).toBe(true)
  })
  test('an id is taken once', async () => {
    await expect(createFan(db, demoFans[0]!)).rejects.toThrow(Refused)
  })
})

test('settings', async () => {
  expect(await getSettings(db)).toEqual({ units: {}, theme: 'system' })
  await saveSettings(db, { units: { flow: 'CFM' }, theme: 'dark' })
  await saveSettings(db, { units: { flow: 'L/s' }, theme: 'dark' })
  expect(await getSettings(db)).toEqual({ units: { flow: 'L/s' }, theme: 'dark' })
})

describe('the tables guard themselves', () => {
  test.each([
    ['a free-area ratio above 1', 'UPDATE path_element SET free_area_ratio = 1.2'], ['an area of zero', 'UPDATE path_element SET area_m2 = 0'], ['an unknown goal', 'UPDATE job SET goal = \'fly\''],
    ['a reading without a run', 'UPDATE reading SET run_id = \'none\''], ['a pick without a fan', 'UPDATE pick SET fan_id = \'none\''], ['a negative current', 'UPDATE power_load SET current_a = -1'],
  ])('%s is refused', async (_, sql) => {
    await expect(db.query(sql)).rejects.toThrow()
  })
  test('migrations carry marks and run once', async () => {
    expect((await db.query<{ name: string }>('SELECT name FROM schema_migration ORDER BY name')).map(r => r.name)).toEqual(migrations.map(m => m.name))
  })
})
