import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import { BLOCK_ROWS, encodeBlock } from '#shared/log-blocks'
import {
  backupKinds,
  type BackupItem,
  type BackupKind,
  type BackupPreview,
  type ConflictChoice,
  type Restored,
  type RestoreOrder,
} from '#shared/schemas/backup'
import { asOne, type Database } from '../db/database'
import { keptFans, putFans } from '../db/repositories/fans'
import { keptJob, putJob } from '../db/repositories/jobs'
import {
  keptInstruments,
  keptLogs,
  keptPictures,
  keptSettings,
  putInstrument,
  putLog,
  putPicture,
  putSetting,
} from '../db/repositories/keeping'
import { putBlock } from '../db/repositories/logs'
import { archiveStock, keptParts, saveStock } from '../db/repositories/stock'
import type { BackedJob, Backup } from './read'

/** A backup held against what is here, and written into it: everything that was chosen, or nothing. */

type Standing = Pick<BackupItem, 'state' | 'detail' | 'changed'>
const NEW: Standing = { state: 'new', detail: '', changed: null }
const SAME: Standing = { state: 'same', detail: '', changed: null }
const differs = (detail: string): Standing => ({ state: 'conflict', detail, changed: null })

interface Kept {
  archived: boolean
}
/** Something that is here and in the backup; what was put aside here comes back without asking. */
const against = (here: Kept | undefined, there: Kept, same: boolean, detail: string): Standing => {
  if (!here) return NEW
  if (here.archived && !there.archived && same) return { ...NEW, detail: 'was put aside here' }
  return same ? SAME : differs(detail)
}

/** Every thing of a backup with how it stands to what is here. */
async function itemsOf(db: Database, backup: Backup): Promise<BackupItem[]> {
  const items: BackupItem[] = []
  const add = (kind: BackupKind, id: string, name: string, standing: Standing) =>
    items.push({ kind, id, name, ...standing })
  for (const job of backup.jobs) {
    const { id, name } = job.plan.job
    const here = await keptJob(db, id)
    const same = here !== null && isDeepStrictEqual(here.plan, job.plan)
    const standing = against(here ?? undefined, job, same, '')
    const changed =
      here && standing.state === 'conflict' ? { here: here.updatedAt, there: job.updatedAt } : null
    add('job', id, name, { ...standing, changed })
  }
  const fans = new Map((await keptFans(db)).map((f) => [f.fan.id, f]))
  for (const kept of backup.fans) {
    const here = fans.get(kept.fan.id)
    const same = isDeepStrictEqual(here?.fan, kept.fan)
    add(
      'fan',
      kept.fan.id,
      `${kept.fan.maker} ${kept.fan.model}`.trim(),
      against(here, kept, same, 'other figures'),
    )
  }
  const parts = new Map((await keptParts(db)).map((p) => [p.part.id, p]))
  for (const kept of backup.parts) {
    const here = parts.get(kept.part.id)
    const same = isDeepStrictEqual(here?.part, kept.part)
    add('part', kept.part.id, kept.part.name, against(here, kept, same, 'other figures'))
  }
  const instruments = new Map((await keptInstruments(db)).map((i) => [i.id, i]))
  for (const kept of backup.instruments) {
    const here = instruments.get(kept.id)
    const same = here?.name === kept.name && here.kind === kept.kind && here.tokenHash === kept.tokenHash
    add('instrument', kept.id, kept.name, against(here, kept, same, 'another name or token'))
  }
  const settings = new Map((await keptSettings(db)).map((s) => [s.key, s.value]))
  for (const { key, value } of backup.settings) {
    const here = settings.get(key)
    add(
      'settings',
      key,
      key,
      here === undefined ? NEW : isDeepStrictEqual(here, value) ? SAME : differs('other choices'),
    )
  }
  const logs = new Map((await keptLogs(db)).map((l) => [l.id, l]))
  for (const kept of backup.logs) {
    const here = logs.get(kept.id)
    const same =
      here?.rows === kept.rows && isDeepStrictEqual(here.channels, kept.channels) && here.jobId === kept.jobId
    add(
      'log',
      kept.id,
      kept.name,
      against(here, kept, same, `${here?.rows} rows here, ${kept.rows} in the backup`),
    )
  }
  const pictures = new Map((await keptPictures(db)).map((p) => [p.id, p]))
  for (const kept of backup.pictures) {
    const here = pictures.get(kept.id)
    const same = here?.size === kept.size && here.fanId === kept.fanId && here.jobId === kept.jobId
    add('picture', kept.id, kept.name, against(here, kept, same, 'another picture'))
  }
  return items
}

/** Things told one by one. */
const TOLD = 300

