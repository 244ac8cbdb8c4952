import type { PlanDocument } from '#core/document'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { fillWithDemo } from '../../demo/fill'
import { demoJobs } from '../../demo/jobs'
import { writeBench, type BenchRow } from '#core/measure'
import { decodeBlock, encodeBlock, readBlocks, joinBlocks } from '#shared/log-blocks'
import {
  inBackup,
  type BackupPreview,
  type Copies,
  type Manifest,
  type Restored,
  type RestoreOrder,
} from '#shared/schemas/backup'
import { copiesOf, dailyCopy, keepCopies, listCopies, proveCopy } from '../../server/backup/copies'
import { openBackup, type Backup, type Piece } from '../../server/backup/read'
import { besideJobs, restoreBackup } from '../../server/backup/restore'
import { previewOf } from '../../server/backup/standing'
import { writeBackup } from '../../server/backup/write'
import { openDatabase, type Database } from '../../server/db/database'
import { addAttachment, listAttachments, storePicture } from '../../server/db/repositories/attachments'
import { deleteFan, fanIds, getFan, keptFans, saveFan } from '../../server/db/repositories/fans'
import { createInstrument, getInstrument, instrumentByToken } from '../../server/db/repositories/instruments'
import {
  createPlan,
  createVariant,
  deleteJob,
  getPlan,
  jobIds,
  savePlan,
} from '../../server/db/repositories/jobs'
import {
  archiveLog,
  createLog,
  getLog,
  listLogs,
  putBlock,
  readLogBlocks,
} from '../../server/db/repositories/logs'
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
async function restore(db: Database, bytes: Uint8Array, more: Partial<RestoreOrder> = {}) {
  const backup = await openBackup(bytes)
  const order = { others: 'keep' as const, choices: {}, ...more }
  return restoreBackup(db, backup, order, 'run', new Set(await besideJobs(db, backup, order)))
}
const preview = async (db: Database, bytes: Uint8Array) => previewOf(db, await openBackup(bytes), 'x')
const allFans = async (db: Database) => keptFans(db, await fanIds(db))
async function piecesOf(backup: Backup): Promise<Piece[]> {
  const all: Piece[] = []
  for await (const piece of backup.pieces()) all.push(piece)
  return all
}
const jobsOf = async (backup: Backup) =>
  (await piecesOf(backup)).flatMap((piece) => (piece.kind === 'job' ? [piece.job] : []))
const totals = ({ counts }: BackupPreview) => {
  const sum = { new: 0, same: 0, conflict: 0 }
  for (const count of Object.values(counts))
    for (const key of ['new', 'same', 'conflict'] as const) sum[key] += count[key]
  return sum
}

