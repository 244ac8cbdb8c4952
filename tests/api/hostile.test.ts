import { rmSync } from 'node:fs'
import { connect } from 'node:net'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { seeded } from '#core/numeric'
import { demoData, onPostgres, startServer, type TestServer } from './harness'

/** Bad requests by the thousand: each is answered in words, none breaks the server, nothing is lost. */

/** `npm run check:hostile` draws more; on a server beside it a part is enough: what refuses them is the same. */
const COUNT = Number(process.env.REDPOLL_HOSTILE ?? (onPostgres ? 500 : 2000))
/** Only of the long draw: npm test runs beside other things. */
const SLOW_MS = process.env.REDPOLL_HOSTILE ? 2000 : Infinity
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

const nasty: unknown[] = [
  null,
  '',
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x'.repeat(5000),
  '<script>alert(1)</script>',
  "'; DROP TABLE job; --",
  '__proto__',
  '0000-00-00T00:00:00Z',
  '9999-12-31T23:59:59+99:99',
  -1,
  0,
  1e308,
  -1e308,
  1.5,
  true,
  [],
  {},
  [null],
  { id: 'x' },
  ['x', 'x'],
]
type Node = Record<string, unknown>
/** Bodies that are none, and kinds that are not taken. */
const RAW = [
  '{"cut": ',
  '['.repeat(50_000),
  `{"a":${'['.repeat(2000)}`,
  '',
  'null',
  '\u0000',
  '"\\ud800"',
  'x'.repeat(9000),
]
const KINDS = [
  'application/json',
  'application/octet-stream',
  'text/plain',
  'text/html',
  'multipart/form-data',
  'x',
]
const METHODS = ['GET', 'POST', 'PUT', 'DELETE', 'PATCH', 'HEAD', 'OPTIONS']
const SPELLINGS: ((path: string) => string)[] = [
  (p) => `%61pi/${p}`,
  (p) => `api/${p}/`,
  (p) => `api/${p};x`,
  (p) => `api//${p}`,
  (p) => `API/${p}`,
  (p) => `api/${p}.`,
  (p) => `api/%252e%252e/${p}`,
  (p) => `api/${p}%00`,
  (p) => `api/${p}?a[b]=c&a=%E0%A4%A`,
]
/** Puts something nasty at a random place of a document. */
function spoiled(document: unknown, random: () => number): unknown {
  const copy = structuredClone(document)
  let at = copy as Node
  for (let depth = 0; depth < 6; depth++) {
    const keys = Object.keys(at)
    const key = keys[Math.floor(random() * keys.length)]
    if (key === undefined) break
    const value = at[key]
    if (value && typeof value === 'object' && random() < 0.75) {
      at = value as Node
      continue
    }
    const twice = Array.isArray(at) && random() < 0.4
    if (twice) (at as unknown as unknown[]).push(structuredClone(value))
    else at[key] = nasty[Math.floor(random() * nasty.length)]
    break
  }
  return copy
}

