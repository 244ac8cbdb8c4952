import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { fillWithDemo } from '../../demo/fill'
import { demoJobs } from '../../demo/jobs'
import { writeBench, type BenchRow } from '#core/measure'
import { readBlocks, joinBlocks } from '#shared/log-blocks'
import { inBackup, type BackupPreview, type Copies, type Manifest, type Restored } from '#shared/schemas/backup'
import { dailyCopy, keepCopies, listCopies } from '../../server/backup/copies'
import { readBackup } from '../../server/backup/read'
import { previewOf, restoreBackup } from '../../server/backup/restore'
import { writeBackup } from '../../server/backup/write'
import { openDatabase, type Database } from '../../server/db/database'
import { addAttachment, listAttachments } from '../../server/db/repositories/attachments'
import { deleteFan, getFan, keptFans, saveFan } from '../../server/db/repositories/fans'
import { createInstrument, getInstrument, instrumentByToken } from '../../server/db/repositories/instruments'
import {
  createPlan,
  createVariant,
  deleteJob,
  getPlan,
  jobIds,
  savePlan,
} from '../../server/db/repositories/jobs'
import { archiveLog, createLog, getLog, listLogs, readLogBlocks } from '../../server/db/repositories/logs'
import { saveSettings, getSettings } from '../../server/db/repositories/settings'
import { takeMessage } from '../../server/devices/intake'
import { demoData, memoryDatabase, migrations, onPostgres, startServer, temporaryDir } from './harness'

/** Backups: everything comes back as it was, in the other kind of database too; what is here is never overwritten unasked. */

const MADE = '2026-05-04T10:00:00.000Z'
async function backupOf(db: Database, jobId: string | null = null): Promise<Uint8Array> {
  const parts: Uint8Array[] = []
  for await (const part of writeBackup(db, jobId, MADE)) parts.push(part)
  return Buffer.concat(parts)
}
/** What a backup says of each of its files. */
const sumsOf = (bytes: Uint8Array) =>
  (JSON.parse(strFromU8(unzipSync(bytes)[inBackup.manifest]!)) as Manifest).sums
const restore = (db: Database, bytes: Uint8Array, order = {}) =>
  restoreBackup(db, readBackup(bytes), { others: 'keep', choices: {}, ...order })
const preview = (db: Database, bytes: Uint8Array) => previewOf(db, readBackup(bytes), 'x')
const totals = ({ counts }: BackupPreview) => {
  const sum = { new: 0, same: 0, conflict: 0 }
  for (const count of Object.values(counts))
    for (const key of ['new', 'same', 'conflict'] as const) sum[key] += count[key]
  return sum
}

const PNG = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 1, 2, 3)
const JOB = 'job-film-cabinet'
/** The demo workshop with what it does not bring along: pictures, a board that records, things put aside, own units. */
async function workshop(db: Database): Promise<string> {
  await fillWithDemo(db)
  await addAttachment(db, { jobId: JOB }, 'picture-1', 'Bench.png', 'image/png', PNG)
  const fan = (await keptFans(db)).find((f) => f.fan.owned)!.fan.id
  await addAttachment(db, { fanId: fan }, 'picture-2', 'Label.png', 'image/png', PNG.slice(0, 5))
  const { plan, revision } = await getPlan(db, JOB)
  const runs = plan.runs.map((run, i) => (i === 0 ? { ...run, photoId: 'picture-1', logId: 'log-board' } : run))
  await savePlan(db, { ...plan, runs }, revision)
  const { token } = await createInstrument(db, 'board-1', 'Board by the kiln', 'board')
  await createLog(db, JOB, {
    id: 'log-board',
    name: 'Drying, "quick"\nsecond try',
    origin: 'recorded',
    startedAt: MADE,
    instrumentId: 'board-1',
    channels: [],
    remarks: '',
  })
  const rows: BenchRow[] = [
    { seq: 0, ms: 0, values: { a_degC: 21.25, b_degC: 0.1 } },
    { seq: 11, ms: 1000, values: { a_degC: 21.5 } },
    { seq: 24, ms: 4000, values: { a_degC: 1e-7, b_degC: 3 } },
  ]
  await takeMessage(db, await getInstrument(db, 'board-1'), writeBench('one', rows), Date.parse(MADE))
  await createVariant(db, JOB, 'job-variant', 'With two', (await getPlan(db, JOB)).plan)
  await deleteJob(db, 'job-kiln-controller')
  await deleteFan(db, (await keptFans(db)).find((f) => !f.fan.owned)!.fan.id)
  await saveSettings(db, { units: { flow: 'CFM' }, theme: 'dark' })
  return token
}
let db: Database
let bytes: Uint8Array
let token: string
beforeAll(async () => {
  db = await memoryDatabase()
  token = await workshop(db)
  bytes = await backupOf(db)
})
afterAll(() => db.close())

