import {
  existsSync,
  mkdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
  readdirSync,
  accessSync,
  constants,
  cpSync,
} from 'node:fs'
import { join } from 'node:path'
import { flush, flushTree } from './durable-fs'

/** The cluster of a data directory: made once, never laid over another one. */

/** A cluster that is not whole: nothing is written into it. */
export class ClusterDamaged extends Error {
  constructor(directory: string, what: string) {
    super(
      `The data directory ${directory} cannot be opened: ${what}. Nothing was changed in it. ` +
        wayBack(directory),
    )
    this.name = 'ClusterDamaged'
  }
}
/** What brings the workshop back: the newest copy that is there, and the command. */
function wayBack(directory: string): string {
  const copies = join(directory, 'copies')
  const newest = existsSync(copies)
    ? readdirSync(copies)
        .filter((name) => /^daily-.*\.zip$/.test(name))
        .toSorted()
        .at(-1)
    : undefined
  return newest
    ? `Its newest daily copy is ${newest}. Put it into a new directory with ` +
        `"npm run restore -- ${join(copies, newest)} --data ${directory}-new --write", then start with --data ${directory}-new.`
    : 'Put it aside and restore a backup into a new directory with "npm run restore", or name another one with --data.'
}

const NOT_WRITABLE: Record<string, string> = {
  EROFS: 'it lies on a disk that may only be read',
  EACCES: 'this user may not write there',
  EPERM: 'this user may not write there',
  ENOSPC: 'the disk is full',
  EIO: 'the disk does not answer as it should',
}
/** What the database's engine or the system says of files, in words; null where it is something else. */
export function fileTrouble(error: unknown): string | null {
  const { code = '', message = String(error) } = (error ?? {}) as { code?: string; message?: string }
  const page = /invalid page in block (\d+) of relation (\S+?)["\s]*$/.exec(message)
  if (page) return `block ${page[1]} of its file ${page[2]} is damaged`
  const file = /could not [^"]*"([^"]+)"/.exec(message)
  if (file) return `its file ${file[1]} cannot be read as it should`
  if (code in NOT_WRITABLE) return NOT_WRITABLE[code]!
  // the engine says no more than that it gave up
  if (/^Aborted\(\)|PGlite failed to initialize|unreachable|memory access out of bounds/.test(message))
    return 'files of its database (in pg) are damaged or incomplete'
  return /^XX00[12]$/.test(code) ? `a part of its database is damaged (${message})` : null
}

/** What every cluster has; PostgreSQL documentation, "Database File Layout". */
const NEEDED = ['PG_VERSION', 'base', 'global', 'global/pg_control', 'pg_wal', 'pg_xact', 'pg_multixact']
/** Size of a control file, bytes: PostgreSQL writes it whole, in one page. */
const CONTROL_BYTES = 8192
const markerOf = (directory: string) => join(directory, 'cluster.json')

interface Marker {
  state: 'making' | 'made'
  /** of the engine's files */
  version: string
}
function readMarker(directory: string): Marker | null {
  try {
    return JSON.parse(readFileSync(markerOf(directory), 'utf8')) as Marker
  } catch {
    return null
  }
}
function writeMarker(directory: string, marker: Marker) {
  writeFileSync(markerOf(directory), `${JSON.stringify(marker)}\n`)
}
const isEmpty = (path: string) => !existsSync(path) || readdirSync(path).length === 0

/** What is wrong with a cluster's files; '' where they are all there. */
function damageOf(cluster: string): string {
  const missing = NEEDED.filter((name) => !existsSync(join(cluster, name)))
  if (missing.length) return `its database lacks ${missing.join(', ')}`
  const size = statSync(join(cluster, 'global/pg_control')).size
  if (size !== CONTROL_BYTES) return `its control file has ${size} bytes instead of ${CONTROL_BYTES}`
  try {
    accessSync(join(cluster, 'global/pg_control'), constants.R_OK | constants.W_OK)
    accessSync(cluster, constants.R_OK | constants.W_OK | constants.X_OK)
  } catch {
    return 'its files may not be written by this user'
  }
  return ''
}

/**
 * Prepares the place of a cluster, with the lock held: a new one is begun, one whose making was cut short is begun again
 * (nobody was told that anything is kept in it), a whole one is left as it is.
 * @returns the cluster's directory, and what is to be called once it is open
 * @throws ClusterDamaged where files are missing or may not be written
 */
export function prepareCluster(directory: string): { cluster: string; opened: () => void } {
  const cluster = join(directory, 'pg')
  const marker = readMarker(directory)
  if (marker?.state === 'making') rmSync(cluster, { recursive: true, force: true })
  else if (marker && isEmpty(cluster)) throw new ClusterDamaged(directory, 'its database is gone')
  if (!isEmpty(cluster)) {
    const damage = damageOf(cluster)
    if (damage) throw new ClusterDamaged(directory, damage)
    // left by a process that ended without closing: the lock says that nobody else is there
    rmSync(join(cluster, 'postmaster.pid'), { force: true })
    const version = readFileSync(join(cluster, 'PG_VERSION'), 'utf8').trim()
    return { cluster, opened: () => marker ?? writeMarker(directory, { state: 'made', version }) }
  }
  writeMarker(directory, { state: 'making', version: '' })
  mkdirSync(cluster, { recursive: true, mode: 0o700 })
  return {
    cluster,
    opened: () => {
      const version = readFileSync(join(cluster, 'PG_VERSION'), 'utf8').trim()
      flushTree(cluster)
      writeMarker(directory, { state: 'made', version })
      flush(markerOf(directory))
      flush(directory)
    },
  }
}

/** Copies that are kept; the oldest one goes. */
const COPIES = 3
/**
 * Keeps the closed cluster as it is, before its tables are changed: `copies/before-NAME/pg`, beside its marker, a data
 * directory of its own that an older program opens.
 */
export function keepCopy(directory: string, cluster: string, name: string): void {
  const copies = join(directory, 'copies')
  const to = join(copies, `before-${name.replace(/\.sql$/, '')}`)
  rmSync(to, { recursive: true, force: true })
  cpSync(cluster, join(to, 'pg'), { recursive: true })
  cpSync(markerOf(directory), markerOf(to))
  flushTree(to)
  // the daily copies beside them are looked after elsewhere
  const old = readdirSync(copies)
    .filter((name) => name.startsWith('before-'))
    .toSorted((a, b) => statSync(join(copies, b)).mtimeMs - statSync(join(copies, a)).mtimeMs)
    .slice(COPIES)
  for (const gone of old) rmSync(join(copies, gone), { recursive: true, force: true })
}