const PNG = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, ...Array.from({ length: 20 }, (_, i) => i))
const JOB = 'job-film-cabinet'
/** The demo workshop with what it does not bring along: pictures, a board that records, things put aside, own units. */
async function workshop(db: Database): Promise<string> {
  await fillWithDemo(db)
  await addAttachment(db, { jobId: JOB }, 'picture-1', 'Bench.png', 'image/png', [PNG])
  const fan = (await allFans(db)).find((f) => f.fan.owned)!.fan.id
  await addAttachment(db, { fanId: fan }, 'picture-2', 'Label.png', 'image/png', [PNG.slice(0, 12)])
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
  await deleteFan(db, (await allFans(db)).find((f) => !f.fan.owned)!.fan.id)
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
    const { fan, revision: at } = await getFan(other, plan.streams[0]!.places[0]!.fans[0]!.fanId)
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
    const fanId = before.plan.streams[0]!.places[0]!.fans[0]!.fanId
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
  test('what cannot be written is named, whole or not at all, and stands in the way of nothing else', async () => {
    const files = unzipSync(bytes)
    // a job of a fan that nobody has
    const kept = JSON.parse(strFromU8(files[inBackup.job(JOB)]!)) as { plan: PlanDocument }
    kept.plan.streams[0]!.places[0]!.fans[0]!.fanId = 'fan-of-nobody'
    const other = await memoryDatabase()
    const done = await restore(other, repacked(files, inBackup.job(JOB), kept))
    expect(done.warnings).toEqual([expect.stringMatching(/^“.*” is not taken: This fan is not on the shelf/)])
    const ids = await jobIds(other)
    expect(ids).not.toContain(JOB)
    // but for its variant, which speaks of nobody now, all others are there
    expect(ids).toHaveLength((await jobIds(db)).length - 1)
    expect(await listAttachments(other, { jobId: JOB })).toEqual([])
    await other.close()
  })
  test('stopped in the middle, it goes on where it was begun, and nothing is there twice', async () => {
    const other = await gone()
    const order = { others: 'keep' as const, choices: { [`job/${JOB}`]: 'both' as const } }
    const backup = await openBackup(bytes)
    const beside = new Set(await besideJobs(other, backup, order))
    for (let most = 3; ; most += 7) {
      let asked = 0
      const watch = { told: () => {}, stopped: () => ++asked > most }
      const { stopped } = await restoreBackup(other, backup, order, 'run', beside, watch)
      if (!stopped) break
    }
    const at = await jobIds(other)
    expect(at.filter((id) => id.startsWith('job-') && !(id === 'job-since'))).toHaveLength(
      (await jobIds(db)).length + 1,
    )
    expect(totals(await preview(other, bytes))).toMatchObject({ new: 0, conflict: 2 })
    await other.close()
  })
  test('another content of the same size is told: of a log, of a picture', async () => {
    const other = await memoryDatabase()
    await restore(other, bytes)
    await addAttachment(other, { jobId: JOB }, 'picture-3', 'Third.png', 'image/png', [PNG])
    const { blocks } = await readLogBlocks(other, 'log-board', -1, 1e6)
    const columns = decodeBlock(blocks[0]!.data, 2)!
    columns[1]![0] = 22
    await other.query('DELETE FROM log_block WHERE log_id = $1 AND seq = 0', ['log-board'])
    await putBlock(other, 'log-board', { ...blocks[0]!, data: encodeBlock(columns[0]!, columns.slice(1)) })
    await storePicture(other, 'picture-1', [PNG.map((b, i) => (i === 15 ? 99 : b))])
    const told = (await preview(other, bytes)).items.filter((i) => i.state === 'conflict')
    expect(told.map((i) => [i.id, i.detail])).toEqual([
      ['log-board', 'other values in as many rows'],
      ['picture-1', 'another picture'],
    ])
    await restore(other, bytes, { others: 'take' })
    expect(totals(await preview(other, bytes))).toMatchObject({ new: 0, conflict: 0 })
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
    expect((await allFans(other)).length).toBeLessThan((await allFans(db)).length)
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
  /** Reads all of it. */
  const read = async (b: Uint8Array) => {
    const backup = await openBackup(b)
    for (const piece of await piecesOf(backup)) {
      if (piece.kind === 'log') for await (const _ of piece.log.rows());
      if (piece.kind === 'picture') for await (const _ of piece.picture.bytes());
    }
    return backup
  }
  const refused = (b: Uint8Array) => expect(read(b)).rejects
  const kept = <T>(files: Record<string, Uint8Array>, name: string) => JSON.parse(strFromU8(files[name]!)) as T
  test('is told apart and refused in words', async () => {
    const files = unzipSync(bytes)
    await refused(strToU8('hello')).toThrow('no backup of Redpoll')
    await refused(bytes.slice(0, bytes.length / 2)).toThrow('cut short')
    await refused(zipSync({ 'a.txt': strToU8('x') })).toThrow('no backup of Redpoll')
    const manifest = kept<Manifest>(files, inBackup.manifest)
    await refused(repacked(files, inBackup.manifest, { ...manifest, version: 2 })).toThrow(
      'made by a newer Redpoll (version 2',
    )
    const { [inBackup.fans]: _, ...without } = files
    await refused(zipSync(without)).toThrow('fans.json is missing')
    await refused(zipSync({ ...files, [inBackup.fans]: strToU8('[]') })).toThrow(
      'fans.json is not as it was written',
    )
    await refused(repacked(files, inBackup.fans, [{ fan: { id: 'x' } }])).toThrow(
      /cannot be read: fans.json, 0\.fan/,
    )
  })
  test('is held to the limits of everything that comes in elsewhere', async () => {
    const files = unzipSync(bytes)
    const with_ = (name: string, change: (value: never) => unknown) =>
      refused(repacked(files, name, change(kept(files, name) as never)))
    type Log = { channels: object[]; name: string }
    const log = inBackup.log('log-board')
    await with_(log, (l: Log) => ({ ...l, name: 'x'.repeat(1_000_000) })).toThrow(/name: At most 120/)
    await with_(log, (l: Log) => ({ ...l, channels: [{ name: 'a', quantity: 'constructor' }] })).toThrow(
      /quantity/,
    )
    const many = Array.from({ length: 100 }, (_, i) => ({ name: `c${i}`, quantity: 'number' }))
    await with_(log, (l: Log) => ({ ...l, channels: many })).toThrow('At most 32 channels')
    await with_(inBackup.settings, () => [{ key: 'other', value: {} }]).toThrow(/key/)
    await with_(inBackup.instruments, (l: object[]) => l.map((i) => ({ ...i, name: '' }))).toThrow(/name/)
    await with_(inBackup.pictures, (l: object[]) => l.map((p) => ({ ...p, fanId: 'a', jobId: 'b' }))).toThrow(
      'to a fan or to a job',
    )
    const rows = async (text: string) => {
      const manifest = kept<Manifest>(files, inBackup.manifest)
      const { [inBackup.rows('log-board')]: _, ...sums } = manifest.sums
      const changed = {
        ...files,
        [inBackup.manifest]: strToU8(JSON.stringify({ ...manifest, sums })),
        [inBackup.rows('log-board')]: strToU8(text),
      }
      return read(zipSync(changed))
    }
    await expect(rows('time_s,a,b\n0,1,2\nNaN,1,2\n')).rejects.toThrow('row 2: its time is missing')
    await expect(rows('time_s,a,b\n0,1,2\n\n\n')).rejects.toThrow('its time is missing')
    await expect(rows('time_s,a,b\n0,1\n')).rejects.toThrow('2 values are wanted')
    await expect(rows('time_s,a,b\n0,1,x\n')).rejects.toThrow('a value is no number')
    await expect(rows('time_s,a,b\n0,1,2\n1,2')).rejects.toThrow('cut short')
    await expect(rows('time_s,a,b\n0,1,2\n')).resolves.toBeTruthy()
  })
  test('one that unfolds to far more than it is, or nests without end, is refused before it is read', async () => {
    const files = unzipSync(bytes)
    const bomb = (name: string, content: Uint8Array) => refused(zipSync({ ...files, [name]: content }))
    await bomb(inBackup.rows('log-board'), new Uint8Array(60e6).fill(10)).toThrow(/unfolds to \d+ times/)
    await bomb(inBackup.fans, strToU8(`[${'['.repeat(50_000)}`)).toThrow('Nothing was changed')
    await bomb(inBackup.picture('picture-1', 'image/png'), new Uint8Array(7e6)).toThrow('larger than it can be')
    const manifest = kept<Manifest>(files, inBackup.manifest)
    for (const name of ['toString', 'constructor'])
      await refused(
        repacked(files, inBackup.manifest, { ...manifest, sums: JSON.parse(`{"${name}": "x"}`) }),
      ).toThrow('is missing in it')
    await refused(repacked(files, inBackup.manifest, { ...manifest, jobs: [JOB, JOB] })).toThrow('the same id')
  })
  test('one job in it that cannot be read hides no other', async () => {
    const files = unzipSync(bytes)
    type Kept = { plan: { job: object } }
    const spoiled = async (job: object) => {
      const one = kept<Kept>(files, inBackup.job(JOB))
      one.plan.job = { ...one.plan.job, ...job }
      const backup = await openBackup(repacked(files, inBackup.job(JOB), one))
      return { jobs: await jobsOf(backup), backup }
    }
    const { jobs, backup } = await spoiled({ ambientC: 9000 })
    expect(backup.warnings).toEqual([
      expect.stringMatching(/^Job job-film-cabinet is not taken: job\.ambientC: Not above/),
    ])
    expect(jobs).toHaveLength(backup.manifest.jobs.length - 1)
    expect((await spoiled({ variantOf: JOB })).backup.warnings).toEqual([
      expect.stringMatching(/its own variant/),
    ])
    expect((await spoiled({ id: 'job-other' })).backup.warnings).toEqual([expect.stringMatching(/another one/)])
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
    const copy = await jobsOf(await openBackup(join(data, 'copies', names()[0]!)))
    expect(copy.find((j) => j.plan.job.id === 'job-mushroom-tent')!.plan.job.complaint).toBe('day 4')
    keepCopies(data, 0)
    expect(names()).toEqual([])
    expect(await dailyCopy(db, data, day(5))).toBe(false)
    rmSync(data, { recursive: true, force: true })
  })
  test('copies of a clock that was wrong take nothing away from today’s; the newest is read back once', async () => {
    const data = temporaryDir()
    mkdirSync(join(data, 'copies'))
    for (let year = 2093; year < 2100; year++)
      writeFileSync(join(data, 'copies', `daily-${year}-01-01.zip`), 'not a zip')
    expect(await dailyCopy(db, data, '2026-06-09T03:00:00.000Z')).toBe(true)
    expect(listCopies(data)[0]!.name).toBe('daily-2026-06-09.zip')
    expect(listCopies(data)).toHaveLength(7)
    await proveCopy(data, MADE)
    const { proof } = copiesOf(data)
    expect(proof).toMatchObject({ name: 'daily-2026-06-09.zip', at: MADE, problem: '' })
    expect(proof!.things).toBeGreaterThan(70)
    // one that was spoiled since is found out when it is looked at anew
    writeFileSync(join(data, 'copies', 'daily-2026-06-10.zip'), bytes.slice(0, 5000))
    writeFileSync(
      join(data, 'copies', 'daily.json'),
      JSON.stringify({ keep: 7, marks: '', made: ['daily-2026-06-10.zip'], proof }),
    )
    await proveCopy(data, MADE)
    expect(copiesOf(data).proof).toMatchObject({
      name: 'daily-2026-06-10.zip',
      problem: expect.stringContaining('cut short') as string,
    })
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
    expect((await openBackup(alone)).manifest).toMatchObject({ scope: 'job', jobs: ['job-film-cabinet'] })
    expect((await fetch(url('jobs/nobody/backup'))).status).toBe(404)

    let copies: Copies
    do copies = (await (await fetch(url('backup/copies'))).json()) as Copies
    while (!copies.copies.length)
    expect(copies).toMatchObject({ keep: 7, problem: '' })
    const { name } = copies.copies[0]!
    const copy = new Uint8Array(await (await fetch(url(`backup/copies/${name}`))).arrayBuffer())
    expect((await jobsOf(await openBackup(copy))).length).toBeGreaterThan(5)
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