describe('a workshop', () => {
  test('comes back whole in an empty database, and from there again, to the last bit', async () => {
    const other = await memoryDatabase()
    expect(totals(await preview(other, bytes))).toMatchObject({ same: 0, conflict: 0 })
    const done = await restore(other, bytes)
    expect(done).toMatchObject({ kept: 0, warnings: [] })
    expect(sumsOf(await backupOf(other))).toEqual(sumsOf(bytes))
    // and is told to be all there
    expect(totals(await preview(other, bytes))).toEqual({ new: 0, conflict: 0, same: done.written })
    expect(await getPlan(other, JOB)).toMatchObject({ plan: (await getPlan(db, JOB)).plan })
    await expect(getPlan(other, 'job-kiln-controller')).rejects.toThrow('does not exist')
    expect(await getSettings(other)).toMatchObject({ units: { flow: 'CFM' }, theme: 'dark' })
    expect(await listAttachments(other, { jobId: JOB })).toMatchObject([{ id: 'picture-1', size: PNG.length }])
    expect(await instrumentByToken(other, token)).toMatchObject({ id: 'board-1', logId: null })
    await other.close()
  })
  test('a log keeps its samples, its gaps and what it knows of its board', async () => {
    const other = await memoryDatabase()
    await restore(other, bytes)
    const samples = async (from: Database) => {
      const log = await getLog(from, 'log-board')
      const { blocks } = await readLogBlocks(from, 'log-board', -1, 1e6)
      return {
        log: { ...log, open: false },
        data: readBlocks(joinBlocks(blocks).buffer as ArrayBuffer, log.channels).log,
      }
    }
    const [was, is] = [await samples(db), await samples(other)]
    expect(is).toEqual(was)
    expect(is.log).toMatchObject({ lost: 22, name: 'Drying, "quick"\nsecond try' })
    expect([...is.data.channels[0]!.values]).toEqual([21.25, 21.5, 1e-7])
    expect([...is.data.channels[1]!.values]).toEqual([0.1, NaN, 3])
    await other.close()
  })
  test.skipIf(!onPostgres)('goes from the embedded database to a server and back', async () => {
    const embedded = await openDatabase(null, migrations)
    await restore(embedded, bytes)
    const back = await backupOf(embedded)
    expect(sumsOf(back)).toEqual(sumsOf(bytes))
    const server = await memoryDatabase()
    await restore(server, back)
    expect(sumsOf(await backupOf(server))).toEqual(sumsOf(bytes))
    await embedded.close()
    await server.close()
  })
  test('of 200 jobs', async () => {
    const big = await memoryDatabase()
    await fillWithDemo(big)
    const jobs = demoJobs()
    for (let i = 0; (await jobIds(big)).length < 200; i++) {
      const plan = jobs[i % jobs.length]!
      await createPlan(big, {
        ...plan,
        job: { ...plan.job, id: `copy-${i}`, name: `${plan.job.name} ${i}`, variantOf: null },
      })
    }
    const all = await backupOf(big)
    const other = await memoryDatabase()
    await restore(other, all)
    expect(await jobIds(other)).toHaveLength(200)
    expect(sumsOf(await backupOf(other))).toEqual(sumsOf(all))
    await big.close()
    await other.close()
  }, 120_000)
})

