import { randomBytes } from 'node:crypto'
import { existsSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { encodeBlock } from '#shared/log-blocks'
import type { BackupPreview, Restored, RestoreProgress } from '#shared/schemas/backup'
import { writeBackup } from '../../server/backup/write'
import type { Database } from '../../server/db/database'
import { addAttachment } from '../../server/db/repositories/attachments'
import { createJob } from '../../server/db/repositories/jobs'
import { createLog, finishLog, putBlock } from '../../server/db/repositories/logs'
import { emptyData, memoryDatabase, startServer, type TestServer } from './harness'

/** A restore of a workshop with many pictures and a long log: others are answered meanwhile; it stops, goes on, survives. */

const PHOTOS = 40
const PHOTO_BYTES = 1_500_000
const ROWS = 120_000
const JOB = 'job-large'
const JPEG = Buffer.of(0xff, 0xd8, 0xff, 0xe0)

let bytes: Uint8Array
async function large(db: Database) {
  await createJob(db, JOB, 'Large')
  for (let i = 0; i < PHOTOS; i++)
    await addAttachment(db, { jobId: JOB }, `photo-${i}`, `${i}.jpg`, 'image/jpeg', [
      JPEG,
      randomBytes(PHOTO_BYTES),
    ])
  const channels = [{ name: 'box', quantity: 'temperature' as const }]
  const log = { id: 'log-long', name: 'Long', origin: 'imported' as const, instrumentId: null, remarks: '' }
  await createLog(db, JOB, { ...log, startedAt: '2026-01-01T00:00:00Z', channels })
  const times = Float64Array.from({ length: ROWS }, (_, i) => i)
  const values = times.map((t) => 20 + Math.sin(t))
  for (let from = 0, seq = 0; from < ROWS; from += 20_000, seq++)
    await putBlock(db, 'log-long', {
      seq,
      rows: 20_000,
      channels: 1,
      data: encodeBlock(times, [values], from, from + 20_000),
    })
  await finishLog(db, 'log-long', ROWS)
  const parts: Uint8Array[] = []
  for await (const part of writeBackup(db, null, '2026-05-04T10:00:00.000Z')) parts.push(part as Uint8Array)
  bytes = Buffer.concat(parts)
}

let data: string
let server: TestServer
beforeAll(async () => {
  const db = await memoryDatabase()
  await large(db)
  await db.close()
  data = await emptyData()
  server = await startServer(data, { empty: true })
}, 120_000)
afterAll(async () => {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
})

const ask = async <T>(path: string, method = 'GET', body?: unknown) => {
  const response = await fetch(`${server.url}/api/${path}`, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    headers: { 'content-type': 'application/json' },
  })
  return (await response.json()) as T
}
const bring = async () => {
  const answer = await fetch(`${server.url}/api/restore`, {
    method: 'POST',
    body: bytes as BodyInit,
    headers: { 'content-type': 'application/octet-stream' },
  })
  return (await answer.json()) as BackupPreview
}
const progress = () => ask<RestoreProgress>('restore')
const until = async (good: (p: RestoreProgress) => boolean) => {
  for (;;) {
    const now = await progress()
    if (good(now)) return now
    await new Promise((done) => setTimeout(done, 20))
  }
}
const pictures = () => ask<{ id: string }[]>(`jobs/${JOB}/attachments`)

test('it stops behind a thing and says how far it is; what it wrote stays; it goes on at a press', async () => {
  const shown = await bring()
  expect(shown.counts.picture.new).toBe(PHOTOS)
  const of = PHOTOS + 2
  const run = ask<Restored>(`restore/${shown.id}`, 'POST', { of })
  // others are answered while it writes
  const middle = await until((p) => p.doing === 'writing' && p.done >= 10)
  expect(middle).toMatchObject({ id: shown.id, of })
  await ask(`restore/${shown.id}`, 'DELETE')
  const done = await run
  expect(done.stopped).toBe(true)
  expect(done.written).toBeLessThan(of)
  expect(await progress()).toMatchObject({ id: shown.id, doing: 'stopped', of })
  expect((await pictures()).length).toBeGreaterThan(5)
  // stopped by a person, it does not go on by itself
  await server.stop()
  server = await startServer(data, { empty: true })
  expect(await progress()).toMatchObject({ doing: 'stopped' })
  expect(await ask<Restored>(`restore/${shown.id}`, 'POST', {})).toMatchObject({ stopped: false, warnings: [] })
  expect(await pictures()).toHaveLength(PHOTOS)
  expect(await progress()).toMatchObject({ doing: 'nothing' })
})

test('cut off by kill -9, it goes on at the next start; nothing is lost or there twice', async () => {
  const kept = await bring()
  expect(kept.counts.picture).toEqual({ new: 0, same: PHOTOS, conflict: 0 })
  // begun again in an empty workshop
  await server.stop()
  rmSync(data, { recursive: true, force: true })
  data = await emptyData()
  server = await startServer(data, { empty: true })
  const shown = await bring()
  const run = ask(`restore/${shown.id}`, 'POST', { of: PHOTOS + 2 }).catch(() => null)
  await until((p) => p.doing === 'writing' && p.done >= 8)
  await server.stop('SIGKILL')
  await run
  server = await startServer(data, { empty: true })
  while (existsSync(join(data, 'restore', `${shown.id}.zip`))) await new Promise((done) => setTimeout(done, 50))
  expect(readdirSync(join(data, 'restore'))).toEqual([])
  const again = await bring()
  expect(again.counts).toMatchObject({
    picture: { new: 0, same: PHOTOS, conflict: 0 },
    log: { new: 0, same: 1, conflict: 0 },
    job: { new: 0, same: 1, conflict: 0 },
  })
  await ask(`restore/${again.id}`, 'DELETE')
  expect(server.output()).toContain('going on with a restore')
})
