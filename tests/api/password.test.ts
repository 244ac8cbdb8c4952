import { readFileSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { demoData, startServer, type TestServer } from './harness'
import { command, SECRET, setPassword } from './password'

/** A workshop with a password: what is seen from outside, and how it is entered. */

let data: string
let server: TestServer
beforeAll(async () => {
  data = await demoData()
  server = await startServer(data)
})
afterAll(async () => {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
})

const ask = async (path: string, init: RequestInit = {}) => {
  const response = await fetch(`${server.url}/${path}`, init)
  const text = await response.text()
  const code = text.startsWith('{') ? (JSON.parse(text) as { error?: { code: string } }).error?.code : undefined
  return { status: response.status, code, text, headers: response.headers }
}
const enter = (password: unknown) =>
  ask('api/session', {
    method: 'POST',
    body: JSON.stringify({ password }),
    headers: { 'content-type': 'application/json' },
  })
/** The ticket as a browser would send it. */
const ticketOf = (headers: Headers) => headers.get('set-cookie')!.split(';')[0]!

test('without a password everybody on this computer is inside', async () => {
  expect((await ask('api/jobs')).status).toBe(200)
  expect(JSON.parse((await ask('api/session')).text)).toEqual({ locked: false, inside: true })
  // there is nothing to give
  expect((await enter('anything')).code).toBe('wrong-password')
})

test('a short password is refused, a good one is kept as a hash for its owner only', () => {
  expect(setPassword(data, 'short')).toMatchObject({ status: 2 })
  expect(setPassword(data, SECRET)).toMatchObject({ status: 0 })
  const file = join(data, 'password.json')
  expect(readFileSync(file, 'utf8')).not.toContain(SECRET)
  expect(statSync(file).mode & 0o777).toBe(0o600)
})

test('from outside nothing is read or written; the door and boards with a token are let through', async () => {
  for (const path of [
    'api/jobs',
    'api/jobs/job-film-cabinet',
    'api/fans',
    'api/settings',
    'api/changes',
    'api/backup',
  ])
    expect(await ask(path), path).toMatchObject({ status: 401, code: 'password' })
  const write = { method: 'PUT', body: '{}', headers: { 'content-type': 'application/json' } }
  expect(await ask('api/settings', write)).toMatchObject({ status: 401, code: 'password' })
  expect((await ask('api/health')).status).toBe(200)
  expect((await ask('')).text).toContain('<html')
  expect(JSON.parse((await ask('api/session')).text)).toEqual({ locked: true, inside: false })
  const board = { method: 'POST', body: 'x', headers: { 'content-type': 'text/plain' } }
  expect(await ask('api/instruments/readings', board)).toMatchObject({ status: 401, code: 'wrong-token' })
})

test('the password opens: by a ticket that scripts cannot read, which cannot be made up', async () => {
  expect(await enter('not it')).toMatchObject({ status: 401, code: 'wrong-password' })
  expect(await enter('')).toMatchObject({ status: 400 })
  expect(await enter(7)).toMatchObject({ status: 400 })
  const inside = await enter(SECRET)
  expect(inside.status).toBe(200)
  expect(inside.headers.get('set-cookie')).toMatch(/HttpOnly/i)
  expect(inside.headers.get('set-cookie')).toMatch(/SameSite=Strict/i)
  const ticket = ticketOf(inside.headers)
  expect((await ask('api/jobs', { headers: { cookie: ticket } })).status).toBe(200)
  for (const one of ['', 'x', 'Infinity.x.y', ticket.split('=')[1]!.toLowerCase()])
    expect((await ask('api/jobs', { headers: { cookie: `redpoll-ticket=${one}` } })).status, one).toBe(401)
  // who leaves is asked again
  const left = await ask('api/session', {
    method: 'DELETE',
    headers: { cookie: ticket, 'content-type': 'application/json' },
  })
  expect(left.headers.get('set-cookie')).toMatch(/Max-Age=0/i)
})

test('a new password ends what was given for the old one; taken away, it opens the door at the next start', async () => {
  const ticket = ticketOf((await enter(SECRET)).headers)
  expect(setPassword(data, 'another nine kettles')).toMatchObject({ status: 0 })
  expect((await ask('api/jobs', { headers: { cookie: ticket } })).status).toBe(401)
  expect((await enter(SECRET)).code).toBe('wrong-password')
  expect((await enter('another nine kettles')).status).toBe(200)
  expect(command('password.mjs', ['--data', data, '--none'])).toMatchObject({ status: 0 })
  expect((await ask('api/jobs')).status).toBe(401)
  await server.stop()
  server = await startServer(data)
  expect((await ask('api/jobs')).status).toBe(200)
})

test('guessing is slowed, for the right word too; tokens as well', async () => {
  expect(setPassword(data, SECRET)).toMatchObject({ status: 0 })
  const answers = []
  for (let i = 0; i < 8; i++) answers.push((await enter(`guess ${i}`)).status)
  expect(answers.slice(0, 5)).toEqual([401, 401, 401, 401, 401])
  expect(answers.slice(5)).toEqual([429, 429, 429])
  const slowed = await enter(SECRET)
  expect(slowed).toMatchObject({ status: 429, code: 'too-often' })
  expect(Number(slowed.headers.get('retry-after'))).toBeGreaterThanOrEqual(1)
  await new Promise((done) => setTimeout(done, 1000 * Number(slowed.headers.get('retry-after'))))
  expect((await enter(SECRET)).status).toBe(200)
  const board = (token: string) =>
    ask('api/instruments/readings', {
      method: 'POST',
      body: 'x',
      headers: { 'content-type': 'text/plain', authorization: `Bearer ${token}` },
    })
  const tokens = []
  for (let i = 0; i < 8; i++) tokens.push((await board(`token-${i}`)).status)
  expect(tokens).toContain(401)
  expect(tokens.slice(-2)).toEqual([429, 429])
})

test('a host that others reach asks for a password, or for --open', () => {
  const bare = join(data, 'bare')
  const refused = command('start.mjs', ['--host', '0.0.0.0', '--port', '1', '--data', bare])
  expect(refused.status).toBe(2)
  expect(refused.stderr).toContain('it has no password')
  // with one it goes on to the next question: whether it may use that port
  const asked = command('start.mjs', ['--host', '203.0.113.7', '--port', '9', '--data', data])
  expect(asked.stderr).not.toContain('password')
  expect(asked.status).toBe(1)
})