describe('into a workshop that has gone on', () => {
  /** Another workshop in which one job, one fan and one log are not as in the backup. */
  async function gone(): Promise<Database> {
    const other = await memoryDatabase()
    await restore(other, bytes)
    const { plan, revision } = await getPlan(other, JOB)
    await savePlan(other, { ...plan, job: { ...plan.job, complaint: 'typed since' } }, revision)
    const { fan, revision: at } = await getFan(other, plan.selection!.fanId!)
    await saveFan(other, { ...fan, price: 99 }, at)
    await createPlan(other, { ...plan, job: { ...plan.job, id: 'job-since', complaint: 'typed since' } })
    return other
  }
  const complaint = async (from: Database, id: string) => (await getPlan(from, id)).plan.job.complaint

  test('conflicts are told, and nothing that is here is touched unless it is said', async () => {
    const other = await gone()
    const told = await preview(other, bytes)
    expect(told.items.map((i) => [i.kind, i.state])).toEqual([
      ['job', 'conflict'],
      ['fan', 'conflict'],
    ])
    const { here, there } = told.items[0]!.changed!
    expect(Date.parse(here)).toBeGreaterThan(Date.parse(there))
    expect(told.items[1]!.detail).toBe('other figures')
    expect((await restore(other, bytes)).written).toBe(0)
    expect(await complaint(other, JOB)).toBe('typed since')
    expect(await complaint(other, 'job-since')).toBe('typed since')
    await other.close()
  })
  test('one of them is taken, the other kept; the revision moves on, so that open pages see it', async () => {
    const other = await gone()
    const before = await getPlan(other, JOB)
    const fanId = before.plan.selection!.fanId!
    await restore(other, bytes, { choices: { [`job/${JOB}`]: 'take' } })
    const after = await getPlan(other, JOB)
    expect(after.plan).toEqual((await getPlan(db, JOB)).plan)
    expect(after.revision).toBeGreaterThan(before.revision)
    expect((await getFan(other, fanId)).fan.price).toBe(99)
    await restore(other, bytes, { others: 'take' })
    expect((await getFan(other, fanId)).fan).toEqual((await getFan(db, fanId)).fan)
    expect(totals(await preview(other, bytes))).toMatchObject({ new: 0, conflict: 0 })
    await other.close()
  })
  test('both: the one of the backup stands beside, with logs and pictures of its own', async () => {
    const other = await gone()
    const ids = await jobIds(other)
    await restore(other, bytes, { choices: { [`job/${JOB}`]: 'both' } })
    const fresh = (await jobIds(other)).filter((id) => !ids.includes(id))
    expect(fresh).toHaveLength(1)
    const { plan } = await getPlan(other, fresh[0]!)
    expect(plan.job.name).toMatch(/ \(backup of 2026-05-04\)$/)
    const [picture] = await listAttachments(other, { jobId: fresh[0]! })
    expect(plan.runs[0]).toMatchObject({ photoId: picture!.id })
    expect(picture!.id).not.toBe('picture-1')
    const logs = await listLogs(other, fresh[0]!)
    expect(logs.map((l) => l.id)).toContain(plan.runs[0]!.logId)
    expect(logs).toHaveLength((await listLogs(db, JOB)).length)
    expect(await complaint(other, JOB)).toBe('typed since')
    await other.close()
  })
  test('a job that was put aside here comes back; a log that went does too', async () => {
    const other = await memoryDatabase()
    await restore(other, bytes)
    await deleteJob(other, JOB)
    await archiveLog(other, 'log-board')
    expect(totals(await preview(other, bytes))).toMatchObject({ new: 2, conflict: 0 })
    await restore(other, bytes)
    expect(await complaint(other, JOB)).toBe(await complaint(db, JOB))
    expect(await getLog(other, 'log-board')).toMatchObject({ rows: 3 })
    await other.close()
  })
  test('all of it or nothing: where one thing cannot be written, none is', async () => {
    const files = unzipSync(bytes)
    // a job of a fan that nobody has
    const kept = JSON.parse(strFromU8(files[inBackup.job(JOB)]!)) as { plan: { selection: { fanId: string } } }
    kept.plan.selection.fanId = 'fan-of-nobody'
    const other = await memoryDatabase()
    await expect(restore(other, repacked(files, inBackup.job(JOB), kept))).rejects.toThrow('not on the shelf')
    expect(await jobIds(other)).toEqual([])
    expect(await keptFans(other)).toEqual([])
    await other.close()
  })
})

/** The same backup with one file changed, and its sum with it. */
function repacked(files: Record<string, Uint8Array>, name: string, content: unknown): Uint8Array {
  const changed = strToU8(JSON.stringify(content))
  const manifest = JSON.parse(strFromU8(files[inBackup.manifest]!)) as Manifest
  const { [name]: _, ...sums } = manifest.sums
  return zipSync({
    ...files,
    [inBackup.manifest]: strToU8(JSON.stringify({ ...manifest, sums })),
    [name]: changed,
  })
}

