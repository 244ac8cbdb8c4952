// What the command scripts share. Node's own modules only: they run before anything is installed.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))
const cache = join(root, '.cache')
export const say = (text) => console.log(`[redpoll] ${text}`)

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major > 20 || (major === 20 && minor >= 19)) return
  console.error(`Redpoll needs Node 20.19 or newer; this is ${process.versions.node}.`)
  process.exit(1)
}

const stampOf = (name) => (existsSync(join(cache, name)) ? readFileSync(join(cache, name), 'utf8') : '')
function stamp(name, value) {
  mkdirSync(cache, { recursive: true })
  writeFileSync(join(cache, name), value)
}

/** Runs a command to its end; ends this process when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    shell: process.platform === 'win32',
    ...options,
  })
  if (result.status !== 0 && !options.mayFail) process.exit(result.status ?? 1)
  return result.status ?? 1
}

/** Time between two words on something long, ms; where nobody looks on, fewer. */
const TELL_MS = process.stdout.isTTY ? 500 : 10_000
/**
 * Runs something that takes its time and says how far it is; ends this process when it fails, with what it had to say.
 * @param what it is, in words
 * @param far how far it is by what it has printed, in words
 */
async function runLong(what, command, args, far) {
  const from = Date.now()
  const child = spawn(command, args, {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    shell: process.platform === 'win32',
  })
  let printed = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (printed += text))
  const told = () => `[redpoll] ${what}: ${far(printed)}, ${Math.round((Date.now() - from) / 1000)} s`
  const timer = setInterval(() => {
    if (process.stdout.isTTY) process.stdout.write(`\r${told()}   `)
    else console.log(told())
  }, TELL_MS)
  const code = await new Promise((done) => child.once('error', () => done(1)).once('exit', done))
  clearInterval(timer)
  if (process.stdout.isTTY) process.stdout.write(`\r${told()}   \n`)
  if (code === 0) return
  console.error(printed)
  process.exit(code ?? 1)
}

/** Packages that are there, and those that shall be. */
function packagesThere() {
  const modules = join(root, 'node_modules')
  if (!existsSync(modules)) return 0
  const names = readdirSync(modules).filter((n) => !n.startsWith('.'))
  const scoped = names.filter((n) => n.startsWith('@'))
  return names.length - scoped.length + scoped.reduce((n, s) => n + readdirSync(join(modules, s)).length, 0)
}
const isUpper = (path) => /^node_modules\/(@[^/]+\/)?[^/]+$/.test(path)
const packagesWanted = (lock, all) =>
  Object.entries(JSON.parse(lock).packages).filter(
    ([path, p]) => isUpper(path) && !p.optional && (all || !p.dev),
  ).length

/**
 * Installs the packages of the lock file when they are not what it says.
 * @param all also what only tests and checks need
 */
export async function ensurePackages({ all = true } = {}) {
  const lock = readFileSync(join(root, 'package-lock.json'))
  const wanted = createHash('sha256').update(lock).digest('hex')
  const there = existsSync(join(root, 'node_modules', 'nuxt'))
  if (there && (stampOf('packages') === wanted || (!all && stampOf('packages-to-run') === wanted))) return
  const count = packagesWanted(lock, all)
  // not "npm ci": it refuses lock files that hold no registry address when optional packages of other platforms are in them
  const install = ['install', '--no-audit', '--no-fund', '--loglevel=error']
  const far = () => `${Math.min(count, packagesThere())} of ${count} packages`
  await runLong('installing (once)', 'npm', [...install, ...(all ? [] : ['--omit=dev'])], far)
  stamp(all ? 'packages' : 'packages-to-run', wanted)
}

function* filesOf(path) {
  if (!existsSync(path)) return
  if (statSync(path).isFile()) {
    yield path
    return
  }
  for (const name of readdirSync(path).sort()) yield* filesOf(join(path, name))
}

