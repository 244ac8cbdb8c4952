import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { basename, join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { ApiError, JobSummary, Startup, StoredPlan } from '#shared/api'
import { demoData, freePort, onPostgres, startServer, type TestServer } from './harness'
import { linkTo, type Link } from './link'

/** A database server that goes and comes: what was written is known, nothing is written twice, nobody waits for ever. */

const JOB = 'job-film-cabinet'
const root = join(import.meta.dirname, '..', '..')
const REPEATED = { 'x-redpoll-write': 'one-write-of-a-test' }

describe.skipIf(!onPostgres)('a database server that goes and comes', () => {
  let data: string
  let link: Link
  let one: TestServer
  beforeAll(async () => {
    data = await demoData()
    link = await linkTo(`${process.env.REDPOLL_TEST_POSTGRES}${basename(data)}`)
    one = await startServer(data, { env: { DATABASE_URL: link.address, REDPOLL_DATABASE_ANSWER_MS: '4000' } })
  })
  afterAll(async () => {
    await one.stop()
    await link.close()
    rmSync(data, { recursive: true, force: true })
  })
  const send = async <T>(method: string, path: string, body: unknown, headers = {}) => {
    const response = await fetch(`${one.url}/api/${path}`, {
      method,
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', ...headers },
    })
    return { status: response.status, answer: (await response.json()) as T & Partial<ApiError> }
  }
  const get = async <T>(path: string, url = one.url) => (await (await fetch(`${url}/api/${path}`)).json()) as T
  const named = async (name: string) => (await get<JobSummary[]>('jobs?soon=1')).filter((j) => j.name === name)

  test('cut at COMMIT, it is found out that it was written; nothing is there twice', async () => {
    link.cutsAtCommit = 1
    const made = await send<StoredPlan>('POST', 'jobs', { name: 'Made at the cut' }, REPEATED)
    expect(made.status).toBe(200)
    expect(await named('Made at the cut')).toHaveLength(1)
    // sent once more, as a page does whose answer was lost on its own way
    const again = await send<StoredPlan>('POST', 'jobs', { name: 'Made at the cut' }, REPEATED)
    expect(again.answer).toEqual(made.answer)
    expect(await named('Made at the cut')).toHaveLength(1)
  })
  test('a save is no conflict with itself', async () => {
    const { plan, revision } = await get<StoredPlan>(`jobs/${JOB}`)
    const mine = { ...plan, job: { ...plan.job, complaint: 'cut while saving' } }
    link.cutsAtCommit = 1
    const saved = await send<StoredPlan>('PUT', `jobs/${JOB}`, { plan: mine, revision }, REPEATED)
    expect(saved).toMatchObject({ status: 200, answer: { revision: revision + 1 } })
    const again = await send<StoredPlan>('PUT', `jobs/${JOB}`, { plan: mine, revision }, REPEATED)
    expect(again).toEqual(saved)
    expect(await get<StoredPlan>(`jobs/${JOB}`)).toMatchObject({ revision: revision + 1 })
  })
  test('without an id it is said that it is not known, never that nothing was changed', async () => {
    link.cutsAtCommit = 1
    const made = await send('POST', 'jobs', { name: 'Nobody knows' })
    expect(made).toMatchObject({ status: 503, answer: { error: { code: 'not-known' } } })
    expect(JSON.stringify(made.answer)).not.toContain('Nothing was changed')
    expect(await named('Nobody knows')).toHaveLength(1)
  })
  test('away, it says so at once and goes on by itself', async () => {
    await link.close()
    for (const path of ['jobs', 'health', `jobs/${JOB}`])
      expect(await get<ApiError>(path), path).toMatchObject({ error: { code: 'database-away' } })
    expect((await send('POST', 'jobs', { name: 'While away' })).answer).toMatchObject({
      error: { code: 'database-away', message: expect.stringContaining('Nothing was changed') as string },
    })
    await link.open()
    expect(await get('health')).toEqual({ ready: true })
    expect(await named('While away')).toEqual([])
  })
  test('where the link swallows everything, the server itself goes on answering', async () => {
    link.swallows = true
    expect(await get<ApiError>('health')).toMatchObject({ error: { code: 'database-away' } })
    expect(await get<Startup>('startup')).toMatchObject({ ready: true })
    expect(await get<ApiError>(`jobs/${JOB}`)).toMatchObject({ error: { code: 'database-away' } })
    link.swallows = false
    for (;;) if ((await fetch(`${one.url}/api/health`)).ok) break
    expect((await get<StoredPlan>(`jobs/${JOB}`)).plan.job.id).toBe(JOB)
  })
  test('a server that is started while it is away waits, says so, and goes on', async () => {
    await link.close()
    const other = await startWaiting()
    expect(await get<Startup>('startup', other.url)).toMatchObject({ ready: false, away: true })
    expect(await get<ApiError>('jobs', other.url)).toMatchObject({ error: { code: 'database-away' } })
    await link.open()
    for (;;) if ((await fetch(`${other.url}/api/health`)).ok) break
    expect((await get<JobSummary[]>('jobs', other.url)).length).toBeGreaterThan(5)
    expect(await other.stop()).toBe(0)
  })
  async function startWaiting(): Promise<TestServer> {
    const begun = await startServer(data, { env: { DATABASE_URL: link.address }, waits: true })
    for (;;) {
      const now = await get<Startup>('startup', begun.url).catch(() => null)
      if (now?.away) return begun
      await new Promise((done) => setTimeout(done, 50))
    }
  }
  test('its starter does not take a server for hung whose database is away', async () => {
    const port = await freePort()
    const args = [join(root, 'scripts', 'start.mjs'), '--port', String(port), '--data', data]
    const env = { ...process.env, DATABASE_URL: link.address, REDPOLL_HUNG_MS: '1500' }
    const starter = spawn(process.execPath, args, { env })
    let said = ''
    starter.stdout.on('data', (text) => (said += String(text)))
    const ended = new Promise((done) => starter.once('exit', done))
    const asked = () =>
      get<ApiError & { ready?: boolean }>('health', `http://127.0.0.1:${port}`).catch(() => null)
    while (!said.includes('running at')) await new Promise((done) => setTimeout(done, 50))
    await link.close()
    // longer than it would wait for one that hangs
    for (let i = 0; i < 8; i++) {
      expect(await asked()).toMatchObject({ error: { code: 'database-away' } })
      await new Promise((done) => setTimeout(done, 400))
    }
    await link.open()
    expect(await asked()).toEqual({ ready: true })
    expect(said).not.toContain('started again')
    starter.kill('SIGTERM')
    expect(await ended).toBe(0)
  })
  test('twenty people at two servers change different things of one job: all of it is there, nobody is sent back', async () => {
    // on a link without this test's short patience: twenty wait for one another
    const [two, three] = [await startServer(data), await startServer(data)]
    try {
      const { plan } = await get<StoredPlan>(`jobs/${JOB}`)
      const parts = Array.from({ length: 20 }, (_, i) => ({
        ...plan.streams[0]!.path[0]!,
        id: `e-${i}`,
        name: `part ${i}`,
      }))
      plan.streams[0]!.path.push(...parts)
      const begun = await send('PUT', `jobs/${JOB}`, {
        plan,
        revision: (await get<StoredPlan>(`jobs/${JOB}`)).revision,
      })
      expect(begun.status).toBe(200)
      const people = await Promise.all(
        parts.map(async ({ id }, i) => {
          const { url } = i % 2 ? three : two
          const statuses: number[] = []
          for (let round = 0; round < 4; round++) {
            const read = await get<StoredPlan>(`jobs/${JOB}`, url)
            read.plan.streams[0]!.path.find((e) => e.id === id)!.name = `${id} ${round}`
            const response = await fetch(`${url}/api/jobs/${JOB}`, {
              method: 'PUT',
              body: JSON.stringify({ plan: read.plan, revision: read.revision }),
              headers: { 'content-type': 'application/json' },
            })
            statuses.push(response.status)
          }
          return statuses
        }),
      )
      expect(people.flat().filter((s) => s !== 200)).toEqual([])
      const after = await get<StoredPlan>(`jobs/${JOB}`)
      for (const { id } of parts)
        expect(after.plan.streams[0]!.path.find((e) => e.id === id)?.name).toBe(`${id} 3`)
    } finally {
      await two.stop()
      await three.stop()
    }
  })
  test('nothing of all this was left to itself', () => {
    expect(one.output()).not.toMatch(/unhandled|uncaught/i)
  })
})
