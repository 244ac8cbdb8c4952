import { createHash } from 'node:crypto'
import { BLOCK_ROWS, encodeBlock } from '#shared/log-blocks'
import type { BackupItem, ConflictChoice, Restored, RestoreOrder } from '#shared/schemas/backup'
import { asOne, type Database } from '../db/database'
import { NotFound, Refused } from '../db/errors'
import { putFans } from '../db/repositories/fans'
import { keptJob, putJob } from '../db/repositories/jobs'
import { putInstrument, putLog, putPicture, putSetting, wholeLog } from '../db/repositories/keeping'
import { putBlock } from '../db/repositories/logs'
import { archiveStock, saveStock } from '../db/repositories/stock'
import { breathe } from '../utils/breathe'
import type { BackedJob, BackedLog, Backup, Piece } from './read'
import { lookHere, standingOf } from './standing'

/**
 * Writes a backup into a workshop, thing by thing: each is written whole or not at all, others work on meanwhile, and what
 * was begun can be gone on with. Gone over again, what is written already is found the same.
 */

/** What may be known, and said, while it goes on. */
export interface Watch {
  told: (done: number) => void
  /** asked before each thing */
  stopped: () => boolean
}
const UNWATCHED: Watch = { told: () => {}, stopped: () => false }

/** Jobs that stand beside those that are here: by choice, or because the one here cannot be read. */
export async function besideJobs(db: Database, backup: Backup, order: RestoreOrder): Promise<string[]> {
  const beside: string[] = []
  for (const id of backup.manifest.jobs) {
    const choice = order.choices[`job/${id}`] ?? order.others
    if (choice === 'both') beside.push(id)
    else if (choice === 'take' && (await keptJob(db, id))?.plan === null) beside.push(id)
  }
  return beside
}

/** The same value with every text that is an old id replaced. */
function renamed(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value
  if (Array.isArray(value)) return value.map((v) => renamed(v, ids))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, renamed(v, ids)]))
}
/** Ids of what stands beside: the same ones however often one restore is begun. */
function idsBeside(backup: Backup, run: string, beside: ReadonlySet<string>): Map<string, string> {
  const fresh = (kind: string, id: string) =>
    `${kind}-${createHash('sha256').update(`${run} ${kind} ${id}`).digest('hex').slice(0, 12)}`
  const ids = new Map<string, string>()
  for (const id of beside) ids.set(id, fresh('job', id))
  for (const log of backup.logs) if (beside.has(log.jobId)) ids.set(log.id, fresh('log', log.id))
  for (const p of backup.pictures)
    if (p.jobId !== null && beside.has(p.jobId)) ids.set(p.id, fresh('picture', p.id))
  return ids
}

const MAX_NAME = 120
/** A job beside the one that is here, told apart by its name. */
function besides(kept: BackedJob, day: string): BackedJob {
  const mark = ` (backup of ${day})`
  const name = kept.plan.job.name.slice(0, MAX_NAME - mark.length) + mark
  return { ...kept, archived: false, plan: { ...kept.plan, job: { ...kept.plan.job, name, variantOf: null } } }
}
/** A variant whose first job is not here stands for itself. */
async function rooted(db: Database, kept: BackedJob): Promise<BackedJob> {
  const { variantOf } = kept.plan.job
  if (variantOf === null || (await keptJob(db, variantOf))) return kept
  return { ...kept, plan: { ...kept.plan, job: { ...kept.plan.job, variantOf: null } } }
}

/** A log without its rows first, then they in blocks; it is whole when the last one is there. */
async function writeLog(db: Database, log: BackedLog): Promise<void> {
  await asOne(db, (within) => putLog(within, { ...log, whole: false }))
  let seq = 0
  for await (const { times, columns } of log.rows())
    for (let from = 0; from < times.length; from += BLOCK_ROWS) {
      const to = Math.min(times.length, from + BLOCK_ROWS)
      const data = encodeBlock(times, columns, from, to)
      await putBlock(db, log.id, { seq: seq++, rows: to - from, channels: columns.length, data })
      await breathe()
    }
  await wholeLog(db, log.id, log.whole)
}

