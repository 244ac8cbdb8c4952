// npm start: installs and builds what is missing, starts the server, prints the address.
import { existsSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { checkNode, ensureBuild, ensurePackages, root, say, startServer } from './lib.mjs'

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
const free = await new Promise((done) => {
  const probe = createServer()
    .once('error', () => done(false))
    .once('listening', () => probe.close(() => done(true)))
  probe.listen(port, options.host)
})
if (!free) {
  console.error(
    `Port ${port} on ${options.host} is in use or may not be used. Choose another: npm start -- --port ${port + 1}`,
  )
  process.exit(1)
}

ensurePackages()
ensureBuild()
if (!existsSync(data))
  say(`new data directory ${options.data}${options.empty ? '' : ', with the demo workshop'}`)
const { child, ready } = startServer({
  port,
  host: options.host,
  data,
  empty: options.empty,
  bench: options.bench,
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill('SIGTERM'))
try {
  const address = await ready
  say(`running at ${address}  (stop with Ctrl+C)`)
} catch {
  process.exit(child.exitCode ?? 1)
}
child.once('exit', (code) => process.exit(code ?? 0))