describe('a job alone', () => {
  test('brings its fans, logs and pictures, and nothing of others', async () => {
    const one = await backupOf(db, JOB)
    const other = await memoryDatabase()
    await restore(other, one)
    expect(await jobIds(other)).toEqual([JOB])
    expect((await getPlan(other, JOB)).plan).toEqual((await getPlan(db, JOB)).plan)
    // its board is not there: the log stands without it
    expect((await listLogs(other, JOB)).find((l) => l.id === 'log-board')).toMatchObject({
      rows: 3,
      instrumentId: null,
    })
    expect((await keptFans(other)).length).toBeLessThan((await keptFans(db)).length)
    expect(await getSettings(other)).toMatchObject({ theme: 'system' })
    await other.close()
  })
  test('a variant whose first job is not here stands for itself', async () => {
    const other = await memoryDatabase()
    await restore(other, await backupOf(db, 'job-variant'))
    expect((await getPlan(other, 'job-variant')).plan.job.variantOf).toBeNull()
    await other.close()
  })
})

describe('what is no good backup', () => {
  const read = (b: Uint8Array) => () => readBackup(b)
  test('is told apart and refused in words', () => {
    const files = unzipSync(bytes)
    expect(read(strToU8('hello'))).toThrow('no backup of Redpoll')
    expect(read(bytes.slice(0, bytes.length / 2))).toThrow('cut short')
    expect(read(zipSync({ 'a.txt': strToU8('x') }))).toThrow('no backup of Redpoll')
    const manifest = JSON.parse(strFromU8(files[inBackup.manifest]!)) as Manifest
    expect(read(repacked(files, inBackup.manifest, { ...manifest, version: 2 }))).toThrow(
      'made by a newer Redpoll (version 2',
    )
    const { [inBackup.fans]: _, ...without } = files
    expect(read(zipSync(without))).toThrow('fans.json is missing')
    expect(read(zipSync({ ...files, [inBackup.fans]: strToU8('[]') }))).toThrow(
      'fans.json is not as it was written',
    )
    expect(read(repacked(files, inBackup.fans, [{ fan: { id: 'x' } }]))).toThrow(
      /cannot be read: fans.json, 0\.fan/,
    )
  })
  test('one job in it that cannot be read hides no other', async () => {
    const files = unzipSync(bytes)
    const kept = JSON.parse(strFromU8(files[inBackup.job(JOB)]!)) as { plan: { job: object } }
    kept.plan.job = { ...kept.plan.job, ambientC: 9000 }
    const backup = readBackup(repacked(files, inBackup.job(JOB), kept))
    expect(backup.warnings).toEqual([
      expect.stringMatching(/^Job job-film-cabinet is not taken: job\.ambientC: Not above/),
    ])
    expect(backup.jobs.length).toBe(backup.manifest.jobs.length - 1)
  })
})

describe('daily copies', () => {
  test('one a day on which something was changed; a number of them is kept', async () => {
    const data = temporaryDir()
    const day = (n: number) => `2026-06-0${n}T03:00:00.000Z`
    const names = () => listCopies(data).map((c) => c.name)
    keepCopies(data, 2)
    expect(await dailyCopy(db, data, day(1))).toBe(true)
    expect(await dailyCopy(db, data, day(1))).toBe(false)
    // nothing was changed
    expect(await dailyCopy(db, data, day(2))).toBe(false)
    for (const n of [3, 4]) {
      const { plan, revision } = await getPlan(db, 'job-mushroom-tent')
      await savePlan(db, { ...plan, job: { ...plan.job, complaint: `day ${n}` } }, revision)
      expect(await dailyCopy(db, data, day(n))).toBe(true)
    }
    expect(names()).toEqual(['daily-2026-06-04.zip', 'daily-2026-06-03.zip'])
    const copy = readBackup(readFileSync(join(data, 'copies', names()[0]!)))
    expect(copy.jobs.find((j) => j.plan.job.id === 'job-mushroom-tent')!.plan.job.complaint).toBe('day 4')
    keepCopies(data, 0)
    expect(names()).toEqual([])
    expect(await dailyCopy(db, data, day(5))).toBe(false)
    rmSync(data, { recursive: true, force: true })
  })
  test('where it cannot be made, that is told and no half of one stays', async () => {
    const data = temporaryDir()
    mkdirSync(join(data, 'copies', 'daily-2026-07-01.zip.part'), { recursive: true })
    expect(await dailyCopy(db, data, '2026-07-01T03:00:00.000Z')).toBe(false)
    expect(listCopies(data)).toEqual([])
    rmSync(data, { recursive: true, force: true })
  })
})

