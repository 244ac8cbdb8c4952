import { randomUUID } from 'node:crypto'
import {
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { copyFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { z } from 'zod'
import { restoreSchema, type BackupPreview, type Restored, type RestoreProgress } from '#shared/schemas/backup'
import type { Database } from '../db/database'
import { flush } from '../db/durable-fs'
import { NotFound, Refused } from '../db/errors'
import { openBackup } from './read'
import { besideJobs, restoreBackup } from './restore'
import { previewOf } from './standing'

/**
 * Backups on their way into a workshop: each waits in the data directory until somebody says what is wanted of it, and has
 * a note beside it once it is being written. A server that ended meanwhile goes on with it when it starts again.
 */

const dirOf = (data: string) => join(data, 'restore')
const fileOf = (data: string, id: string) => join(dirOf(data), `${id}.zip`)
const noteOf = (data: string, id: string) => join(dirOf(data), `${id}.json`)
const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/
/** What nobody asked for any more after so long goes, ms. */
const STALE_MS = 86400_000

/** How a restore was begun. */
const noteSchema = z.object({
  order: restoreSchema.omit({ of: true }),
  beside: z.array(z.string()),
  of: z.number(),
  stopped: z.boolean(),
})
type Note = z.infer<typeof noteSchema>
function keepNote(data: string, id: string, note: Note) {
  const draft = `${noteOf(data, id)}.part`
  writeFileSync(draft, JSON.stringify(note), { mode: 0o600 })
  flush(draft)
  renameSync(draft, noteOf(data, id))
}
function readNote(data: string, id: string): Note | null {
  try {
    return noteSchema.parse(JSON.parse(readFileSync(noteOf(data, id), 'utf8')))
  } catch {
    return null
  }
}

/** What is going on now; one at a time is written. */
const now = { id: '', doing: 'nothing' as RestoreProgress['doing'], done: 0, of: 0, stop: false }
let writing: Promise<Restored> | null = null
const begin = (id: string, doing: RestoreProgress['doing'], of: number) =>
  Object.assign(now, { id, doing, done: 0, of, stop: false })

/** Brings a backup in: its bytes are kept on the disk as they come. @returns the id by which it is asked for */
export async function holdBackup(data: string, bytes: AsyncIterable<Uint8Array> | string): Promise<string> {
  const dir = dirOf(data)
  mkdirSync(dir, { recursive: true, mode: 0o700 })
  for (const name of readdirSync(dir))
    if (!name.includes(now.id || '-none-') && Date.now() - statSync(join(dir, name)).mtimeMs > STALE_MS)
      rmSync(join(dir, name))
  const id = randomUUID()
  const draft = `${fileOf(data, id)}.part`
  try {
    if (typeof bytes === 'string') await copyFile(bytes, draft)
    else await pipeline(Readable.from(bytes, { objectMode: false }), createWriteStream(draft, { mode: 0o600 }))
    renameSync(draft, fileOf(data, id))
  } catch (error) {
    rmSync(draft, { force: true })
    throw error
  }
  return id
}
/** @throws NotFound */
function held(data: string, id: string): string {
  if (!ID.test(id) || !existsSync(fileOf(data, id))) throw new NotFound('backup')
  return fileOf(data, id)
}
function drop(data: string, id: string) {
  rmSync(fileOf(data, id), { force: true })
  rmSync(noteOf(data, id), { force: true })
}

/** What restoring a backup that was brought in would do. One that cannot be read goes again. @throws Refused */
export async function lookAt(db: Database, data: string, id: string): Promise<BackupPreview> {
  const alone = writing === null
  try {
    const backup = await openBackup(held(data, id))
    if (alone) begin(id, 'reading', 0)
    try {
      return await previewOf(db, backup, id, (done) => {
        if (alone) now.done = done
      })
    } finally {
      backup.close()
      if (alone && now.id === id) begin('', 'nothing', 0)
    }
  } catch (error) {
    drop(data, id)
    throw error
  }
}

/**
 * Writes what was chosen; one that was stopped goes on as it was begun.
 * @param of things that it has, for telling how far it is
 * @throws NotFound, Refused while another one is being written
 */
export async function writeRestore(
  db: Database,
  data: string,
  id: string,
  order: Note['order'],
  of = 0,
): Promise<Restored> {
  const file = held(data, id)
  if (writing) throw new Refused('Another backup is being restored: wait for its end.')
  writing = write(db, data, id, file, order, of)
  try {
    return await writing
  } finally {
    writing = null
  }
}
async function write(
  db: Database,
  data: string,
  id: string,
  file: string,
  order: Note['order'],
  of: number,
): Promise<Restored> {
  const backup = await openBackup(file)
  try {
    const begun = readNote(data, id)
    const note = {
      ...(begun ?? { order, beside: await besideJobs(db, backup, order), of }),
      stopped: false,
    }
    keepNote(data, id, note)
    begin(id, 'writing', note.of)
    const done = await restoreBackup(db, backup, note.order, id, new Set(note.beside), {
      told: (n) => (now.done = n),
      stopped: () => now.stop,
    })
    if (done.stopped) keepNote(data, id, { ...note, stopped: true })
    else drop(data, id)
    return done
  } finally {
    backup.close()
    begin('', 'nothing', 0)
  }
}

/** How far it is: what is going on, or what was stopped and waits. */
export function progressOf(data: string): RestoreProgress {
  const { id, doing, done, of } = now
  if (doing !== 'nothing') return { id, doing, done, of }
  const waiting = existsSync(dirOf(data))
    ? readdirSync(dirOf(data))
        .map((name) => name.replace(/\.json$/, ''))
        .find((name) => ID.test(name) && readNote(data, name)?.stopped && existsSync(fileOf(data, name)))
    : undefined
  if (waiting === undefined) return { id: '', doing, done, of }
  return { id: waiting, doing: 'stopped', done: 0, of: readNote(data, waiting)!.of }
}
/** Stops what is being written behind its next thing, or gives up what waits. @throws NotFound */
export function stopRestore(data: string, id: string): void {
  held(data, id)
  if (now.id === id && now.doing === 'writing') now.stop = true
  else drop(data, id)
}

/** Goes on with what a server was writing when it ended. */
export async function goOn(db: Database, data: string, tell: (text: string) => void): Promise<void> {
  if (!existsSync(dirOf(data))) return
  for (const name of readdirSync(dirOf(data))) {
    const id = name.replace(/\.json$/, '')
    const note = ID.test(id) && name.endsWith('.json') ? readNote(data, id) : null
    if (!note || note.stopped || !existsSync(fileOf(data, id))) continue
    tell('going on with a restore that was cut short')
    await writeRestore(db, data, id, note.order).then(
      (done) => tell(`the restore is done: ${done.written} written, ${done.kept} as they were`),
      (error: unknown) => console.error(error),
    )
  }
}
