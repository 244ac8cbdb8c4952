import { rmSync } from 'node:fs'
import ICAL from 'ical.js'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { careStart, careTasks } from '#core/care'
import { type Fan, type PlanDocument, seenFrom } from '#core/document'
import { computeReport } from '#core/plan'
import type { InstrumentState, LogSummary, Receipt } from '#shared/api'
import { encodeBlock, readBlocks } from '#shared/log-blocks'
import { demoData, freePort, startServer, type TestServer } from './harness'

let server: TestServer
let data: string
let bench: string
beforeAll(async () => {
  data = await demoData()
  bench = `127.0.0.1:${await freePort()}`
  server = await startServer(data, { bench })
})
afterAll(async () => {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
})

const ask = async <T>(path: string, init: RequestInit = {}) => {
  const response = await fetch(`${server.url}/api/${path}`, init)
  return { status: response.status, body: (await response.json()) as T }
}
const post = <T>(path: string, body: unknown = {}) =>
  ask<T>(path, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
const send = (token: string, text: string) =>
  ask<Receipt>('instruments/readings', {
    method: 'POST',
    body: text,
    headers: { authorization: `Bearer ${token}` },
  })
const rows = (from: number, to: number) =>
  `# boot=k1\n${Array.from({ length: to - from }, (_, i) => `${from + i} ${(from + i) * 20} a_V=${12 + (from + i) / 1000}`).join('\n')}\n`
async function samples(id: string) {
  const { body: log } = await ask<LogSummary>(`logs/${id}`)
  const buffer = await (await fetch(`${server.url}/api/logs/${id}/data`)).arrayBuffer()
  return readBlocks(buffer, log.channels).log
}

describe('a board on the network', () => {
  let token = ''
  test('is made with a token; a second of its name and a nameless one are refused', async () => {
    const made = await post<{ token: string; instrument: { id: string } }>('instruments', {
      id: 'board-1',
      name: 'Board one',
      kind: 'board',
    })
    expect(made).toMatchObject({ status: 200, body: { instrument: { id: 'board-1' } } })
    token = made.body.token
    expect(await post('instruments', { id: 'board-2', name: 'board ONE', kind: 'board' })).toMatchObject({
      status: 422,
      body: { error: { field: 'name' } },
    })
    expect(await post('instruments', { id: 'board-3', name: '  ', kind: 'board' })).toMatchObject({
      status: 400,
      body: { error: { field: 'name' } },
    })
    expect(await post('instruments', { id: 'board-4', name: 'x', kind: 'stand-in' })).toMatchObject({
      status: 400,
    })
  })
  test('a wrong or missing token is refused in words', async () => {
    expect(await send('nonsense', rows(0, 1))).toMatchObject({
      status: 401,
      body: { error: { code: 'wrong-token' } },
    })
    expect(await ask('instruments/readings', { method: 'POST', body: rows(0, 1) })).toMatchObject({
      status: 401,
    })
  })
  test('has a door of its own on the bench network: readings with a token, and nothing else', async () => {
    expect((await ask<{ address: string }>('instruments/address')).body.address).toBe(
      `http://${bench}/api/instruments/readings`,
    )
    const door = (path: string, init: RequestInit = {}) => fetch(`http://${bench}${path}`, init)
    const taken = await door('/api/instruments/readings', {
      method: 'POST',
      body: '# boot=d1\n0 0 a_V=12\n',
      headers: { authorization: `Bearer ${token}` },
    })
    expect([taken.status, await taken.json()]).toEqual([
      200,
      { accepted: 0, repeated: 0, late: 0, held: 0, refused: [], log: null, next: 1 },
    ])
    expect(
      (await door(`/api/instruments/readings?token=${token}`, { method: 'POST', body: '1 20 a_V=12' })).status,
    ).toBe(200)
    expect((await door('/api/instruments/readings', { method: 'POST', body: '2 40 a_V=12' })).status).toBe(401)
    expect(
      (await door('/api/instruments/readings', { method: 'POST', body: 'x'.repeat(2_100_000) })).status,
    ).toBe(413)
    for (const path of ['/', '/api/jobs', '/api/instruments', '/api/instruments/readings'])
      expect((await door(path)).status, path).toBe(404)
  })
  test('killed while logging: what was acknowledged is there, what is sent again is there once', async () => {
    const log = {
      id: 'log-kill',
      name: 'Killed',
      origin: 'recorded',
      startedAt: new Date().toISOString(),
      instrumentId: 'board-1',
      channels: [],
      remarks: '',
    }
    expect((await post<LogSummary>('jobs/job-wax-bench/logs', log)).body.open).toBe(true)
    let safe = 0
    for (let k = 0; k < 6; k++) safe = (await send(token, rows(50 * k, 50 * (k + 1)))).body.next
    expect(safe).toBe(300)
    // the last message is on its way when the server dies: whether it arrived, nobody can say
    const flying = send(token, rows(300, 350)).catch(() => null)
    await server.stop('SIGKILL')
    await flying
    server = await startServer(data)
    const answer = await send(token, rows(250, 400))
    expect(answer.body.accepted + answer.body.repeated).toBe(150)
    expect(answer.body.next).toBe(400)
    const { times, channels } = await samples('log-kill')
    expect(times).toHaveLength(400)
    expect([...channels[0]!.values].map((v) => Math.round((v - 12) * 1000))).toEqual(
      Array.from({ length: 400 }, (_, i) => i),
    )
    expect([...times].every((t, i) => i === 0 || t > times[i - 1]!)).toBe(true)
    const { body } = await ask<InstrumentState[]>('instruments')
    expect(body.find((i) => i.id === 'board-1')).toMatchObject({
      logId: 'log-kill',
      live: { values: [{ name: 'a', quantity: 'voltage' }] },
    })
  })
  test('closed, renamed, put aside, brought back; a new token makes the old one worthless', async () => {
    expect((await post('logs/log-kill/close')).status).toBe(200)
    expect((await send(token, rows(400, 401))).body).toMatchObject({ accepted: 0, log: null })
    expect(
      (
        await ask('logs/log-kill', {
          method: 'PUT',
          body: JSON.stringify({ name: '' }),
          headers: { 'content-type': 'application/json' },
        })
      ).status,
    ).toBe(400)
    expect(
      (
        await ask('logs/log-kill', {
          method: 'PUT',
          body: JSON.stringify({ name: 'Named' }),
          headers: { 'content-type': 'application/json' },
        })
      ).status,
    ).toBe(200)
    expect((await ask('logs/log-kill', { method: 'DELETE' })).status).toBe(200)
    expect((await ask('logs/log-kill')).status).toBe(404)
    expect((await post('logs/log-kill/restore')).status).toBe(200)
    expect((await ask<LogSummary[]>('jobs/job-wax-bench/logs')).body[0]).toMatchObject({
      name: 'Named',
      rows: 400,
      open: false,
    })
    const renewed = await post<{ token: string }>('instruments/board-1/token')
    expect((await send(token, rows(0, 1))).status).toBe(401)
    expect((await send(renewed.body.token, rows(401, 402))).status).toBe(200)
    expect((await ask('instruments/board-1', { method: 'DELETE' })).status).toBe(200)
    expect((await send(renewed.body.token, rows(402, 403))).status).toBe(401)
  })
})

describe('an imported log', () => {
  const block = (data: Uint8Array, seq: number | string = 0) =>
    ask(`logs/log-file/blocks?seq=${seq}`, {
      method: 'POST',
      body: data as BodyInit,
      headers: { 'content-type': 'application/octet-stream' },
    })
  test('takes blocks, refuses what is none, and goes without a trace when it is given up', async () => {
    await post('jobs/job-wax-bench/logs', {
      id: 'log-file',
      name: 'File',
      origin: 'imported',
      startedAt: '2026-05-13T10:00:00.000Z',
      instrumentId: null,
      channels: [{ name: 'a', quantity: 'temperature' }],
      remarks: '',
    })
    expect((await block(encodeBlock([0, 1], [[20, 21]]))).body).toEqual({ rows: 2 })
    expect((await block(encodeBlock([0, 1], [[20, 21]]))).status).toBe(200)
    expect(await block(encodeBlock([1, 0], [[20, 21]]), 1)).toMatchObject({ status: 422 })
    expect(await block(encodeBlock([0], []), 1)).toMatchObject({ status: 422 })
    expect(await block(encodeBlock([0], [[1]]), 'x')).toMatchObject({ status: 400 })
    expect((await samples('log-file')).times).toHaveLength(2)
    expect((await post('logs/log-file/drop')).status).toBe(200)
    expect((await ask('logs/log-file')).status).toBe(404)
  })
  test('of a job that is not there, or with doubtful channels, is refused', async () => {
    const log = {
      id: 'log-x',
      name: 'X',
      origin: 'imported',
      startedAt: '2026-05-13T10:00:00.000Z',
      instrumentId: null,
      channels: [{ name: 'a', quantity: 'temperature' }],
      remarks: '',
    }
    expect((await post('jobs/none/logs', log)).status).toBe(404)
    expect(
      (await post('jobs/job-wax-bench/logs', { ...log, channels: [...log.channels, ...log.channels] })).body,
    ).toMatchObject({ error: { message: 'Two channels of one kind have the same name.' } })
    expect((await post('jobs/job-wax-bench/logs', { ...log, origin: 'recorded' })).body).toMatchObject({
      error: { field: 'instrumentId' },
    })
  })
})

describe('the stand-in box on the server', () => {
  const order = {
    which: 'as-planned',
    volts: 12,
    rateHz: 10,
    speed: 10,
    doorOpen: false,
    tachPulled: false,
    dropouts: 0,
    noise: 1,
  }
  test('speaks as an instrument, follows its voltage, and stops', async () => {
    const started = await post<{ instrumentId: string }>('jobs/job-film-cabinet/box', order)
    expect(started.status).toBe(200)
    const rpm = async () => {
      const { body } = await ask<InstrumentState[]>('instruments')
      return (
        body
          .find((i) => i.id === started.body.instrumentId)
          ?.live?.values.find((v) => v.quantity === 'rotation')?.value ?? 0
      )
    }
    await expect.poll(rpm, { timeout: 8000 }).toBeGreaterThan(1300)
    await post('jobs/job-film-cabinet/box', { ...order, volts: 7 })
    await expect.poll(rpm, { timeout: 8000 }).toBeLessThan(1100)
    expect((await ask<{ running: { jobId: string } }>('box')).body.running.jobId).toBe('job-film-cabinet')
    await ask('box', { method: 'DELETE' })
    expect((await ask<{ running: null }>('box')).body.running).toBeNull()
  })
  test('orders that cannot be are refused', async () => {
    expect((await post('jobs/job-film-cabinet/box', { ...order, rateHz: 5000 })).body).toMatchObject({
      error: { field: 'rateHz' },
    })
    expect((await post('jobs/none/box', order)).status).toBe(404)
  })
})

test('the calendar file, read by another library: the tasks of the plan, on their days', async () => {
  const calendar = await fetch(`${server.url}/api/jobs/job-film-cabinet/care.ics`)
  expect(calendar.headers.get('content-type')).toContain('text/calendar')
  const root = new ICAL.Component(ICAL.parse(await calendar.text()) as unknown[])
  const events = root.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e))
  const { plan: whole, fans } = (await ask<{ plan: PlanDocument; fans: Fan[] }>('jobs/job-film-cabinet')).body
  const plan = seenFrom(whole)
  const made = computeReport({ plan, fans, shown: null })
  if (!made.ok) throw new Error(made.reason)
  const tasks = careTasks(plan, made.report, careStart(plan, '2026-01-01')).filter((t) => t.due !== null)
  expect(tasks.length).toBeGreaterThanOrEqual(5)
  expect(new Set(events.map((e) => e.uid)).size).toBe(events.length)
  expect(
    events.map((e) => [e.uid, e.startDate.toString(), e.startDate.isDate, e.description]).toSorted(),
  ).toEqual(
    tasks.map((t) => [`job-film-cabinet-${t.key}@redpoll`, t.due, true, `${t.how} ${t.why}.`]).toSorted(),
  )
  for (const task of tasks) {
    const event = events.find((e) => e.uid === `job-film-cabinet-${task.key}@redpoll`)!
    expect(event.isRecurring()).toBe(task.everyDays !== null || task.seasons.length > 0)
    if (task.everyDays === null) continue
    const dates = event.iterator()
    const [first, second] = [dates.next(), dates.next()]
    expect(second.subtractDate(first).toSeconds()).toBe(task.everyDays * 86400)
  }
})

