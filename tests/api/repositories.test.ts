import { randomUUID } from 'node:crypto'
import { readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { jobSchema, newCalibration, newElement, newFeedPart, newPlan } from '#core/document'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { demoFans } from '../../demo/fans'
import { demoJobs } from '../../demo/jobs'
import { asOne, openDatabase, type Database } from '../../server/db/database'
import {
  createFan,
  deleteFan,
  getFan,
  importFans,
  pageOfFans,
  restoreFan,
  saveFan,
  undoImport,
  fanIds,
} from '../../server/db/repositories/fans'
import {
  createJob,
  createPlan,
  createVariant,
  deleteJob,
  getPlan,
  listHeads,
  listVariants,
  readPlan,
  restoreJob,
  savePlan,
} from '../../server/db/repositories/jobs'
import { changesOf, shelfChanges } from '../../server/db/repositories/changes'
import { createInstrument } from '../../server/db/repositories/instruments'
import { rememberBase } from '../../server/db/bases'
import { asWrite, unkept } from '../../server/db/writes'
import { getSettings, saveSettings } from '../../server/db/repositories/settings'
import { MAX_ON_PAGE } from '#shared/api'
import { fanQuerySchema } from '#shared/schemas/fan'
import { Conflict, NotFound, Refused } from '../../server/db/errors'
import { layLimits } from '../../server/db/limits'
import { memoryDatabase, migrations, onPostgres, temporaryDir } from './harness'

/** Every job of the bench with its plan, or why it has none. */
const listPlans = async (from: Database) =>
  Promise.all((await listHeads(from)).map(async (head) => (await readPlan(from, head.id))!))

let db: Database
beforeAll(async () => {
  db = await memoryDatabase()
  for (const fan of demoFans) await createFan(db, fan)
})
afterAll(() => db.close())
const everything = fanQuerySchema.parse({ limit: MAX_ON_PAGE })
const listFans = async (of: Database) => (await pageOfFans(of, everything)).fans

const count = async (table: 'feed_part' | 'reading' | 'target') =>
  Number(
    (
      await db.query<{ n: string }>(
        {
          feed_part: 'SELECT count(*) AS n FROM feed_part',
          reading: 'SELECT count(*) AS n FROM reading',
          target: 'SELECT count(*) AS n FROM target',
        }[table],
      )
    )[0]!.n,
  )

describe('plans', () => {
  test('every part of a whole plan comes back as it was stored', async () => {
    for (const plan of demoJobs()) {
      const { plan: stored, revision } = await createPlan(db, plan)
      expect(stored).toEqual(plan)
      expect(revision).toBe(1)
    }
    expect(await listPlans(db)).toHaveLength(demoJobs().length)
  })
  test('branches, points, doubts, openings and a calibration come back, change, and go', async () => {
    const { plan, revision } = await getPlan(db, 'job-hydroponic-tank')
    plan.streams[0]!.calibration = {
      ...newCalibration('c'),
      kind: 'pairs',
      fanId: plan.streams[0]!.places[0]!.fans[0]!.fanId,
      points: [
        { flowM3s: 0.01, pressurePa: 4 },
        { flowM3s: 0.02, pressurePa: 15 },
      ],
    }
    plan.streams[0]!.path.push({
      ...newElement('own', 'custom'),
      branchId: 'way-mesh',
      points: [{ flowM3s: 0.005, pressurePa: 1 }],
    })
    plan.streams[0]!.sink = [{ flowM3s: 0.004, kPerW: 1 }]
    plan.streams[0]!.uncertainties.push({ id: 'waterC', grade: 'assumed', low: 22, high: 25 })
    plan.streams[0]!.path[0]!.basis = 'assumed'
    plan.streams[0]!.job.workings = [{ key: 'volumeM3', value: 0.3, text: '60 × 50 × 100 cm' }]
    plan.job.known = [{ rule: 'safe-mains', subject: '', reason: 'a licensed electrician works there' }]
    const second = await savePlan(db, plan, revision)
    expect((await getPlan(db, plan.job.id)).plan).toEqual(plan)
    // the split goes with its ways and what stood in them, in one save
    Object.assign(plan.streams[0]!, {
      path: plan.streams[0]!.path.filter((e) => e.kind !== 'split' && e.branchId === null),
      branches: [],
      calibration: null,
      sink: [],
      uncertainties: [],
      ports: [],
    })
    await savePlan(db, plan, second.revision)
    expect((await getPlan(db, plan.job.id)).plan).toEqual(plan)
  })
  test('a fan that ran for a calibration must exist', async () => {
    const { plan, revision } = await getPlan(db, 'job-film-cabinet')
    plan.streams[0]!.calibration = { ...newCalibration('c'), fanId: 'fan-unknown' }
    await expect(savePlan(db, plan, revision)).rejects.toBeInstanceOf(Refused)
  })
  test('variants stand beside the job they came from, whichever of them they were made of', async () => {
    const { plan } = await getPlan(db, 'job-kiln-controller')
    const one = await createVariant(db, 'job-kiln-controller', 'job-v1', 'More air', {
      ...plan,
      streams: plan.streams.map((s) => ({ ...s, job: { ...s.job, heatW: 80 } })),
    })
    expect(one.plan.job).toMatchObject({ id: 'job-v1', name: 'More air', variantOf: 'job-kiln-controller' })
    expect(one.plan.streams[0]!.job.heatW).toBe(80)
    await createVariant(db, 'job-v1', 'job-v2', 'Again', one.plan)
    expect((await listVariants(db, 'job-v2')).map((v) => v.plan.job.id)).toEqual([
      'job-kiln-controller',
      'job-v1',
      'job-v2',
    ])
    await deleteJob(db, 'job-v1')
    expect((await listVariants(db, 'job-kiln-controller')).map((v) => v.plan.job.id)).toEqual([
      'job-kiln-controller',
      'job-v2',
    ])
    await deleteJob(db, 'job-v2')
    await expect(createVariant(db, 'job-gone', 'job-v3', 'x', plan)).rejects.toBeInstanceOf(NotFound)
  })
  test('saving changes what changed and nothing else', async () => {
    const { plan, revision } = await getPlan(db, 'job-film-cabinet')
    plan.targets[0]!.limit = 51
    plan.streams[0]!.path[0]!.areaM2 = 0.03
    const saved = await savePlan(db, plan, revision)
    expect(saved.revision).toBe(revision + 1)
    expect((await getPlan(db, 'job-film-cabinet')).plan).toEqual(plan)
    const rows = await db.query<{ id: string; revision: number }>(
      `SELECT id, revision FROM target WHERE job_id = $1
        UNION ALL SELECT id, revision FROM air_stream WHERE job_id = $1
        UNION ALL SELECT id, revision FROM power_source WHERE job_id = $1`,
      ['job-film-cabinet'],
    )
    expect(rows.map((r) => r.revision).toSorted()).toEqual([...plan.targets.slice(1).map(() => 1), 1, 2, 2])
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
    const targets = await count('target')
    plan.job.name = 'Half saved'
    plan.targets = []
    plan.feed = [{ ...newFeedPart('l', 'load', null), count: -1, currentA: 1 }]
    await expect(savePlan(db, plan, revision)).rejects.toThrow()
    expect((await getPlan(db, 'job-mushroom-tent')).plan.job.name).toBe('Mushroom fruiting tent')
    expect(await count('target')).toBe(targets)
  })
  test('an unknown fan is refused in words', async () => {
    const { plan, revision } = await getPlan(db, 'job-mushroom-tent')
    plan.streams[0]!.places[0]!.fans[0]!.fanId = 'no-such-fan'
    await expect(savePlan(db, plan, revision)).rejects.toThrow(Refused)
  })
  test('two jobs may use the same ids for their parts', async () => {
    const copy = demoJobs()[0]!
    copy.job.id = 'job-copy'
    const readings = await count('reading')
    await createPlan(db, copy)
    expect(await count('reading')).toBe(readings + copy.runs.flatMap((r) => r.readings).length)
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
    const stored = (await listFans(db)).map((s) => s.fan)
    expect(stored).toHaveLength(demoFans.length)
    for (const fan of demoFans) expect(stored.find((f) => f.id === fan.id)).toEqual(fan)
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
    expect((await listFans(db)).some((s) => s.fan.id === id)).toBe(false)
    expect((await getFan(db, id)).fan.model).toBe('Sedge 92')
    const { plan, revision } = await getPlan(db, 'job-copy')
    await savePlan(db, plan, revision)
    await restoreFan(db, id)
    expect((await listFans(db)).some((s) => s.fan.id === id)).toBe(true)
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
    ['a path that is none', `UPDATE air_stream SET path = '{}'`],
    ['a wire of no length', 'UPDATE power_source SET wire_length_m = 0'],
    ['an unknown domain', "UPDATE job SET domain = 'space'"],
    ['a reading without a run', "UPDATE reading SET run_id = 'none'"],
    ['a load without a fan', "UPDATE feed_part SET fan_id = 'none'"],
    ['a negative current', 'UPDATE feed_part SET current_a = -1'],
  ])('%s is refused', async (_, sql) => {
    await expect(db.query(sql)).rejects.toThrow()
  })
  test('migrations carry marks and run once', async () => {
    expect(
      (await db.query<{ name: string }>('SELECT name FROM schema_migration ORDER BY name')).map((r) => r.name),
    ).toEqual(migrations.map((m) => m.name))
  })
})

describe('importing fans', () => {
  test('new, known and put-aside ones in one go, and all of it back', async () => {
    const [known, aside] = [demoFans[0]!, demoFans[5]!]
    await deleteFan(db, aside.id)
    const fresh = { ...known, id: 'fan-fresh', model: 'Fresh' }
    const done = await importFans(db, [{ ...known, price: 77 }, { ...aside, notes: 'back' }, fresh])
    expect(done).toMatchObject({ created: [aside.id, 'fan-fresh'], before: [known] })
    expect((await listFans(db)).find((f) => f.fan.id === known.id)!.fan.price).toBe(77)
    await undoImport(db, done)
    const ids = (await listFans(db)).map((f) => f.fan.id)
    expect(ids).not.toContain('fan-fresh')
    expect((await getFan(db, known.id)).fan).toEqual(known)
    await restoreFan(db, aside.id)
  })
  test('taking it back leaves alone what somebody has changed since', async () => {
    const [typed, left] = [demoFans[1]!, demoFans[2]!]
    const done = await importFans(db, [
      { ...typed, price: 1 },
      { ...left, price: 2 },
      { ...typed, id: 'fan-new', model: 'New one' },
    ])
    const { fan, revision } = await getFan(db, typed.id)
    await saveFan(db, { ...fan, notes: 'typed since' }, revision)
    const fresh = await getFan(db, 'fan-new')
    await saveFan(db, { ...fresh.fan, notes: 'measured' }, fresh.revision)
    expect(await undoImport(db, done)).toEqual({
      undone: 1,
      left: expect.arrayContaining([typed.model, 'New one']),
    })
    expect((await getFan(db, typed.id)).fan).toMatchObject({ price: 1, notes: 'typed since' })
    expect((await getFan(db, left.id)).fan).toEqual(left)
    expect((await listFans(db)).map((f) => f.fan.id)).toContain('fan-new')
    await deleteFan(db, 'fan-new')
    await saveFan(db, typed, revision + 1)
  })
  test('one that the database refuses leaves no half-written shelf', async () => {
    const before = await listFans(db)
    await expect(
      importFans(db, [
        { ...demoFans[0]!, price: 1 },
        { ...demoFans[1]!, id: 'fan-odd', frameM: -1 },
      ]),
    ).rejects.toThrow()
    expect(await listFans(db)).toEqual(before)
  })
})

describe.skipIf(onPostgres)('a data directory of the first version', () => {
  test('is brought up to date, and its jobs are all there', async () => {
    const dir = temporaryDir()
    const old = await openDatabase(dir, migrations.slice(0, 1))
    await old.query(`INSERT INTO job (id, name, goal, equipment, complaint, untouchable, breathes_in, breathes_out,
      ambient_c, altitude_m, humidity, hours_per_day, listener_m, heat_w, heat_basis, inside_max_c, keep_basis,
      existing_count, domain)
      VALUES ('old', 'Old box', 'cool', 'Box', '', '', '', '', 22, 100, 0.5, 8, 1, 60, 'measured', 40, 'typed', 1, 'general')`)
    await old.query(
      'INSERT INTO path_element (job_id, id, position, kind, name, basis, area_m2, edge) VALUES ($1, $2, 0, $3, $4, $5, 0.006, $6)',
      ['old', 'hole', 'opening', 'Hole', 'measured', 'sharp'],
    )
    await old.query(
      'INSERT INTO target (job_id, id, position, kind, "limit", place, why) VALUES ($1, $2, 0, $3, 40, $4, $5)',
      ['old', 't', 'temperature', 'inside', ''],
    )
    await old.close()
    const now = await openDatabase(dir, migrations)
    // as it was stands beside it, for a program of that time
    const [kept] = readdirSync(join(dir, 'copies'))
    const copy = await openDatabase(join(dir, 'copies', kept!), migrations.slice(0, 1))
    expect(await copy.query('SELECT name FROM job')).toEqual([{ name: 'Old box' }])
    await copy.close()
    const { plan } = await getPlan(now, 'old')
    const blank = newPlan('old', 'Old box')
    const stream = blank.streams[0]!
    expect(plan).toEqual({
      ...blank,
      job: { ...blank.job, equipment: 'Box' },
      streams: [
        {
          ...stream,
          job: { ...stream.job, heatW: 60, heatBasis: 'measured', insideMaxC: 40, keepBasis: 'typed' },
          path: [{ ...newElement('hole', 'opening'), name: 'Hole', basis: 'measured', areaM2: 0.006 }],
        },
      ],
      targets: [
        {
          id: 't',
          kind: 'temperature',
          name: '',
          unit: '',
          limit: 40,
          upper: null,
          place: 'inside',
          streamId: 'main',
          sense: null,
          stage: '',
          setBy: '',
          why: '',
        },
      ],
    })
    await now.close()
    rmSync(dir, { recursive: true, force: true })
  })
})

test('several pieces of work are one: what breaks off in the middle leaves nothing', async () => {
  const db = await memoryDatabase()
  const lay = (names: string[], breaks: boolean) =>
    asOne(db, async (within) => {
      for (const name of names) await createPlan(within, newPlan(name, name))
      if (breaks) throw new Error('the power went off')
    })
  await expect(lay(['one', 'two'], true)).rejects.toThrow('power')
  expect(await db.query('SELECT id FROM job')).toEqual([])
  await lay(['one', 'two'], false)
  expect(await db.query('SELECT id FROM job')).toHaveLength(2)
  await db.close()
})

test('a job that cannot be read is named and hides no other', async () => {
  const db = await memoryDatabase()
  for (const id of ['whole', 'torn']) await createPlan(db, newPlan(id, `Job ${id}`))
  // as an older version wrote it, whose limits were others
  await db.script('ALTER TABLE plan_event DROP CONSTRAINT limit_what')
  await db.query(
    "INSERT INTO plan_event (job_id, id, position, at, kind, what) VALUES ('torn', 'e', 0, now(), 'note', '')",
  )
  const listed = await listPlans(db)
  expect(listed.find((p) => 'plan' in p && p.plan.job.id === 'whole')).toBeDefined()
  expect(listed.find((p) => 'problem' in p)).toMatchObject({
    id: 'torn',
    name: 'Job torn',
    problem: 'logbook.0.what: Say what happened.',
  })
  await db.close()
})

describe('limits of the tables', () => {
  let own: Database
  beforeAll(async () => {
    own = await memoryDatabase()
    await createPlan(own, newPlan('one', 'One'))
  })
  afterAll(() => own.close())
  const set = (what: string) => own.query(`UPDATE job SET ${what} WHERE id = 'one'`)

  test('are those of the schemas: what no page could read is not stored, whoever writes it', async () => {
    const limits = {
      ambient_c: jobSchema.shape.ambientC,
      name: jobSchema.shape.name,
      domain: jobSchema.shape.domain,
    }
    const tries: [keyof typeof limits, unknown, string][] = [
      ['ambient_c', 80, '80'],
      ['ambient_c', 80.01, '80.01'],
      ['ambient_c', -40, '-40'],
      ['ambient_c', -40.01, '-40.01'],
      ['name', 'x'.repeat(120), "repeat('x', 120)"],
      ['name', 'x'.repeat(121), "repeat('x', 121)"],
      ['name', '', "''"],
      ['domain', 'space', "'space'"],
      ['domain', 'aircraft', "'aircraft'"],
    ]
    for (const [column, value, sql] of tries) {
      const readable = limits[column].safeParse(value).success
      const stored = await set(`${column} = ${sql}`).then(
        () => true,
        (error: { code?: string }) => error.code !== '23514',
      )
      expect(stored, `${column} = ${sql}`).toBe(readable)
    }
  })
  test('are laid once, and anew when they are others; a row of before stays and can still be put aside', async () => {
    expect(await own.transaction((tx) => layLimits(tx))).toBe(0)
    await own.script("COMMENT ON TABLE schema_migration IS 'limits of before'")
    await own.script('ALTER TABLE target DROP CONSTRAINT limit_kind')
    await own.query(
      `INSERT INTO target (job_id, id, position, kind, "limit", place, why) VALUES ('one', 't', 0, 'shape', 1, '', '')`,
    )
    expect(await own.transaction((tx) => layLimits(tx))).toBeGreaterThan(300)
    await expect(own.query(`UPDATE target SET "limit" = 2 WHERE job_id = 'one'`)).rejects.toMatchObject({
      code: '23514',
    })
    expect((await listPlans(own)).map((p) => 'problem' in p)).toEqual([true])
    await deleteJob(own, 'one')
    expect(await listPlans(own)).toEqual([])
  })
})

describe('a write that comes twice', () => {
  test('is done once and answered as the first time; another id is another write', async () => {
    const make = (key: string) => asWrite(key, () => createJob(db, `job-${randomUUID().slice(0, 8)}`, 'Once'))
    const first = await make('key-one')
    expect(await make('key-one')).toEqual(first)
    expect((await make('key-two')).plan.job.id).not.toBe(first.plan.job.id)
    // a statement alone too: what was deleted is not “not there” when it is asked again
    const drop = () => asWrite('key-three', () => deleteJob(db, first.plan.job.id))
    await drop()
    await expect(drop()).resolves.toBeUndefined()
    await expect(deleteJob(db, first.plan.job.id)).rejects.toThrow('does not exist')
  })
  test('one that failed leaves nothing, and is tried again', async () => {
    const key = 'key-four'
    await expect(asWrite(key, () => deleteJob(db, 'job-of-nobody'))).rejects.toThrow('does not exist')
    await createJob(db, 'job-of-nobody', 'Now there')
    await asWrite(key, () => deleteJob(db, 'job-of-nobody'))
    await expect(getPlan(db, 'job-of-nobody')).rejects.toThrow('does not exist')
  })
  test('secrets are not kept', async () => {
    await asWrite('key-five', () => unkept(() => createInstrument(db, 'board-secret', 'Secret board', 'board')))
    expect(await db.query("SELECT 1 FROM written WHERE id LIKE 'key-five%'")).toEqual([])
  })
})

test('two people who change different things of one job: both are kept; the same thing is sent back', async () => {
  const { plan, revision } = await createJob(db, 'job-two-people', 'Two people')
  rememberBase(db, plan, revision)
  const by = (job: object) => savePlan(db, { ...plan, job: { ...plan.job, ...job } }, revision)
  await by({ complaint: 'hot' })
  expect(await by({ equipment: 'an oven' })).toMatchObject({
    revision: revision + 2,
    plan: { job: { complaint: 'hot', equipment: 'an oven' } },
  })
  expect((await getPlan(db, 'job-two-people')).plan.job).toMatchObject({
    complaint: 'hot',
    equipment: 'an oven',
  })
  await expect(by({ complaint: 'loud' })).rejects.toThrow('changed elsewhere')
  await expect(
    savePlan(db, { ...plan, job: { ...plan.job, variantOf: plan.job.id } }, revision),
  ).rejects.toThrow('own variant')
})

test('a clock that was set back tells nobody less of the shelf', async () => {
  const { at } = await changesOf(db, '')
  const { fan, revision } = await getFan(db, (await fanIds(db))[0]!)
  await saveFan(db, { ...fan, notes: 'changed in another time' }, revision)
  await db.query("UPDATE fan SET updated_at = '1970-01-01' WHERE id = $1", [fan.id])
  expect((await shelfChanges(db, at)).fans.map((f) => f.fan.id)).toContain(fan.id)
  // a mark of another database says that all of it is to be read
  expect((await shelfChanges(db, '999999999999')).all).toBe(true)
})