test(
  `${COUNT} bad requests: no 500, an error with code and message each, none slow, nothing lost`,
  { timeout: 600_000 },
  async () => {
    const random = seeded(7)
    const get = async <T>(path: string) => (await (await fetch(`${server.url}/api/${path}`)).json()) as T
    const jobs = await get<{ id: string; name: string }[]>('jobs')
    const { plan } = await get<{ plan: Node }>('jobs/job-film-cabinet')
    const { fans } = await get<{ fans: { fan: Node }[] }>('fans?limit=2')
    const copy = structuredClone(plan) as { job: { id: string; name: string } }
    const bodies: [string, string, unknown][] = [
      ['PUT', 'jobs/job-film-cabinet', { plan, revision: 1 }],
      ['POST', 'jobs', { name: 'New' }],
      ['POST', 'jobs/import', { plan: copy, fans: [] }],
      ['POST', 'fans', fans[0]!.fan],
      ['POST', 'fans/import', { fans: fans.map((f) => f.fan) }],
      ['PUT', 'settings', { values: { theme: 'dark' } }],
      ['PUT', 'parts', { parts: [{ id: 'p', kind: 'saw', name: 'Saw' }] }],
      ['POST', 'instruments', { id: 'i', name: 'Board', kind: 'board' }],
      [
        'POST',
        'jobs/job-film-cabinet/logs',
        {
          id: 'l',
          name: 'Log',
          origin: 'imported',
          startedAt: '2026-01-01T10:00:00Z',
          instrumentId: null,
          channels: [{ name: 'a', quantity: 'temperature' }],
          remarks: '',
        },
      ],
      [
        'POST',
        'jobs/job-film-cabinet/box',
        {
          which: 'as-found',
          volts: 5,
          rateHz: 1,
          speed: 1,
          doorOpen: false,
          tachPulled: false,
          dropouts: 0,
          noise: 0,
        },
      ],
      ['POST', 'fans/import/undo', { created: ['x'], before: [fans[1]!.fan], revisions: { x: 1 } }],
      ['POST', 'jobs/job-film-cabinet/variants', { name: 'Another', plan }],
      ['POST', 'parts/archive', { ids: ['p'], archived: true }],
      ['PUT', 'backup/copies', { keep: 7 }],
      ['POST', 'restore', { not: 'a zip' }],
      ['POST', 'restore/4f0c0f0e-0000-4000-8000-000000000000', { others: 'keep', choices: {} }],
      ['POST', 'session', { password: 'x' }],
      ['POST', 'logs/log-film-after/blocks?seq=0', [1, 2, 3]],
      ['POST', 'logs/log-film-after/whole', { rows: 3 }],
      ['PUT', 'logs/log-film-after', { name: 'Film' }],
      ['POST', 'instruments/readings', { rows: [{ seq: 1, ms: 1, a_V: 1 }] }],
      ['POST', 'jobs/job-film-cabinet/attachments?id=a&name=b&mediaType=image/png', {}],
      ['GET', 'changes?job=%00', null],
      ['GET', 'fans/changed?since=0000-00-00', null],
      ['GET', 'backup/copies/..%2F..%2Fcluster.json', null],
      ['GET', 'logs/log-film-after/data?after=1e99', null],
      ['GET', 'attachments/%F0%9F%92%A9', null],
      ['PUT', `jobs/${'x'.repeat(3000)}`, { plan, revision: 1 }],
      ['DELETE', 'jobs/no-such-job', {}],
      ['PUT', 'jobs/%00', { plan, revision: 1 }],
      ['GET', 'jobs/%ED%A0%80', null],
      ['GET', 'fans?limit=-5&offset=1e99&text=%00', null],
    ]
    const wrong: string[] = []
    const putBack = () =>
      fetch(`${server.url}/api/jobs/job-film-cabinet/restore`, {
        method: 'POST',
        body: '{}',
        headers: { 'content-type': 'application/json' },
      })
    for (let i = 0; i < COUNT; i++) {
      const [usual, path, good] = bodies[Math.floor(random() * bodies.length)]!
      const any = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!
      const method = random() < 0.1 ? any(METHODS) : usual
      const address = random() < 0.1 ? any(SPELLINGS)(path) : `api/${path}`
      const kind = random() < 0.05 ? any(KINDS) : 'application/json'
      const from = performance.now()
      const body = random() < 0.08 ? any(RAW) : JSON.stringify(good === null ? null : spoiled(good, random))
      const response = await fetch(`${server.url}/${address}`, {
        method,
        ...(['GET', 'HEAD'].includes(method) ? {} : { body, headers: { 'content-type': kind } }),
      })
      const answer = (await response.json().catch(() => null)) as {
        error?: { code?: string; message?: string }
      } | null
      const took = performance.now() - from
      // a job that may be deleted is; it lies aside, and comes back whole
      if (method === 'DELETE' && response.ok && address.includes('job-film-cabinet')) await putBack()
      if (response.status >= 500) wrong.push(`${response.status} ${method} ${address} ${body.slice(0, 300)}`)
      else if (method === 'HEAD') {
        // a head has no words, but the kind that they would have
        if (!response.ok && response.headers.get('content-type') !== 'application/json')
          wrong.push(`no shape: HEAD ${address} ${response.status}`)
      } else if (!response.ok && !(answer?.error?.code && answer.error.message))
        wrong.push(`no words: ${method} ${address} ${response.status}`)
      if (took > SLOW_MS) wrong.push(`${Math.round(took)} ms: ${method} ${address}`)
    }
    await fetch(`${server.url}/api/box`, { method: 'DELETE' })
    expect(wrong.slice(0, 10)).toEqual([])
    const left = await get<{ id: string; name: string }[]>('jobs')
    const gone = jobs.filter((j) => !left.some((l) => l.id === j.id))
    expect(gone).toEqual([])
  },
)

