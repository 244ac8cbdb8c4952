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
        `Put it aside and restore a copy of it, or name another one with --data.`,
    )
    this.name = 'ClusterDamaged'
  }
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