test('by the routes: a backup leaves, comes in again, is shown, chosen and written; copies are listed', async () => {
  const data = await demoData()
  const server = await startServer(data, { env: { REDPOLL_COPY_AFTER_MS: '300' } })
  const url = (path: string) => `${server.url}/api/${path}`
  try {
    const answer = await fetch(url('backup'))
    expect(answer.headers.get('content-type')).toBe('application/zip')
    expect(answer.headers.get('content-disposition')).toMatch(/redpoll-backup-\d{4}-\d{2}-\d{2}\.zip/)
    const whole = new Uint8Array(await answer.arrayBuffer())
    await fetch(url('jobs/job-film-cabinet'), {
      method: 'DELETE',
      headers: { 'content-type': 'application/json' },
    })
    const shown = (await (
      await post(url('restore'), whole, 'application/octet-stream')
    ).json()) as BackupPreview
    expect(totals(shown)).toMatchObject({ new: 1, conflict: 0 })
    const order = JSON.stringify({ others: 'keep' })
    const done = (await (await post(url(`restore/${shown.id}`), order)).json()) as Restored
    expect(done.written).toBe(1)
    expect((await fetch(url('jobs/job-film-cabinet'))).status).toBe(200)
    // it is used once
    expect((await post(url(`restore/${shown.id}`), order)).status).toBe(404)
    expect((await post(url('restore/..%2Fcopies'), order)).status).toBe(404)
    expect((await post(url('restore'), strToU8('nonsense'), 'application/octet-stream')).status).toBe(422)
    const alone = new Uint8Array(await (await fetch(url('jobs/job-film-cabinet/backup'))).arrayBuffer())
    expect(readBackup(alone).manifest).toMatchObject({ scope: 'job', jobs: ['job-film-cabinet'] })
    expect((await fetch(url('jobs/nobody/backup'))).status).toBe(404)

    let copies: Copies
    do copies = (await (await fetch(url('backup/copies'))).json()) as Copies
    while (!copies.copies.length)
    expect(copies).toMatchObject({ keep: 7, problem: '' })
    const { name } = copies.copies[0]!
    const copy = new Uint8Array(await (await fetch(url(`backup/copies/${name}`))).arrayBuffer())
    expect(readBackup(copy).jobs.length).toBeGreaterThan(5)
    expect((await fetch(url('backup/copies/daily-2020-01-01.zip'))).status).toBe(404)
    expect((await fetch(url('backup/copies/..%2F..%2Fpassword.json'))).status).toBe(400)
    expect((await post(url(`backup/copies/${name}`), '{}')).status).toBe(200)
    const keep = await fetch(url('backup/copies'), {
      method: 'PUT',
      body: JSON.stringify({ keep: 61 }),
      headers: { 'content-type': 'application/json' },
    })
    expect(keep.status).toBe(400)
  } finally {
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  }
})
const post = (url: string, body: string | Uint8Array, type = 'application/json') =>
  fetch(url, { method: 'POST', body: body as BodyInit, headers: { 'content-type': type } })

test.skipIf(onPostgres)(
  'one that cannot be finished breaks off: its first half is never taken for the whole',
  async () => {
    const data = await demoData()
    const db = await openDatabase(data, migrations)
    // a part of a log that nobody can read
    await db.query(`UPDATE log_block SET data = decode('0102030405', 'hex')`)
    await db.close()
    const server = await startServer(data)
    try {
      const answer = await fetch(`${server.url}/api/backup`)
      await expect(answer.arrayBuffer()).rejects.toThrow()
      // what needs none of it goes on
      expect((await fetch(`${server.url}/api/jobs`)).status).toBe(200)
    } finally {
      await server.stop()
      rmSync(data, { recursive: true, force: true })
    }
  },
)