test('a body of 100 MB is answered before it is cut off; the server goes on', async () => {
  const size = 100_000_000
  const chunk = Buffer.alloc(1_000_000, 'x')
  const said = (length: boolean) =>
    new Promise<string>((resolve, reject) => {
      const { hostname, port } = new URL(server.url)
      let text = ''
      const socket = connect(Number(port), hostname, () => {
        socket.write(
          `PUT /api/settings HTTP/1.1\r\nhost: localhost\r\ncontent-type: application/json\r\n` +
            (length ? `content-length: ${size}\r\n\r\n` : 'transfer-encoding: chunked\r\n\r\n'),
        )
        const head = length ? '' : `${chunk.length.toString(16)}\r\n`
        let left = size / chunk.length
        const more = () => {
          for (; left > 0; left--) {
            if (head) socket.write(head)
            socket.write(chunk)
            if (head) socket.write('\r\n')
            if (socket.writableNeedDrain) {
              left--
              socket.once('drain', more)
              return
            }
          }
          if (head) socket.write('0\r\n\r\n')
        }
        more()
      })
      socket.on('data', (part) => {
        text += String(part)
        if (text.includes('"error"')) {
          socket.destroy()
          resolve(text)
        }
      })
      socket.on('error', reject)
    })
  for (const length of [true, false]) {
    const answer = await said(length)
    expect(answer).toMatch(/^HTTP\/1.1 400 /)
    expect(answer).toContain('too-large')
  }
  expect((await fetch(`${server.url}/api/jobs?soon=1`)).status).toBe(200)
})

test('uploads that are broken off leave no traces in what the server prints', async () => {
  const { hostname, port } = new URL(server.url)
  for (let i = 0; i < 40; i++)
    await new Promise<void>((done) => {
      const path =
        i % 2 ? 'settings' : `jobs/job-film-cabinet/attachments?id=cut-${i}&name=x&mediaType=image/png`
      const socket = connect(Number(port), hostname, () => {
        socket.write(
          `${i % 2 ? 'PUT' : 'POST'} /api/${path} HTTP/1.1\r\nhost: localhost\r\ncontent-type: ` +
            `application/${i % 2 ? 'json' : 'octet-stream'}\r\ncontent-length: 100000\r\n\r\n\u0089PNG`,
        )
        setTimeout(() => socket.destroy(), 10)
      })
      socket.on('close', () => done())
    })
  expect((await fetch(`${server.url}/api/jobs?soon=1`)).status).toBe(200)
  expect(server.output()).not.toMatch(/Error|^\s+at /m)
  const pictures = (await (await fetch(`${server.url}/api/jobs/job-film-cabinet/attachments`)).json()) as {
    id: string
  }[]
  expect(pictures.filter((p) => p.id.startsWith('cut-'))).toEqual([])
})
