import { spawn, type ChildProcess } from 'node:child_process'
import { readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import { demoData, freePort, temporaryDir } from './harness'

/** The start script: what cannot be is said at once, what hangs is started again, and nothing is left behind. */

const root = join(import.meta.dirname, '..', '..')
const data = await demoData()
const running: ChildProcess[] = []
afterAll(() => {
  for (const child of running) child.kill('SIGKILL')
  rmSync(data, { recursive: true, force: true })
})

function start(args: string[], env: Record<string, string> = {}) {
  const child = spawn(process.execPath, [join(root, 'scripts', 'start.mjs'), ...args], {
    env: { ...process.env, DATABASE_URL: '', ...env },
  })
  running.push(child)
  let output = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (output += String(text)))
  const ended = new Promise<number | null>((done) => child.once('exit', done))
  return { child, ended, output: () => output }
}
type Started = ReturnType<typeof start>
const until = async (what: () => boolean | Promise<boolean>) => {
  while (!(await what())) await new Promise((done) => setTimeout(done, 50))
}
const count = (text: string, part: string) => text.split(part).length - 1
const runs = (started: Started, times = 1) => until(() => count(started.output(), 'running at') >= times)
/** Processes that a starter began. */
const childrenOf = (pid: number) =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean).map(Number)
const alive = (pid: number) => {
  try {
    // a dead one that nobody has asked after is no process any more
    return !/^State:\tZ/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return false
  }
}

describe('what cannot be is said, and ends the start', () => {
  const said = async (args: string[]) => {
    const started = start([...args, '--data', data])
    const code = await started.ended
    return { code, output: started.output() }
  }
  test('a taken port, an unknown host, boards on the port of the pages', async () => {
    const other = createServer()
    await new Promise<void>((done) => other.listen(0, '127.0.0.1', done))
    const { port } = other.address() as { port: number }
    expect(await said(['--port', String(port)])).toMatchObject({
      code: 1,
      output: expect.stringContaining(`Port ${port} on 127.0.0.1 is in use. Choose another`) as string,
    })
    other.close()
    const free = String(await freePort())
    expect(await said(['--port', free, '--host', '203.0.113.9', '--open'])).toMatchObject({
      code: 1,
      output: expect.stringContaining('is no address of this computer') as string,
    })
    expect(await said(['--port', free, '--bench', `0.0.0.0:${free}`])).toMatchObject({
      code: 2,
      output: expect.stringContaining('is the port of the pages') as string,
    })
    expect(await said(['--port', 'seven'])).toMatchObject({ code: 2 })
    expect(await said(['--prot', '1'])).toMatchObject({ code: 2 })
  })
  test('two starts at once on one data directory: one runs, the other says why it does not', async () => {
    const both = [
      start(['--port', String(await freePort()), '--data', data]),
      start(['--port', String(await freePort()), '--data', data]),
    ]
    const first = await Promise.race(both.map((s) => s.ended.then(() => s)))
    expect(first.output()).toMatch(/in use by another Redpoll/)
    const other = both.find((s) => s !== first)!
    await runs(other)
    other.child.kill('SIGTERM')
    expect(await other.ended).toBe(0)
  })
})

describe('a server that runs', () => {
  test('is started again when it ends by itself or stops answering, and says so', async () => {
    const port = await freePort()
    const started = start(['--port', String(port), '--data', data], { REDPOLL_HUNG_MS: '1500' })
    await runs(started)
    const [first] = childrenOf(started.child.pid!)
    process.kill(first!, 'SIGKILL')
    await runs(started, 2)
    expect(started.output()).toContain('the server ended (SIGKILL): it is started again')
    const [second] = childrenOf(started.child.pid!)
    // it is there and does nothing any more
    process.kill(second!, 'SIGSTOP')
    await runs(started, 3)
    expect(started.output()).toContain('does not answer any more: it is ended and started again')
    expect((await fetch(`http://127.0.0.1:${port}/api/jobs/job-film-cabinet`)).status).toBe(200)
    started.child.kill('SIGTERM')
    expect(await started.ended).toBe(0)
    expect([first, second].some((pid) => alive(pid!))).toBe(false)
  })
  test('ends when its starter is killed: no orphan holds the data directory', async () => {
    const started = start(['--port', String(await freePort()), '--data', data])
    await runs(started)
    const [server] = childrenOf(started.child.pid!)
    started.child.kill('SIGKILL')
    await started.ended
    await until(() => !alive(server!))
    const again = start(['--port', String(await freePort()), '--data', data])
    await runs(again)
    again.child.kill('SIGINT')
    expect(await again.ended).toBe(0)
  })
  test('that cannot be opened is not tried again and again', async () => {
    const place = join(temporaryDir(), 'gone')
    const started = start(['--port', String(await freePort()), '--data', place], {
      DATABASE_URL: 'nonsense://x',
    })
    expect(await started.ended).toBe(1)
    expect(count(started.output(), 'DATABASE_URL cannot be read')).toBe(1)
  })
})
