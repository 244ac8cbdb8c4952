import { readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { connect } from 'node:net'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { demoData, freePort, startServer, type TestServer } from './harness'
import { SECRET, setPassword } from './password'

/** A locked workshop: no spelling of an address, no old ticket, no lost file and no crowd of guesses opens it. */

const root = join(import.meta.dirname, '..', '..', 'server', 'api')
/** Every route, as its file says: method, path, and who may call it. */
const routes = readdirSync(root, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts'))
  .map((file) => {
    const bare = file.replace(/\.ts$/, '')
    const method = /\.(get|put|post|delete)$/.exec(bare)?.[1]?.toUpperCase() ?? 'GET'
    const path = bare
      .replace(/\.(get|put|post|delete)$/, '')
      .replace(/(^|\/)index$/, '')
      .replace('[...]', 'no/such/thing')
    const declared = /export default \w+\('(anyone|inside|board)'/.exec(readFileSync(join(root, file), 'utf8'))
    return { file, method, path, caller: declared?.[1] ?? '' }
  })
const SPELLINGS: ((path: string) => string)[] = [
  (p) => `/api/${p}`,
  (p) => `/%61pi/${p}`,
  (p) => `/ap%69/${p}`,
  (p) => `/%61%70%69/${p.replaceAll('o', '%6f')}`,
  (p) => `/%2561pi/${p}`,
  (p) => `/api%2F${p}`,
  (p) => `//api/${p}`,
  (p) => `/api//${p}`,
  (p) => `/./api/./${p}`,
  (p) => `/x/../api/${p}`,
  (p) => `/api;a=b/${p};c`,
  (p) => `/API/${p}`,
  (p) => `/api/${p}/`,
  (p) => `/api/${p}.`,
  (p) => `/api/${p}?x=/api/health`,
  (p) => `/api/health/../${p}`,
  (p) => `/api/session/%2e%2e/${p}`,
  (p) => `http://localhost/api/${p}`,
  (p) => `\\api\\${p}`,
]

let data: string
let server: TestServer
beforeAll(async () => {
  data = await demoData()
  setPassword(data)
  server = await startServer(data)
})
afterAll(async () => {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
})

interface Answer {
  status: number
  type: string
  code: string
  cookie: string
}
/** Asks with an address as it is, which a browser would put right first. */
const ask = (
  method: string,
  path: string,
  headers: Record<string, string> = {},
  body = '{}',
  url = server.url,
) =>
  new Promise<Answer>((resolve, reject) => {
    const { hostname, port } = new URL(url)
    const json = { 'content-type': 'application/json', 'content-length': String(body.length) }
    const sends = ['PUT', 'POST', 'DELETE'].includes(method)
    const asked = request(
      { hostname, port, method, path, headers: { ...(sends ? json : {}), ...headers }, agent: false },
      (response) => {
        let text = ''
        response.setEncoding('utf8').on('data', (part: string) => (text += part))
        response.on('end', () => {
          const answer = text.startsWith('{') ? (JSON.parse(text) as { error?: { code?: string } }) : {}
          resolve({
            status: response.statusCode!,
            type: response.headers['content-type'] ?? '',
            code: answer.error?.code ?? '',
            cookie: response.headers['set-cookie']?.[0]?.split(';')[0] ?? '',
          })
        })
      },
    )
    asked.once('error', reject)
    asked.end(sends ? body : undefined)
  })
const enter = (password = SECRET, url = server.url) =>
  ask('POST', '/api/session', {}, JSON.stringify({ password }), url)
const mayRead = async (cookie: string) => (await ask('GET', '/api/settings', { cookie })).status === 200

test('every route says who may call it', () => {
  expect(routes.length).toBeGreaterThan(60)
  expect(routes.filter((r) => r.caller === '').map((r) => r.file)).toEqual([])
  // what is open to everybody is this, and nothing else
  expect(routes.filter((r) => r.caller !== 'inside').map((r) => `${r.method} ${r.path}`)).toEqual(
    expect.arrayContaining(['GET health', 'GET startup', 'GET session', 'POST session', 'DELETE session']),
  )
  expect(routes.filter((r) => r.caller !== 'inside')).toHaveLength(6)
})

test('no spelling of an address, by no method, gives anything away', { timeout: 240_000 }, async () => {
  const ended = (await enter()).cookie
  expect(await mayRead(ended)).toBe(true)
  await ask('DELETE', '/api/session', { cookie: ended })
  const callers: Record<string, string>[] = [
    {},
    { cookie: ended },
    { authorization: 'Bearer not-a-token', cookie: 'redpoll-ticket=not-a-ticket' },
  ]
  const open = routes.filter((r) => r.caller === 'inside')
  const given: string[] = []
  let asked = 0
  for (const { method, path } of open) {
    const real = path.replace('[id]', path.startsWith('jobs') ? 'job-film-cabinet' : 'x')
    for (const spelling of SPELLINGS)
      for (const headers of callers)
        for (const way of spelling === SPELLINGS[0] ? [method, 'HEAD', 'OPTIONS', 'PATCH'] : [method]) {
          const answer = await ask(way, spelling(real), headers)
          asked++
          // an address that is none of the routes leads to the page, which holds nobody's data
          const page = answer.status === 200 && answer.type.startsWith('text/html')
          if (answer.status >= 500 || (answer.status < 400 && !page && way !== 'OPTIONS'))
            given.push(`${way} ${spelling(real)} ${answer.status} ${answer.type}`)
          if (spelling === SPELLINGS[0] && !['HEAD', 'OPTIONS'].includes(way) && answer.code !== 'password')
            given.push(`${way} ${spelling(real)} says ${answer.code || answer.status}`)
        }
  }
  expect(asked).toBeGreaterThan(3000)
  expect(given.slice(0, 10)).toEqual([])
  const cookie = (await enter()).cookie
  expect((await ask('GET', '/api/jobs/job-film-cabinet', { cookie })).status).toBe(200)
})

test('a ticket serves exactly as it is; it ends by leaving, or when another device ends it', async () => {
  const [mine, other] = [(await enter()).cookie, (await enter()).cookie]
  for (const forged of [`${mine}x`, `${mine}.a.b`, mine.slice(0, -1), `${mine.toUpperCase()}`])
    expect(await mayRead(forged), forged).toBe(false)
  const list = (await (await fetch(`${server.url}/api/tickets`, { headers: { cookie: mine } })).json()) as {
    id: string
    own: boolean
  }[]
  expect(list.filter((t) => t.own)).toHaveLength(1)
  // the last one that came in, which is not this one
  const { id } = list.at(-1)!
  expect(await mayRead(other)).toBe(true)
  expect((await ask('DELETE', `/api/tickets/${id}`, { cookie: mine })).status).toBe(200)
  expect(await mayRead(other)).toBe(false)
  expect((await ask('DELETE', `/api/tickets/${id}`, { cookie: mine })).status).toBe(404)
  await ask('DELETE', '/api/session', { cookie: mine })
  expect(await mayRead(mine)).toBe(false)
})

test.each(['localhost:evil', '[localhost]', '[::1].evil', 'evil.example', 'localhost:1:2', 'a b'])(
  'called %s, nothing is answered',
  async (host) => {
    for (const path of ['/', '/api/health'])
      expect(await ask('GET', path, { host })).toMatchObject({ status: 421, code: 'unknown-host' })
  },
)

test('a password that is gone or torn while the server runs opens nothing', async () => {
  const file = join(data, 'password.json')
  const cookie = (await enter()).cookie
  renameSync(file, `${file}.away`)
  expect(await ask('GET', '/api/jobs')).toMatchObject({ status: 401, code: 'password' })
  expect(await mayRead(cookie)).toBe(true)
  writeFileSync(file, '{"salt": "ab')
  expect(await ask('GET', '/api/jobs')).toMatchObject({ status: 401, code: 'password' })
  expect(await mayRead(cookie)).toBe(true)
  rmSync(file)
  renameSync(`${file}.away`, file)
})

test('a server begun with a torn password lets nobody in and says so; one that others reach does not begin', async () => {
  const torn = await demoData()
  writeFileSync(join(torn, 'password.json'), '{"salt": "ab')
  const begun = await startServer(torn)
  try {
    expect((await ask('GET', '/api/jobs', {}, '', begun.url)).status).toBe(401)
    expect(await enter(SECRET, begun.url)).toMatchObject({ status: 503, code: 'password-file' })
  } finally {
    await begun.stop()
  }
  rmSync(join(torn, 'password.json'))
  const elsewhere = await startServer(torn, { env: { HOST: '127.0.0.2', NITRO_HOST: '127.0.0.2' } })
  expect(elsewhere.process.exitCode).toBe(4)
  expect(elsewhere.output()).toContain('npm run password')
  rmSync(torn, { recursive: true, force: true })
})

test('guesses that are sent at once are as slow as others, the right one among them too', async () => {
  const place = await demoData()
  setPassword(place)
  const own = await startServer(place)
  try {
    const answers = await Promise.all(
      Array.from({ length: 200 }, (_, i) => enter(i === 150 ? SECRET : `guess ${i}`, own.url)),
    )
    const count = (status: number) => answers.filter((a) => a.status === status).length
    // five are free; on a machine that is busy the first waits of the others end meanwhile, each twice as long as the last
    expect(count(200)).toBe(0)
    expect(count(401)).toBeGreaterThanOrEqual(5)
    expect(count(401)).toBeLessThanOrEqual(8)
    expect(count(401) + count(429)).toBe(200)
  } finally {
    await own.stop()
    rmSync(place, { recursive: true, force: true })
  }
})

test('the door of the boards answers addresses that cannot be read, and closes', async () => {
  const place = await demoData()
  const port = await freePort()
  const own = await startServer(place, { bench: `127.0.0.1:${port}` })
  const said = (line: string) =>
    new Promise<string>((resolve, reject) => {
      let text = ''
      const socket = connect(port, '127.0.0.1', () => socket.write(`${line}\r\nhost: b\r\n\r\n`))
      socket.on('data', (part) => (text += String(part)))
      socket.on('end', () => resolve(text))
      socket.on('error', reject)
    })
  try {
    for (const line of ['POST // HTTP/1.1', 'GET http://[bad HTTP/1.1', 'POST //:0 HTTP/1.1'])
      expect(await said(line), line).toMatch(/^HTTP\/1.1 400 /)
  } finally {
    await own.stop()
    rmSync(place, { recursive: true, force: true })
  }
})
