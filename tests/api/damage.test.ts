import {
  cpSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from 'vitest'
import { ClusterDamaged, fileTrouble } from '../../server/db/cluster'
import { openDatabase } from '../../server/db/database'
import { createJob, jobIds } from '../../server/db/repositories/jobs'
import { emptyData, migrations, temporaryDir } from './harness'

/** Files of a data directory that are not as they were: a sentence says which, and how the newest copy comes back. */

let whole: string
let dir: string
beforeAll(async () => {
  whole = await emptyData()
  dir = whole
  const db = await openDatabase(dir, migrations)
  for (let i = 0; i < 30; i++) await createJob(db, `job-${i}`, `Job ${i}`)
  await db.query('CHECKPOINT')
  await db.close()
  mkdirSync(join(dir, 'copies'))
  writeFileSync(join(dir, 'copies', 'daily-2026-05-04.zip'), 'x')
})
beforeEach(() => {
  dir = temporaryDir()
  cpSync(whole, dir, { recursive: true })
})
afterEach(() => rmSync(dir, { recursive: true, force: true }))
afterAll(() => rmSync(whole, { recursive: true, force: true }))

/** What is said when it is opened and all jobs are read; '' where that went well. */
async function said(): Promise<string> {
  let error: unknown
  try {
    const db = await openDatabase(dir, migrations)
    try {
      for (const id of await jobIds(db)) await db.query('SELECT * FROM job WHERE id = $1', [id])
      for (const { t } of await db.query<{ t: string }>(
        "SELECT table_name AS t FROM information_schema.tables WHERE table_schema = 'public' ORDER BY 1",
      ))
        await db.query(`SELECT count(*) FROM "${t}"`)
      return ''
    } catch (e) {
      error = e
    } finally {
      await db.close().catch(() => {})
    }
  } catch (e) {
    error = e
  }
  if (error instanceof ClusterDamaged) {
    // the way back stands in it
    expect(error.message).toContain(`npm run restore -- ${join(dir, 'copies', 'daily-2026-05-04.zip')}`)
    return error.message
  }
  const words = fileTrouble(error)
  expect(words, String(error)).not.toBeNull()
  return words!
}
/** The largest files of the tables, which rows lie in. */
const tableFiles = () => {
  const base = join(dir, 'pg', 'base')
  return readdirSync(base)
    .flatMap((db) => readdirSync(join(base, db)).map((name) => join(base, db, name)))
    .filter((file) => /\/\d+$/.test(file) && statSync(file).size >= 8192)
}

test.each(['cluster.json', 'redpoll.lock'])('%s as garbage is of no consequence', async (name) => {
  writeFileSync(join(dir, name), 'garbage')
  expect(await said()).toBe('')
})
test.each(['PG_VERSION', 'global/pg_control', 'pg_wal', 'base'])('%s gone', async (name) => {
  rmSync(join(dir, 'pg', name), { recursive: true })
  expect(await said()).toContain(name)
})
test('a control file cut in half', async () => {
  truncateSync(join(dir, 'pg', 'global', 'pg_control'), 4096)
  expect(await said()).toContain('control file has 4096 bytes')
})
test('every file of the tables cut in half', async () => {
  for (const file of tableFiles()) truncateSync(file, Math.floor(statSync(file).size / 2 / 8192) * 8192)
  expect(await said()).toMatch(/damaged|cannot be read|incomplete/)
})
test('pages that were torn', async () => {
  for (const file of tableFiles()) {
    const bytes = readFileSync(file)
    for (let at = 0; at < bytes.length; at += 8192) bytes.fill(0xa5, at, at + 64)
    writeFileSync(file, bytes)
  }
  expect(await said()).toMatch(/damaged|cannot be read|incomplete/)
})

/** Spoils the head of every page of the write-ahead log from a byte of each of its files on. */
function tearLog(of: string, from = 0) {
  const log = join(of, 'pg', 'pg_wal')
  for (const name of readdirSync(log).filter((n) => /^[0-9A-F]{24}$/.test(n))) {
    const bytes = readFileSync(join(log, name))
    for (let at = from; at < bytes.length; at += 8192) bytes.fill(0xa5, at, at + 64)
    writeFileSync(join(log, name), bytes)
  }
}
test('pages of the write-ahead log that were torn, with the checkpoint in them', async () => {
  tearLog(dir)
  expect(await said()).toMatch(/damaged|cannot be read|incomplete/)
})
test('a write-ahead log torn behind its checkpoint: what stands before the tear is whole, and it works on', async () => {
  // as it lies on the disk when the power goes: not closed
  const cut = temporaryDir()
  const db = await openDatabase(dir, migrations)
  await db.query('CHECKPOINT')
  const [{ at }] = (await db.query<{ at: number }>(
    "SELECT (pg_current_wal_lsn() - '0/0'::pg_lsn)::float8 AS at",
  )) as [{ at: number }]
  for (let i = 0; i < 40; i++) await createJob(db, `late-${i}`, `Late ${i}`)
  cpSync(dir, cut, { recursive: true })
  await db.close()
  const segment = 16 * 1024 * 1024
  // some pages on: a part of the late jobs stands before it
  tearLog(cut, (Math.floor((at % segment) / 8192) + 6) * 8192)
  dir = cut
  expect(await said()).toBe('')
  const again = await openDatabase(dir, migrations)
  const late = (await jobIds(again)).filter((id) => id.startsWith('late-'))
  expect(late.length).toBeLessThan(40)
  expect(late.toSorted()).toEqual(Array.from({ length: late.length }, (_, i) => `late-${i}`).toSorted())
  expect((await jobIds(again)).filter((id) => id.startsWith('job-'))).toHaveLength(30)
  await createJob(again, 'after', 'After')
  await again.close()
})
