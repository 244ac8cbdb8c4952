import { randomUUID } from 'node:crypto'
import { existsSync, linkSync, mkdirSync, readFileSync, renameSync, unlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** Another living process uses the data directory. */
export class DataDirectoryBusy extends Error {
  constructor(
    readonly directory: string,
    readonly pid: number,
  ) {
    super(
      `The data directory ${directory} is in use by another Redpoll (process ${pid}). Stop it first, or start with another --data DIR.`,
    )
    this.name = 'DataDirectoryBusy'
  }
}

interface Holder {
  pid: number
  started: string
  token: string
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

function alive({ pid, started }: Holder): boolean {
  try {
    process.kill(pid, 0)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false
  }
  const now = processStart(pid)
  return !started || !now || now === started
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
  mkdirSync(directory, { recursive: true })
  const path = join(directory, 'redpoll.lock')
  const mine: Holder = { pid: process.pid, started: processStart(process.pid), token: randomUUID() }
  const draft = `${path}.${mine.token}`
  writeFileSync(draft, JSON.stringify(mine))
  try {
    for (let attempt = 0; attempt < 20; attempt++) {
      try {
        linkSync(draft, path)
        return {
          release: () => {
            if (read(path)?.token === mine.token) unlinkSync(path)
          },
        }
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
      }
      const holder = read(path)
      if (holder && alive(holder)) throw new DataDirectoryBusy(directory, holder.pid)
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
