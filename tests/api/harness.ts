import { spawn, type ChildProcess } from 'node:child_process'
import { createHash, randomUUID } from 'node:crypto'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { Client } from 'pg'
import { openDatabase, type Database } from '../../server/db/database'
import { openPostgres } from '../../server/db/postgres'
import type { Migration } from '../../server/db/migrate'

const root = join(import.meta.dirname, '..', '..')
const migrationDir = join(root, 'server', 'db', 'migrations')

export const migrations: Migration[] = readdirSync(migrationDir)
  .sort()
  .map((name) => ({ name, sql: readFileSync(join(migrationDir, name), 'utf8') }))

/** A PostgreSQL server to test against instead of the embedded one: its address without a database's name; '' for none. */
const server = process.env.REDPOLL_TEST_POSTGRES ?? ''
export const onPostgres = server !== ''
/** The demo workshop there, which others are copied from. */
const DEMO = 'demo_template'

async function onServer<T>(work: (client: Client) => Promise<T>): Promise<T> {
  const client = new Client(`${server}postgres`)
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}
/** Makes a database; one that is there already stays as it is. */
async function makeDatabase(name: string, template = 'template1'): Promise<string> {
  await onServer(async (client) => {
    await client.query('SELECT pg_advisory_lock(2)')
    const { rowCount } = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [name])
    if (!rowCount) await client.query(`CREATE DATABASE "${name}" TEMPLATE "${template}"`)
  })
  return `${server}${name}`
}

/** An empty database with all tables, which is gone afterwards. */
export const memoryDatabase = async (): Promise<Database> =>
  onPostgres
    ? openPostgres(await makeDatabase(`t-${randomUUID()}`), migrations)
    : openDatabase(new Blob([readFileSync(await emptyDump())]), migrations)

export const temporaryDir = () => mkdtempSync(join(tmpdir(), 'redpoll-'))

export const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0))
    })
  })

export interface TestServer {
  url: string
  process: ChildProcess
  output: () => string
  stop: (signal?: NodeJS.Signals) => Promise<number | null>
}

/** The built server on a data directory; resolves when it answers or has ended. */
export async function startServer(
  data: string,
  options: {
    empty?: boolean
    port?: number
    bench?: string
    env?: Record<string, string>
    /** does not wait until it is ready */
    waits?: boolean
  } = {},
): Promise<TestServer> {
  const port = options.port ?? (await freePort())
  // a data directory's place is taken by a database of the same name
  const address = onPostgres ? await makeDatabase(basename(data)) : ''
  let output = ''
  const child = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    env: {
      ...process.env,
      PORT: String(port),
      HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NITRO_HOST: '127.0.0.1',
      REDPOLL_DATA: data,
      REDPOLL_EMPTY: options.empty ? '1' : '',
      REDPOLL_BENCH: options.bench ?? '',
      DATABASE_URL: address,
      ...options.env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  child.stdout.on('data', (text) => {
    output += String(text)
  })
  child.stderr.on('data', (text) => {
    output += String(text)
  })
  const url = `http://127.0.0.1:${port}`
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
  const stop = (signal: NodeJS.Signals = 'SIGTERM') => {
    child.kill(signal)
    return ended
  }
  while (!options.waits) {
    if (child.exitCode !== null || child.signalCode !== null) break
    const ok = await fetch(`${url}/api/health`).then(
      (r) => r.ok,
      () => false,
    )
    if (ok) break
    await new Promise((r) => setTimeout(r, 60))
  }
  return { url, process: child, output: () => output, stop }
}

const cache = join(root, '.cache')

/**
 * What is made once and then copied, since a new cluster takes seconds and a copy does not. It is made aside and moved
 * into place, so that test files running side by side never see half of one.
 * @param kind what it is; older ones of its kind go
 * @param key what it is made of
 * @param make makes it at the place it is given
 */
async function madeOnce(kind: string, key: string, make: (aside: string) => Promise<void>): Promise<string> {
  const template = join(cache, `test-${kind}-${key}`)
  if (existsSync(template)) return template
  mkdirSync(cache, { recursive: true })
  for (const old of readdirSync(cache))
    if (old.startsWith(`test-${kind}-`) && old !== basename(template))
      rmSync(join(cache, old), { recursive: true, force: true })
  const aside = join(cache, `making-${kind}-${process.pid}`)
  await make(aside)
  try {
    renameSync(aside, template)
  } catch {
    // another test file was faster
    rmSync(aside, { recursive: true, force: true })
  }
  return template
}
const copyOf = (template: string) => {
  const copy = temporaryDir()
  cpSync(template, copy, { recursive: true })
  return copy
}

const tables = createHash('sha256').update(JSON.stringify(migrations)).digest('hex').slice(0, 12)
const emptyTemplate = () =>
  madeOnce('empty', tables, async (aside) => (await openDatabase(aside, migrations)).close())
/** A data directory with all tables and nothing in them. */
export const emptyData = async () => copyOf(await emptyTemplate())
/** The same as a dump, which a database in memory begins with. */
const emptyDump = () =>
  madeOnce('dump', tables, async (aside) => {
    const copy = await emptyData()
    const pg = await PGlite.create(join(copy, 'pg'))
    writeFileSync(aside, Buffer.from(await (await pg.dumpDataDir('none')).arrayBuffer()))
    await pg.close()
    rmSync(copy, { recursive: true, force: true })
  })

/** A database in memory on which only these migrations were run; on a server, one of its own. */
export async function bareDatabase(only: readonly Migration[]): Promise<Database> {
  if (onPostgres) return openPostgres(await makeDatabase(`t-${randomUUID()}`), only)
  const dump = await madeOnce('bare', 'cluster', async (aside) => {
    const pg = await PGlite.create()
    writeFileSync(aside, Buffer.from(await (await pg.dumpDataDir('none')).arrayBuffer()))
    await pg.close()
  })
  return openDatabase(new Blob([readFileSync(dump)]), only)
}

/** A copy of a data directory with the demo workshop, made once for a build. */
export async function demoData(): Promise<string> {
  if (onPostgres) {
    await demoTemplate()
    const copy = temporaryDir()
    await makeDatabase(basename(copy), DEMO)
    return copy
  }
  const built = statSync(join(root, '.output', 'server', 'index.mjs')).mtimeMs
  return copyOf(
    await madeOnce('demo', String(Math.round(built)), async (aside) => {
      await (await startServer(aside)).stop()
    }),
  )
}

/** The demo workshop on the PostgreSQL server, made by whoever comes first. */
async function demoTemplate(): Promise<void> {
  await onServer(async (client) => {
    await client.query('SELECT pg_advisory_lock(1)')
    const { rowCount } = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [DEMO])
    if (rowCount) return
    const place = join(temporaryDir(), `making-${randomUUID()}`)
    const making = await startServer(place)
    await making.stop()
    await client.query(`ALTER DATABASE "${basename(place)}" RENAME TO ${DEMO}`)
  })
}