/**
 * Writes what is new and what was chosen.
 * @param run what tells this restore from others
 * @param beside jobs that stand beside those that are here, as `besideJobs` found them when it was begun
 */
export async function restoreBackup(
  db: Database,
  backup: Backup,
  order: RestoreOrder,
  run: string,
  beside: ReadonlySet<string>,
  watch: Watch = UNWATCHED,
): Promise<Restored> {
  const ids = idsBeside(backup, run, beside)
  const own = <T>(value: T): T => renamed(value, ids) as T
  const isBeside = (jobId: string | null) => jobId !== null && beside.has(jobId)
  const day = backup.manifest.made.slice(0, 10)
  const warnings: string[] = []
  const chosen = (item: BackupItem): ConflictChoice =>
    item.state === 'new'
      ? 'take'
      : item.state === 'same'
        ? 'keep'
        : (order.choices[`${item.kind}/${item.id}`] ?? order.others)

  /** @returns how many of its things were written */
  async function write(piece: Piece, items: readonly BackupItem[]): Promise<number> {
    const wanted = new Set(items.filter((i) => chosen(i) === 'take').map((i) => i.id))
    switch (piece.kind) {
      case 'settings':
        if (wanted.size) await putSetting(db, piece.setting.key, piece.setting.value)
        return wanted.size
      case 'fan': {
        const fans = piece.fans.filter((f) => wanted.has(f.fan.id))
        if (fans.length) await asOne(db, (within) => putFans(within, fans))
        return fans.length
      }
      case 'part': {
        const parts = piece.parts.filter((p) => wanted.has(p.part.id))
        const aside = parts.filter((p) => p.archived).map((p) => p.part.id)
        if (parts.length)
          await asOne(db, async (within) => {
            const all = parts.map((p) => p.part)
            await saveStock(within, all)
            await archiveStock(within, aside, true)
          })
        return parts.length
      }
      case 'instrument':
        if (wanted.size) await putInstrument(db, piece.instrument)
        return wanted.size
      case 'job': {
        const { id, name } = piece.job.plan.job
        if (isBeside(id)) {
          if ((await keptJob(db, id))?.plan === null)
            warnings.push(`“${name}” here cannot be read: the one of the backup stands beside it.`)
          const job = besides(own(piece.job), day)
          await asOne(db, (within) => putJob(within, job))
        } else if (wanted.size)
          await asOne(db, async (within) => putJob(within, await rooted(within, piece.job)))
        else return 0
        return 1
      }
      case 'log': {
        const { rows, ...head } = piece.log
        if (!isBeside(head.jobId) && !wanted.size) return 0
        const log = { ...own(head), rows }
        if (!(await keptJob(db, log.jobId))) return 0
        await writeLog(db, log)
        return 1
      }
      case 'picture': {
        const { bytes, ...head } = piece.picture
        if (!isBeside(head.jobId) && !wanted.size) return 0
        const picture = own(head)
        if (picture.jobId !== null && !(await keptJob(db, picture.jobId))) return 0
        await putPicture(db, picture, bytes())
        return 1
      }
    }
  }

  let [written, done] = [0, 0]
  let stopped = false
  const here = await lookHere(db)
  for await (const piece of backup.pieces()) {
    stopped = watch.stopped()
    if (stopped) break
    const items = await standingOf(db, piece, here, true)
    done += items.length
    try {
      written += await write(piece, items)
    } catch (error) {
      // what cannot be written is named, and stands in the way of nothing else
      if (!isRefusal(error)) throw error
      warnings.push(`${items.map((i) => `“${i.name}”`).join(', ')} is not taken: ${error.message}`)
    }
    watch.told(done)
    await breathe()
  }
  return { written, kept: done - written, warnings: [...backup.warnings, ...warnings], stopped }
}

/** A thing that may not stand here: by our rules, or by the database’s own (a class of SQLSTATE). */
function isRefusal(error: unknown): error is Error {
  if (error instanceof Refused || error instanceof NotFound) return true
  const code = (error as { code?: unknown } | null)?.code
  return error instanceof Error && typeof code === 'string' && /^2[23]\w{3}$/.test(code)
}