/** What a build prints, and what it then does. */
const STAGES = [
  [/client built/i, 'the server, 2 of 3'],
  [/server built/i, 'the package, 3 of 3'],
]
const stageOf = (printed) => STAGES.findLast(([mark]) => mark.test(printed))?.[1] ?? 'the pages, 1 of 3'

/** Builds when the sources are not those of the last build. */
export async function ensureBuild() {
  const hash = createHash('sha256')
  for (const source of [
    'app',
    'core',
    'server',
    'shared',
    'demo',
    'public',
    'nuxt.config.ts',
    'scripts/compress.mjs',
    'package-lock.json',
  ]) {
    for (const file of filesOf(join(root, source))) {
      if (file.endsWith('.test.ts')) continue
      hash.update(relative(root, file)).update(readFileSync(file))
    }
  }
  const wanted = hash.digest('hex')
  if (existsSync(join(root, '.output', 'server', 'index.mjs')) && stampOf('build') === wanted) return
  await runLong('building (the sources changed)', 'npx', ['nuxt', 'build'], stageOf)
  stamp('build', wanted)
}

/** How a host stands in an address. */
const inAddress = (host) =>
  host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host
/** How long a first answer may take, ms. */
const ANSWER_MS = 5000
/** Whether the server at an address is there: ready, or waiting for a database that is not. */
const isThere = async (address) => {
  try {
    const response = await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(ANSWER_MS) })
    return response.ok || (await response.json()).error?.code === 'database-away'
  } catch {
    return false
  }
}
const pause = (ms) => new Promise((done) => setTimeout(done, ms))

/** Starts the built server; resolves when it answers, rejects when it ends first. It ends with its starter. */
export function startServer({ port, host, data, empty, bench, open }) {
  const env = {
    ...process.env,
    PORT: String(port),
    HOST: host,
    NITRO_PORT: String(port),
    NITRO_HOST: host,
    REDPOLL_DATA: data,
    REDPOLL_EMPTY: empty ? '1' : '',
    REDPOLL_STARTER: '1',
    REDPOLL_OPEN: open ? '1' : '',
    NODE_ENV: 'production',
    ...(bench ? { REDPOLL_BENCH: bench } : {}),
  }
  const child = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    cwd: root,
    env,
    // by its input it sees that the starter is gone, however it went
    // what it sends shows that it lives
    stdio: ['pipe', 'pipe', 'inherit', 'ipc'],
  })
  const alive = { at: Date.now() }
  child.on('message', () => (alive.at = Date.now()))
  child.stdout.on('data', (text) => {
    for (const line of String(text).split('\n')) if (line.startsWith('[redpoll]')) console.log(line)
  })
  const address = `http://${inAddress(host)}:${port}`
  const ended = new Promise((done) => child.once('exit', (code, signal) => done({ code, signal })))
  const ready = new Promise((resolve, reject) => {
    void ended.then(({ code }) => reject(new Error(`the server ended with code ${code}`)))
    const ask = async () => {
      while (child.exitCode === null && child.signalCode === null) {
        if (await isThere(address)) return resolve(address)
        await pause(100)
      }
    }
    void ask()
  })
  return { child, ready, ended, alive }
}

/** A server that has shown no life for so long is ended, ms; it is looked at so often. */
const HUNG_MS = Number(process.env.REDPOLL_HUNG_MS ?? 60_000)
const LOOK_MS = Math.min(5000, HUNG_MS / 3)

/** Resolves when a server has stopped showing life; never while it does, whether its database answers or not. */
export async function hangs({ child, alive }) {
  alive.at = Date.now()
  while (child.exitCode === null && child.signalCode === null) {
    const from = Date.now()
    await pause(LOOK_MS)
    // a computer that slept shows a gap of its own
    if (Date.now() - from > 3 * LOOK_MS) alive.at = Date.now()
    if (Date.now() - alive.at > HUNG_MS) return
  }
  await new Promise(() => {})
}
