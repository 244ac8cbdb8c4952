import {
  createWriteStream,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { z } from 'zod'
import { copiesSchema, type Copies, type DailyCopy } from '#shared/schemas/backup'
import type { Database } from '../db/database'
import { flush } from '../db/durable-fs'
import { changesOf } from '../db/repositories/changes'
import { NotFound } from '../db/errors'
import { breathe } from '../utils/breathe'
import { checkRoom } from '../utils/room'
import { openBackup } from './read'
import { writeBackup } from './write'

/** Copies of the workshop that are made by themselves: one a day on which something was changed, a number of them kept. */

const KEPT_AT_FIRST = 7
const copiesDir = (data: string) => join(data, 'copies')
/** Beside the copies, not in the workshop: each data directory has its own. */
const stateFile = (data: string) => join(copiesDir(data), 'daily.json')

/** Why the last copy could not be made; '' where it could. */
let problem = ''

/** How many are kept, how the workshop stood at the last one, and what was found when it was read back. */
const stateSchema = z.object({
  keep: copiesSchema.shape.keep,
  marks: z.string(),
  /** names of the copies in the order in which they were made: a clock may have been wrong */
  made: z.array(z.string()).default([]),
  proof: z
    .object({ name: z.string(), at: z.string(), things: z.number(), problem: z.string() })
    .nullable()
    .default(null),
})
type State = z.infer<typeof stateSchema>
function stateOf(data: string): State {
  try {
    return stateSchema.parse(JSON.parse(readFileSync(stateFile(data), 'utf8')))
  } catch {
    return { keep: KEPT_AT_FIRST, marks: '', made: [], proof: null }
  }
}
function keepState(data: string, state: State) {
  mkdirSync(copiesDir(data), { recursive: true, mode: 0o700 })
  const draft = `${stateFile(data)}.part`
  writeFileSync(draft, JSON.stringify(state), { mode: 0o600 })
  renameSync(draft, stateFile(data))
}

const NAME = /^daily-(\d{4}-\d{2}-\d{2})\.zip$/
/** The last one made first; those of which nobody knows when they were made behind, by the dates in their names. */
export function listCopies(data: string): DailyCopy[] {
  const dir = copiesDir(data)
  if (!existsSync(dir)) return []
  const { made } = stateOf(data)
  const order = (a: string, b: string) => made.indexOf(b) - made.indexOf(a) || (a < b ? 1 : -1)
  return readdirSync(dir)
    .filter((name) => NAME.test(name))
    .sort(order)
    .map((name) => {
      const { size, mtime } = statSync(join(dir, name))
      return { name, made: mtime.toISOString(), size }
    })
}
export const copiesOf = (data: string): Copies => ({
  keep: stateOf(data).keep,
  copies: listCopies(data),
  problem,
  proof: stateOf(data).proof,
})
export function keepCopies(data: string, keep: number): Copies {
  keepState(data, { ...stateOf(data), keep })
  prune(data, keep)
  return copiesOf(data)
}
/** Where a copy lies. @throws NotFound */
export function copyFile(data: string, name: string): string {
  const file = join(copiesDir(data), name)
  if (!NAME.test(name) || !existsSync(file)) throw new NotFound('copy')
  return file
}
function prune(data: string, keep: number) {
  for (const { name } of listCopies(data).slice(Math.max(0, keep))) rmSync(join(copiesDir(data), name))
}

async function marksOf(db: Database): Promise<string> {
  const { bench, shelf, parts } = await changesOf(db, '')
  const [logs] = await db.query<{ mark: string }>(
    "SELECT count(*) || ' ' || coalesce(sum(rows), 0) AS mark FROM log_block",
  )
  const [pictures] = await db.query<{ mark: string }>(
    "SELECT count(*) || ' ' || coalesce(sum(revision), 0) AS mark FROM attachment",
  )
  return [bench, shelf, parts, logs!.mark, pictures!.mark].join(' | ')
}

/** Writes a backup to a file: aside first, on the disk, then under its name. */
export async function backupTo(db: Database, file: string, made: string): Promise<void> {
  const draft = `${file}.part`
  try {
    await pipeline(writeBackup(db, null, made), createWriteStream(draft, { mode: 0o600 }))
    flush(draft)
    renameSync(draft, file)
  } catch (error) {
    rmSync(draft, { force: true })
    throw error
  }
}

/**
 * Reads the newest copy back to its end, once: every sum, every thing by its schema, every row and picture.
 * @param now ISO moment
 */
export async function proveCopy(data: string, now: string): Promise<void> {
  const [newest] = listCopies(data)
  if (!newest || stateOf(data).proof?.name === newest.name) return
  let things = 0
  let wrong = ''
  try {
    const backup = await openBackup(copyFile(data, newest.name))
    try {
      for await (const piece of backup.pieces()) {
        things += piece.kind === 'fan' ? piece.fans.length : piece.kind === 'part' ? piece.parts.length : 1
        if (piece.kind === 'log') for await (const _ of piece.log.rows()) await breathe()
        if (piece.kind === 'picture') for await (const _ of piece.picture.bytes()) await breathe()
        await breathe()
      }
      wrong = backup.warnings.join(' ')
    } finally {
      backup.close()
    }
  } catch (error) {
    wrong = error instanceof Error ? error.message : String(error)
  }
  keepState(data, { ...stateOf(data), proof: { name: newest.name, at: now, things, problem: wrong } })
}

/**
 * Makes the day's copy where none is there and something was changed since the last one.
 * @param today ISO moment
 * @returns whether one was made
 */
export async function dailyCopy(db: Database, data: string, today: string): Promise<boolean> {
  const { keep, marks, made, proof } = stateOf(data)
  const name = `daily-${today.slice(0, 10)}.zip`
  const dir = copiesDir(data)
  if (keep === 0 || existsSync(join(dir, name))) return false
  const now = await marksOf(db)
  if (now === marks && listCopies(data).length) return false
  try {
    checkRoom()
    mkdirSync(dir, { recursive: true, mode: 0o700 })
    await backupTo(db, join(dir, name), today)
    keepState(data, { keep, marks: now, made: [...made.filter((n) => n !== name), name], proof })
    prune(data, keep)
    problem = ''
    return true
  } catch (error) {
    problem = `The copy of ${today.slice(0, 10)} could not be made: ${error instanceof Error ? error.message : String(error)}`
    return false
  }
}