test('pictures of a job: what they say they are, once however often they are sent', async () => {
  const sendPicture = (id: string, type: string, body: Uint8Array<ArrayBuffer>, job = 'job-film-cabinet') =>
    ask<{ error?: { message: string } }>(
      `jobs/${job}/attachments?id=${id}&name=bench.png&mediaType=${encodeURIComponent(type)}`,
      { method: 'POST', body },
    )
  const png = Uint8Array.of(137, 80, 78, 71)
  expect((await sendPicture('photo-1', 'image/png', png)).body).toMatchObject({ id: 'photo-1', size: 4 })
  // its answer was lost: sent again, kept once
  expect((await sendPicture('photo-1', 'image/png', png)).body).toMatchObject({ id: 'photo-1', size: 4 })
  expect((await sendPicture('photo-2', 'text/html', Uint8Array.of(1))).status).toBe(400)
  expect((await sendPicture('photo-2', 'image/png', Uint8Array.of(1, 2, 3, 4))).body.error!.message).toContain(
    'no picture of the kind',
  )
  expect((await sendPicture('photo-2', 'image/png', new Uint8Array(30_000_000).fill(137))).status).toBe(400)
  expect((await ask<unknown[]>('jobs/job-film-cabinet/attachments')).body).toHaveLength(1)
  expect((await sendPicture('photo-3', 'image/png', png, 'none')).status).toBe(404)
})
