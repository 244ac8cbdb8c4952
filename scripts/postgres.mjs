// A PostgreSQL server of its own for tests: made in a temporary folder, listening on this computer only, gone afterwards.
import { spawnSync } from 'node:child_process'
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Where its programs are: Debian keeps each version in a folder of its own. */
function programs() {
  const debian = '/usr/lib/postgresql'
  const versions = existsSync(debian) ? readdirSync(debian).sort((a, b) => Number(b) - Number(a)) : []
  return versions.map((v) => join(debian, v, 'bin')).find((bin) => existsSync(join(bin, 'initdb'))) ?? null
}

/** Its programs refuse to run as root: the user that the package made is taken then. */
function user() {
  if (process.getuid?.() !== 0) return {}
  const of = (flag) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout)
  const [uid, gid] = [of('-u'), of('-g')]
  return uid > 0 ? { uid, gid } : null
}

const freePort = () =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => done(port))
    })
  })

/** @returns its address without a database's name, and how to stop it; null where none can be had */
export async function startPostgres() {
  const bin = programs()
  const as = user()
  if (!bin || !as) return null
  const place = mkdtempSync(join(tmpdir(), 'redpoll-pg-'))
  if (as.uid) chownSync(place, as.uid, as.gid)
  const data = join(place, 'data')
  const run = (program, ...args) =>
    spawnSync(join(bin, program), args, {
      ...as,
      cwd: place,
      env: { ...process.env, LC_ALL: 'C' },
      stdio: 'ignore',
    }).status === 0
  const port = await freePort()
  const settings = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c max_connections=200`
  const started =
    run('initdb', '-D', data, '-U', 'redpoll', '-A', 'trust', '-E', 'UTF8', '--no-sync') &&
    run('pg_ctl', '-D', data, '-l', join(place, 'log'), '-w', '-o', settings, 'start')
  const stop = () => {
    if (started) run('pg_ctl', '-D', data, '-m', 'immediate', 'stop')
    rmSync(place, { recursive: true, force: true })
  }
  if (started) return { address: `postgres://redpoll@127.0.0.1:${port}/`, stop }
  stop()
  return null
}
