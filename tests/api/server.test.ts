import { demoPlans } from '../../demo/jobs'
import { existsSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'

import type { FanPage, StoredPlan } from '#shared/api'
import { demoData, onPostgres, startServer, temporaryDir, type TestServer } from './harness'

const json = async (response: Promise<Response>) => {
  const r = await response
  return {
    status: r.status,
    type: r.headers.get('content-type') ?? '',
    body: (await r.json()) as Record<string, unknown>,
  }
}
const put = (url: string, body: unknown) =>
  json(
    fetch(url, {
      method: 'PUT',
      body: typeof body === 'string' ? body : JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    }),
  )

describe('the routes', () => {
  let server: TestServer
  let data: string
  beforeAll(async () => {
    data = await demoData()
    server = await startServer(data)
  })
  afterAll(async () => {
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  })

  test('a job leaves as a file and comes back as another, with its fans; what cannot be is refused whole', async () => {
    const send = (body: unknown) =>
      json(
        fetch(`${server.url}/api/jobs/import`, {
          method: 'POST',
          body: JSON.stringify(body),
          headers: { 'content-type': 'application/json' },
        }),
      )
    const file = (await (await fetch(`${server.url}/api/jobs/job-film-cabinet`)).json()) as StoredPlan & {
      fans: { id: string; model: string }[]
    }
    const strange = {
      ...file.fans.find((f) => f.id === file.plan.streams[0]!.places[0]!.fans[0]!.fanId)!,
      id: 'fan-from-afar',
    }
    const plan = structuredClone(file.plan)
    plan.streams[0]!.places[0]!.fans[0]!.fanId = 'fan-from-afar'
    // without the fan it speaks of nothing is written
    const before = (await (await fetch(`${server.url}/api/jobs`)).json()) as { id: string }[]
    expect((await send({ plan, fans: [] })).status).toBe(422)
    expect((await send({ plan: { job: {} } })).status).toBe(400)
    expect((await (await fetch(`${server.url}/api/jobs`)).json()) as unknown[]).toHaveLength(before.length)
    const taken = await send({ plan, fans: [...file.fans, strange] })
    expect(taken.status).toBe(200)
    const { plan: own } = taken.body as unknown as StoredPlan
    expect(own.job.id).not.toBe(file.plan.job.id)
    expect(own.streams[0]!.path).toEqual(file.plan.streams[0]!.path)
    expect(own.runs.map((r) => r.readings)).toEqual(file.plan.runs.map((r) => r.readings))
    expect((await fetch(`${server.url}/api/fans/fan-from-afar`)).status).toBe(200)
    // fans that are known stay as they are
    const changed = file.fans.map((f) => ({ ...f, model: 'Other name' }))
    const again = await send({ plan: file.plan, fans: changed })
    expect(again.status).toBe(200)
    const kept = (await (await fetch(`${server.url}/api/fans/${file.fans[0]!.id}`)).json()) as {
      fan: { model: string }
    }
    expect(kept.fan.model).toBe(file.fans[0]!.model)
    for (const id of [own.job.id, (again.body as unknown as StoredPlan).plan.job.id])
      expect((await fetch(`${server.url}/api/jobs/${id}`, { method: 'DELETE' })).ok).toBe(true)
  })
  test('variants: kept, listed with their figures, refused without a name', async () => {
    const { plan } = (await (await fetch(`${server.url}/api/jobs/job-film-cabinet`)).json()) as StoredPlan
    const send = (body: unknown) =>
      json(
        fetch(`${server.url}/api/jobs/job-film-cabinet/variants`, {
          method: 'POST',
          body: JSON.stringify(body),
          headers: { 'content-type': 'application/json' },
        }),
      )
    expect((await send({ name: ' ', plan })).body).toMatchObject({
      error: { code: 'invalid', message: 'A variant needs a name.', field: 'name' },
    })
    const made = await send({
      name: 'One fan only',
      plan: {
        ...plan,
        streams: plan.streams.map((s) => ({
          ...s,
          places: s.places.map((p) => ({ ...p, fans: p.fans.map((f) => ({ ...f, count: 1 })) })),
        })),
      },
    })
    expect(made.body).toMatchObject({
      plan: { job: { name: 'One fan only', variantOf: 'job-film-cabinet' } },
      revision: 1,
    })
    const list = (await (await fetch(`${server.url}/api/jobs/job-film-cabinet/variants`)).json()) as {
      name: string
      flow: number
      margin: number
      cost: number
    }[]
    expect(list.map((v) => v.name)).toEqual(['Film-drying cabinet', 'One fan only'])
    expect(list[1]!.flow).toBeLessThan(list[0]!.flow)
    expect(list[1]!.margin).toBeLessThan(list[0]!.margin)
    expect((await json(fetch(`${server.url}/api/jobs/job-gone/variants`))).status).toBe(404)
    const { id } = (made.body.plan as StoredPlan['plan']).job
    expect((await fetch(`${server.url}/api/jobs/${id}`, { method: 'DELETE' })).ok).toBe(true)
  })
  test('an import of fans is all or nothing, and can be taken back', async () => {
    const {
      fans: [first],
    } = (await (await fetch(`${server.url}/api/fans`)).json()) as FanPage
    const send = (path: string, body: unknown) =>
      json(
        fetch(`${server.url}/api/fans/${path}`, {
          method: 'POST',
          body: JSON.stringify(body),
          headers: { 'content-type': 'application/json' },
        }),
      )
    const fresh = { ...first!.fan, id: 'fan-import-test', model: 'Import test' }
    const count = async () => ((await (await fetch(`${server.url}/api/fans`)).json()) as FanPage).total
    const before = await count()
    expect(
      (await send('import', { fans: [fresh, { ...fresh, id: 'fan-import-bad', ratedV: -1 }] })).body,
    ).toMatchObject({ error: { code: 'invalid', field: 'fans.1.ratedV' } })
    expect(await count()).toBe(before)
    const done = await send('import', { fans: [fresh, { ...first!.fan, price: 55 }] })
    expect(done.body).toMatchObject({ created: ['fan-import-test'], before: [{ id: first!.fan.id }] })
    expect(await count()).toBe(before + 1)
    expect((await send('import/undo', done.body)).body).toEqual({ undone: 2, left: [] })
    expect(await count()).toBe(before)
    expect((await send('import', { fans: [] })).status).toBe(400)
  })

  test('jobs, shelf, report', async () => {
    expect(await (await fetch(`${server.url}/api/jobs`)).json()).toHaveLength(demoPlans().length)
    expect(((await (await fetch(`${server.url}/api/fans`)).json()) as FanPage).total).toBeGreaterThan(55)
    const { body } = await json(fetch(`${server.url}/api/jobs/job-film-cabinet/report`))
    expect(body).toMatchObject({ need: { missing: null }, selection: { fanName: '2 × Sedge 92' } })
  })
  test('errors are JSON with code and message, never a stack trace', async () => {
    const cases = [
      [json(fetch(`${server.url}/api/jobs/none`)), 404, 'not-found'],
      [json(fetch(`${server.url}/api/nowhere`)), 404, 'not-found'],
      [put(`${server.url}/api/jobs/job-film-cabinet`, '{'), 400, 'not-json'],
      [put(`${server.url}/api/jobs/job-film-cabinet`, {}), 400, 'invalid'],
      [put(`${server.url}/api/settings`, { units: 3 }), 400, 'invalid'],
      [
        json(
          fetch(`${server.url}/api/jobs`, {
            method: 'POST',
            body: JSON.stringify({ name: '  ' }),
            headers: { 'content-type': 'application/json' },
          }),
        ),
        400,
        'invalid',
      ],
      [json(fetch(`${server.url}/api/jobs/none`, { method: 'DELETE' })), 404, 'not-found'],
    ] as const
    for (const [answer, status, code] of cases) {
      const { status: got, type, body } = await answer
      expect(got).toBe(status)
      expect(type).toContain('application/json')
      expect(body).toMatchObject({ error: { code, message: expect.any(String) } })
      expect(JSON.stringify(body)).not.toMatch(/\bat .*\.(m?js|ts)/)
    }
  })
  test('a refused field is named', async () => {
    const stored = (await (await fetch(`${server.url}/api/jobs/job-film-cabinet`)).json()) as StoredPlan
    stored.plan.streams[0]!.path[0]!.areaM2 = 0
    const { status, body } = await put(`${server.url}/api/jobs/job-film-cabinet`, stored)
    expect(status).toBe(400)
    expect(body).toMatchObject({
      error: { field: 'plan.streams.0.path.0.areaM2', message: 'An area must be above zero.' },
    })
  })
  test('an old revision gets 409 and nothing is lost', async () => {
    const stored = (await (await fetch(`${server.url}/api/jobs/job-choir-amplifier`)).json()) as StoredPlan
    stored.plan.job.complaint = 'first'
    expect((await put(`${server.url}/api/jobs/job-choir-amplifier`, stored)).status).toBe(200)
    stored.plan.job.complaint = 'second'
    expect(await put(`${server.url}/api/jobs/job-choir-amplifier`, stored)).toMatchObject({
      status: 409,
      body: { error: { code: 'changed-elsewhere' } },
    })
    expect(await (await fetch(`${server.url}/api/jobs/job-choir-amplifier`)).json()).toMatchObject({
      plan: { job: { complaint: 'first' } },
    })
  })
})

describe('the data directory', () => {
  test.skipIf(onPostgres)(
    'a second process is refused with a clear message; a clean end frees it',
    async () => {
      const data = await demoData()
      const first = await startServer(data)
      const second = await startServer(data)
      expect(await second.stop()).toBe(3)
      expect(second.output()).toContain(`in use by another Redpoll (process ${first.process.pid})`)
      expect(await first.stop('SIGTERM')).toBe(0)
      expect(existsSync(join(data, 'redpoll.lock'))).toBe(false)
      rmSync(data, { recursive: true, force: true })
    },
  )
  test.skipIf(onPostgres)('the lock of a dead process is taken over', async () => {
    const data = await demoData()
    writeFileSync(join(data, 'redpoll.lock'), JSON.stringify({ pid: 4194300, started: '1', token: 'gone' }))
    const server = await startServer(data)
    expect((await fetch(`${server.url}/api/health`)).ok).toBe(true)
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  })
  test('--empty leaves out the demo', async () => {
    const data = temporaryDir()
    const server = await startServer(join(data, 'new', 'place'), { empty: true })
    expect(await (await fetch(`${server.url}/api/jobs`)).json()).toEqual([])
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  })
  /** Beside a server of its own two are enough: what is acknowledged is in its hands. */
  const KILLS = onPostgres ? 2 : 6
  test(`kill -9 while writing, ${KILLS} times: every acknowledged save is there afterwards`, async () => {
    const data = await demoData()
    let acknowledged = 0
    let survived = 0
    for (let round = 0; round < KILLS; round++) {
      const server = await startServer(data)
      const url = `${server.url}/api/jobs/job-kiln-controller`
      let { plan, revision } = (await (await fetch(url)).json()) as StoredPlan
      let last = plan.job.complaint
      let writing = true
      let written = 0
      let enough = () => {}
      const reached = new Promise<void>((resolve) => {
        enough = resolve
      })
      const writer = (async () => {
        for (let i = 0; writing; i++) {
          const complaint = `round ${round} write ${i}`
          plan = { ...plan, job: { ...plan.job, complaint } }
          try {
            const answer = await fetch(url, {
              method: 'PUT',
              body: JSON.stringify({ plan, revision }),
              headers: { 'content-type': 'application/json' },
            })
            if (!answer.ok) return
            revision = ((await answer.json()) as { revision: number }).revision
            last = complaint
            acknowledged++
            if (++written === 2 + round) enough()
          } catch {
            return
          }
        }
      })()
      // a number of acknowledged writes, then in the middle of the next one
      await reached
      await new Promise((r) => setTimeout(r, 4 * round))
      await server.stop('SIGKILL')
      writing = false
      await writer
      const again = await startServer(data)
      const after = (await (await fetch(`${again.url}/api/jobs/job-kiln-controller`)).json()) as StoredPlan
      // the last acknowledged write, or the one under way when the process died
      const number = (text: string) => Number(/write (\d+)/.exec(text)?.[1] ?? -1)
      expect([number(last), number(last) + 1]).toContain(number(after.plan.job.complaint))
      expect(after.plan.streams[0]!.path).toHaveLength(5)
      survived++
      await again.stop()
    }
    expect(survived).toBe(KILLS)
    // 2 in the first round, one more in each
    expect(acknowledged).toBeGreaterThanOrEqual((KILLS * (KILLS + 3)) / 2)
    rmSync(data, { recursive: true, force: true })
  }, 180_000)
})

test('pages, facets, pictures and parts of the shelf', async () => {
  const data = await demoData()
  const server = await startServer(data)
  const get = async (path: string) =>
    (await fetch(`${server.url}/api/${path}`)).json() as Promise<Record<string, never>>
  try {
    const page = (await get('fans?text=sedge&sort=level&limit=3&offset=1')) as unknown as FanPage
    expect(page.fans).toHaveLength(3)
    expect(page.total).toBeGreaterThan(5)
    expect(page.fans.every((f) => f.fan.model.startsWith('Sedge'))).toBe(true)
    expect((await fetch(`${server.url}/api/fans?limit=9999`)).status).toBe(400)
    expect((await get('fans/facets')).frames).toContain(0.12)
    expect((await get('fans/shown')).flow).toMatchObject({ fans: 8 })
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==',
      'base64',
    )
    const attach = (type: string, body: Buffer, id = 'page-1') =>
      fetch(
        `${server.url}/api/fans/${page.fans[0]!.fan.id}/attachments?id=${id}&name=sheet.png&mediaType=${encodeURIComponent(type)}`,
        { method: 'POST', body: new Uint8Array(body) },
      )
    expect((await attach('text/html', png)).status).toBe(400)
    expect((await attach('image/png', Buffer.alloc(0))).status).toBe(400)
    expect((await attach('image/png', png)).status).toBe(200)
    const kept = await fetch(`${server.url}/api/attachments/page-1`)
    expect(kept.headers.get('content-type')).toBe('image/png')
    expect(Buffer.from(await kept.arrayBuffer()).equals(png)).toBe(true)
    expect((await fetch(`${server.url}/api/attachments/page-1`, { method: 'DELETE' })).ok).toBe(true)
    expect((await fetch(`${server.url}/api/attachments/page-1`)).status).toBe(404)
    expect((await fetch(`${server.url}/api/attachments/page-1/restore`, { method: 'POST' })).ok).toBe(true)

    const parts = (await get('parts')) as unknown as { id: string }[]
    expect(parts.length).toBeGreaterThan(10)
    const put = (body: unknown) =>
      fetch(`${server.url}/api/parts`, {
        method: 'PUT',
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      })
    expect((await put({ parts: [{ ...parts[0], name: '' }] })).status).toBe(400)
    const archived = await fetch(`${server.url}/api/parts/archive`, {
      method: 'POST',
      body: JSON.stringify({ ids: [parts[0]!.id], archived: true }),
      headers: { 'content-type': 'application/json' },
    })
    expect(await archived.json()).toHaveLength(parts.length - 1)
    expect(await (await put({ parts: [parts[0]] })).json()).toHaveLength(parts.length)
  } finally {
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  }
})

