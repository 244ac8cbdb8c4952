// npm start: installs and builds what is missing, starts the server, prints the address.
import { existsSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { checkNode, ensureBuild, ensurePackages, hangs, root, say, startServer } from './lib.mjs'

checkNode()
const usage =
  'npm start -- [--port 3000] [--host 127.0.0.1] [--data DIR] [--bench 0.0.0.0:3100] [--empty] [--open]'
let options
try {
  options = parseArgs({
    options: {
      port: { type: 'string', default: '3000' },
      host: { type: 'string', default: '127.0.0.1' },
      data: { type: 'string', default: '.data' },
      bench: { type: 'string' },
      empty: { type: 'boolean', default: false },
      open: { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
  }).values
} catch (error) {
  console.error(`${error.message}\n${usage}`)
  process.exit(2)
}
if (options.help) {
  console.log(
    `${usage}\n  --bench  also takes readings of boards on the bench network at this address; the ` +
      `pages stay on --host\n  --empty  begin a new data directory without the demo workshop\n` +
      `  --open   with a --host that others reach: everybody there may read and change everything`,
  )
  process.exit(0)
}
const port = Number(options.port)
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error(`--port ${options.port} is no port: a whole number from 1 to 65535 is wanted.`)
  process.exit(2)
}
if (options.bench !== undefined && !/^.+:\d{1,5}$/.test(options.bench)) {
  console.error(`--bench ${options.bench} cannot be read: host:port is wanted, such as 0.0.0.0:3100.`)
  process.exit(2)
}
if (options.bench?.endsWith(`:${port}`)) {
  console.error(
    `--bench ${options.bench} is the port of the pages: boards need another one, such as ${options.bench.replace(/\d+$/, port + 100)}.`,
  )
  process.exit(2)
}
const alone = ['localhost', '127.0.0.1', '::1'].includes(options.host)
const data = resolve(root, options.data)
const open = `--host ${options.host} lets everybody on that network read and change this workshop`
if (!alone && !existsSync(join(data, 'password.json'))) {
  if (!options.open) {
    console.error(
      `${open}: it has no password. Set one with "npm run password". ` +
        'If that is what you want, in a room that you trust, say so with --open.',
    )
    process.exit(2)
  }
  console.warn(`[redpoll] WARNING: ${open}, without a password`)
}
/** Why nothing can listen there; '' where it can. */
const why = await new Promise((done) => {
  const probe = createServer()
    .once('error', (error) => done(error.code ?? 'UNKNOWN'))
    .once('listening', () => probe.close(() => done('')))
  probe.listen(port, options.host)
})
if (why) {
  const other = `Choose another: npm start -- --port ${port + 1}`
  const words = {
    EADDRINUSE: `Port ${port} on ${options.host} is in use. ${other}`,
    EACCES: `Port ${port} on ${options.host} may not be used by this user. ${other}`,
  }
  console.error(
    words[why] ??
      `--host ${options.host} is no address of this computer: take one of its own, or 0.0.0.0 for all of them.`,
  )
  process.exit(1)
}

// what the tests need is installed with them
await ensurePackages({ all: false })
await ensureBuild()
if (!existsSync(data))
  say(`new data directory ${options.data}${options.empty ? '' : ', with the demo workshop'}`)

/** Times that a server which ended or hung is started again within a while, ms. */
const AGAIN = 5
const WITHIN_MS = 600_000
const began = []
let stopping = false
let server
const stop = () => {
  stopping = true
  server?.child.kill('SIGTERM')
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, stop)

for (;;) {
  began.push(Date.now())
  server = startServer({ ...options, port, data })
  const { child, ready, ended } = server
  try {
    say(`running at ${await ready}  (stop with Ctrl+C)`)
  } catch {
    process.exit(child.exitCode ?? 1)
  }
  const hung = await Promise.race([hangs(server).then(() => true), ended.then(() => false)])
  if (hung) {
    say('the server does not answer any more: it is ended and started again. What was saved is on the disk.')
    child.kill('SIGKILL')
  }
  const { code, signal } = await ended
  if (stopping || (code === 0 && !hung)) process.exit(code ?? 0)
  if (began.filter((at) => Date.now() - at < WITHIN_MS).length > AGAIN) {
    console.error(
      `[redpoll] The server ended ${AGAIN} times within ${WITHIN_MS / 60_000} minutes: it is not started again.`,
    )
    process.exit(1)
  }
  if (!hung) say(`the server ended (${signal ?? `code ${code}`}): it is started again`)
}