/** What a restore would do. */
export async function previewOf(db: Database, backup: Backup, id: string): Promise<BackupPreview> {
  const items = await itemsOf(db, backup)
  const none = () => ({ new: 0, same: 0, conflict: 0 })
  const counts = Object.fromEntries(backupKinds.map((k) => [k, none()])) as BackupPreview['counts']
  for (const item of items) counts[item.kind][item.state]++
  const told = (state: BackupItem['state']) => items.filter((i) => i.state === state)
  // every conflict can be decided; of what is new a list is enough
  const listed = [...told('conflict'), ...told('new').slice(0, TOLD)]
  return {
    id,
    made: backup.manifest.made,
    scope: backup.manifest.scope,
    counts,
    items: listed,
    more: told('new').length + told('conflict').length - listed.length,
    warnings: backup.warnings,
  }
}

/** The same value with every text that is an old id replaced. */
function renamed(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value
  if (Array.isArray(value)) return value.map((v) => renamed(v, ids))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, renamed(v, ids)]))
}
const newId = (kind: string) => `${kind}-${randomUUID().slice(0, 8)}`

/**
 * Writes what is new and what was chosen, in one transaction.
 * @param order what happens to conflicts
 */
export const restoreBackup = (db: Database, backup: Backup, order: RestoreOrder): Promise<Restored> =>
  asOne(db, async (within) => {
    const items = await itemsOf(within, backup)
    const warnings = [...backup.warnings]
    const chosen = (item: BackupItem): ConflictChoice =>
      item.state === 'new'
        ? 'take'
        : item.state === 'same'
          ? 'keep'
          : (order.choices[`${item.kind}/${item.id}`] ?? order.others)
    const choices = new Map(items.map((i) => [`${i.kind}/${i.id}`, chosen(i)]))
    const takes = (kind: BackupKind, id: string) => choices.get(`${kind}/${id}`) === 'take'

    // jobs that are wanted beside those that are here: they, their logs and their pictures get ids of their own
    const beside = new Set<string>()
    for (const { plan } of backup.jobs) {
      const { id } = plan.job
      const unreadable = takes('job', id) && (await keptJob(within, id))?.plan === null
      if (unreadable)
        warnings.push(`“${plan.job.name}” here cannot be read: the one of the backup stands beside it.`)
      if (unreadable || choices.get(`job/${id}`) === 'both') beside.add(id)
    }
    const ids = new Map<string, string>()
    for (const id of beside) ids.set(id, newId('job'))
    for (const log of backup.logs) if (beside.has(log.jobId)) ids.set(log.id, newId('log'))
    for (const p of backup.pictures)
      if (p.jobId !== null && beside.has(p.jobId)) ids.set(p.id, newId('picture'))
    const own = <T>(value: T): T => renamed(value, ids) as T
    /** Things of a job go where it goes: beside, or by their own choice. */
    const goes = (kind: 'log' | 'picture', id: string, jobId: string | null) =>
      (jobId !== null && beside.has(jobId)) || takes(kind, id)

    let written = 0
    for (const { key, value } of backup.settings)
      if (takes('settings', key)) {
        await putSetting(within, key, value)
        written++
      }
    const fans = backup.fans.filter((f) => takes('fan', f.fan.id))
    if (fans.length) await putFans(within, fans)
    const parts = backup.parts.filter((p) => takes('part', p.part.id))
    if (parts.length) {
      await saveStock(
        within,
        parts.map((p) => p.part),
      )
      const aside = parts.filter((p) => p.archived).map((p) => p.part.id)
      await archiveStock(within, aside, true)
    }
    const instruments = backup.instruments.filter((i) => takes('instrument', i.id))
    for (const instrument of instruments) await putInstrument(within, instrument)
    written += fans.length + parts.length + instruments.length

    const day = backup.manifest.made.slice(0, 10)
    for (const kept of backup.jobs) {
      const { id } = kept.plan.job
      if (beside.has(id)) await putJob(within, besides(own(kept), day))
      else if (takes('job', id)) await putJob(within, await rooted(within, kept))
      else continue
      written++
    }
    for (const log of backup.logs) {
      if (!goes('log', log.id, log.jobId)) continue
      if (!(await keptJob(within, own(log.jobId)))) continue
      await writeLog(within, backup, log.id, own(log))
      written++
    }
    for (const picture of backup.pictures) {
      if (!goes('picture', picture.id, picture.jobId)) continue
      if (picture.jobId !== null && !(await keptJob(within, own(picture.jobId)))) continue
      await putPicture(within, own(picture), backup.bytesOf(picture))
      written++
    }
    return { written, kept: items.length - written, warnings }
  })

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

async function writeLog(db: Database, backup: Backup, id: string, log: Backup['logs'][number]): Promise<void> {
  await putLog(db, log)
  const { times, columns } = backup.rowsOf(id)
  for (let from = 0, seq = 0; from < times.length; from += BLOCK_ROWS, seq++) {
    const to = Math.min(times.length, from + BLOCK_ROWS)
    const data = encodeBlock(times, columns, from, to)
    await putBlock(db, log.id, { seq, rows: to - from, channels: columns.length, data })
  }
}
