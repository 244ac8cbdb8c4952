import { randomUUID } from 'node:crypto'
import {
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  readlinkSync,
  renameSync,
  statSync,
  unlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { hostname } from 'node:os'
import { join } from 'node:path'

/** Another living process uses the data directory. */
export class DataDirectoryBusy extends Error {
  constructor(
    readonly directory: string,
    readonly pid: number,
    elsewhere = '',
  ) {
    super(
      `The data directory ${directory} is in use by another Redpoll (process ${pid}${elsewhere && ` on ${elsewhere}`}). ` +
        `Stop it first, or start with another --data DIR.`,
    )
    this.name = 'DataDirectoryBusy'
  }
}

interface Holder {
  pid: number
  started: string
  token: string
  /** computer or container that its number counts in */
  host?: string
  /** the directory that it was taken for: a copy of it is another one */
  directory?: number
}

/** A holder shows that it lives this often, ms; one of another computer that has not for so long is gone. */
const BEAT_MS = 5000
const GONE_MS = 20_000

/** What tells apart where a process number counts: two containers have one each, on one computer. */
function here(): string {
  try {
    return `${hostname()} ${readlinkSync('/proc/self/ns/pid')}`
  } catch {
    return hostname()
  }
}

/** Start time of a process in kernel ticks where the system tells (Linux): tells a living holder from a reused pid. */
function processStart(pid: number): string {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? ''
  } catch {
    return ''
  }
}

function alive(path: string, directory: string, { pid, started, host, directory: taken }: Holder): boolean {
  if (taken !== undefined && taken !== statSync(directory).ino) return false
  if (host !== undefined && host !== here()) return Date.now() - statSync(path).mtimeMs < GONE_MS
  try {
    process.kill(pid, 0)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false
  }
  const now = processStart(pid)
  return !started || !now || now === started
}

/** Shows that the holder lives; a lock that is gone is none to be shown. */
function touch(path: string): void {
  try {
    const now = new Date()
    utimesSync(path, now, now)
  } catch {
    // taken away while closing
  }
}

function read(path: string): Holder | null {
  try {
    const holder = JSON.parse(readFileSync(path, 'utf8')) as Holder
    return Number.isInteger(holder.pid) ? holder : null
  } catch {
    return null
  }
}

export interface Lock {
  release: () => void
}

/**
 * Takes the data directory for this process. The lock is a file that is written whole and then linked into place, so
 * that it never exists half written. A lock left by a dead process is moved away, checked, and taken over.
 * @throws DataDirectoryBusy while the holder lives
 */
export function acquireLock(directory: string): Lock {
  mkdirSync(directory, { recursive: true, mode: 0o700 })
  const path = join(directory, 'redpoll.lock')
  const mine: Holder = {
    pid: process.pid,
    started: processStart(process.pid),
    token: randomUUID(),
    host: here(),
    directory: statSync(directory).ino,
  }
  const draft = `${path}.${mine.token}`
  writeFileSync(draft, JSON.stringify(mine))
  try {
    for (let attempt = 0; attempt < 20; attempt++) {
      try {
        linkSync(draft, path)
        const beat = setInterval(() => touch(path), BEAT_MS)
        beat.unref()
        return {
          release: () => {
            clearInterval(beat)
            if (read(path)?.token === mine.token) unlinkSync(path)
          },
        }
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
      }
      const holder = read(path)
      if (holder && alive(path, directory, holder))
        throw new DataDirectoryBusy(
          directory,
          holder.pid,
          holder.host === here() ? '' : holder.host?.split(' ')[0],
        )
      moveAway(path, holder)
    }
    throw new DataDirectoryBusy(directory, read(path)?.pid ?? 0)
  } finally {
    unlinkSync(draft)
  }
}

/** Renames a stale lock; should another process have replaced it in between, its lock is put back. */
function moveAway(path: string, stale: Holder | null): void {
  const aside = `${path}.stale.${randomUUID()}`
  try {
    renameSync(path, aside)
  } catch {
    return
  }
  const moved = read(aside)
  if (moved && moved.token !== stale?.token && !existsSync(path)) linkSync(aside, path)
  unlinkSync(aside)
}