test('a nearly full disk: nothing is written, said in words; what is stored can be read', async () => {
  const data = await demoData()
  process.env.REDPOLL_LEAST_FREE_MB = '1e12'
  const server = await startServer(data)
  delete process.env.REDPOLL_LEAST_FREE_MB
  try {
    const refused = await json(
      fetch(`${server.url}/api/jobs`, {
        method: 'POST',
        body: JSON.stringify({ name: 'No room' }),
        headers: { 'content-type': 'application/json' },
      }),
    )
    expect(refused.status).toBe(422)
    expect((refused.body.error as { message: string }).message).toMatch(/^The disk has only \d+ MB left/)
    const jobs = (await (await fetch(`${server.url}/api/jobs`)).json()) as { name: string }[]
    expect(jobs.length).toBeGreaterThan(5)
    expect(jobs.some((j) => j.name === 'No room')).toBe(false)
  } finally {
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  }
})

test('every answer says what a browser may do with it', async () => {
  const data = await demoData()
  const server = await startServer(data)
  try {
    const { headers } = await fetch(`${server.url}/api/health`)
    expect(headers.get('x-content-type-options')).toBe('nosniff')
    expect(headers.get('x-frame-options')).toBe('DENY')
    const foreign = await json(
      fetch(`${server.url}/api/jobs`, {
        method: 'POST',
        body: '{"name":"planted"}',
        headers: { 'content-type': 'application/json', origin: 'https://evil.example' },
      }),
    )
    expect([foreign.status, foreign.body]).toMatchObject([403, { error: { code: 'foreign-page' } }])
    const text = await json(
      fetch(`${server.url}/api/jobs`, {
        method: 'POST',
        body: '{"name":"planted"}',
        headers: { 'content-type': 'text/plain' },
      }),
    )
    expect([text.status, text.body]).toMatchObject([415, { error: { code: 'unknown-kind' } }])
    // larger than it says, in pieces: refused while it comes in
    const pieces = new ReadableStream({
      pull(controller) {
        controller.enqueue(new TextEncoder().encode('x'.repeat(1_000_000)))
      },
    })
    const large = await fetch(`${server.url}/api/jobs`, {
      method: 'POST',
      body: pieces,
      duplex: 'half',
      headers: { 'content-type': 'application/json' },
    } as RequestInit).then(
      (r) => r.status,
      () => 'cut off',
    )
    expect([400, 'cut off']).toContain(large)
    expect((await fetch(`${server.url}/api/health`)).ok).toBe(true)
  } finally {
    await server.stop()
    rmSync(data, { recursive: true, force: true })
  }
})
