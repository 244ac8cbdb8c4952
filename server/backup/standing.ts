import { createHash } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import { backupKinds, type BackupItem, type BackupPreview } from '#shared/schemas/backup'
import type { Database } from '../db/database'
import { keptFans } from '../db/repositories/fans'
import { keptJob } from '../db/repositories/jobs'
import {
  keptInstruments,
  keptLogs,
  keptPictures,
  keptSettings,
  type CountedLog,
} from '../db/repositories/keeping'
import { keptParts } from '../db/repositories/stock'
import { breathe } from '../utils/breathe'
import type { BackedLog, Backup, Piece } from './read'
import { rowsOf } from './write'

/** How the things of a backup stand to what is here: by their content, not by their size or date. */

type Standing = Pick<BackupItem, 'state' | 'detail' | 'changed'>
const NEW: Standing = { state: 'new', detail: '', changed: null }
const SAME: Standing = { state: 'same', detail: '', changed: null }
const differs = (detail: string): Standing => ({ state: 'conflict', detail, changed: null })

interface Kept {
  archived: boolean
}
/** Something that is here and in the backup; what was put aside here comes back without asking. */
function against(here: Kept | undefined, there: Kept, same: boolean, detail: string): Standing {
  if (!here) return NEW
  if (here.archived && !there.archived && same) return { ...NEW, detail: 'was put aside here' }
  return same ? SAME : differs(detail)
}

/** The logs and pictures that are here, looked up once for many things of a backup. */
export interface Here {
  logs: ReadonlyMap<string, CountedLog>
  pictures: ReadonlyMap<string, Awaited<ReturnType<typeof keptPictures>>[number]>
}
export const lookHere = async (db: Database): Promise<Here> => ({
  logs: new Map((await keptLogs(db)).map((l) => [l.id, l])),
  pictures: new Map((await keptPictures(db)).map((p) => [p.id, p])),
})

async function logStanding(
  db: Database,
  here: CountedLog | undefined,
  log: BackedLog,
  glance: boolean,
): Promise<Standing> {
  if (!here && glance) return NEW
  let rows = 0
  for await (const part of log.rows()) {
    rows += part.times.length
    await breathe()
  }
  if (!here) return NEW
  const alike = here.jobId === log.jobId && isDeepStrictEqual(here.channels, log.channels)
  if (!alike) return differs('other channels, or of another job')
  if (here.rows !== rows) return differs(`${here.rows} rows here, ${rows} in the backup`)
  const sum = createHash('sha256')
  for await (const text of rowsOf(db, here)) sum.update(text)
  const same = log.sum === '' || sum.digest('hex') === log.sum
  return against(here, log, same, 'other values in as many rows')
}

/**
 * The things of a piece with how they stand; a log or picture is read to its end for it.
 * @param glance logs and pictures that are not here at all need not be read
 */
export async function standingOf(
  db: Database,
  piece: Piece,
  here: Here,
  glance = false,
): Promise<BackupItem[]> {
  const { kind } = piece
  const one = (id: string, name: string, standing: Standing): BackupItem[] => [{ kind, id, name, ...standing }]
  switch (kind) {
    case 'settings': {
      const { key, value } = piece.setting
      const stands = (await keptSettings(db)).find((s) => s.key === key)?.value
      return one(
        key,
        key,
        stands === undefined ? NEW : isDeepStrictEqual(stands, value) ? SAME : differs('other choices'),
      )
    }
    case 'fan': {
      const ids = piece.fans.map((f) => f.fan.id)
      const fans = new Map((await keptFans(db, ids)).map((f) => [f.fan.id, f]))
      return piece.fans.flatMap((kept) => {
        const { id, maker, model } = kept.fan
        const same = isDeepStrictEqual(fans.get(id)?.fan, kept.fan)
        return one(id, `${maker} ${model}`.trim(), against(fans.get(id), kept, same, 'other figures'))
      })
    }
    case 'part': {
      const parts = new Map((await keptParts(db)).map((p) => [p.part.id, p]))
      return piece.parts.flatMap((kept) => {
        const { id, name } = kept.part
        const same = isDeepStrictEqual(parts.get(id)?.part, kept.part)
        return one(id, name, against(parts.get(id), kept, same, 'other figures'))
      })
    }
    case 'instrument': {
      const { id, name, kind: of, tokenHash } = piece.instrument
      const stands = (await keptInstruments(db)).find((i) => i.id === id)
      const same = stands?.name === name && stands.kind === of && stands.tokenHash === tokenHash
      return one(id, name, against(stands, piece.instrument, same, 'another name or token'))
    }
    case 'job': {
      const { plan, updatedAt } = piece.job
      const { id, name } = plan.job
      const stands = await keptJob(db, id)
      const same = stands !== null && isDeepStrictEqual(stands.plan, plan)
      const standing = against(stands ?? undefined, piece.job, same, '')
      const changed =
        stands && standing.state === 'conflict' ? { here: stands.updatedAt, there: updatedAt } : null
      return one(id, name, { ...standing, changed })
    }
    case 'log': {
      const { id, name } = piece.log
      return one(id, name, await logStanding(db, here.logs.get(id), piece.log, glance))
    }
    case 'picture': {
      const { picture } = piece
      const stands = here.pictures.get(picture.id)
      if (!stands && glance) return one(picture.id, picture.name, NEW)
      const sum = createHash('sha256')
      for await (const part of picture.bytes()) sum.update(part)
      const alike = stands?.fanId === picture.fanId && stands.jobId === picture.jobId
      const same = alike && stands.sha256 === sum.digest('hex')
      return one(picture.id, picture.name, against(stands, picture, same, 'another picture'))
    }
  }
}

/** Things told one by one. */
const TOLD = 300

/**
 * What a restore would do. Everything in the backup is read and checked for it.
 * @param told how many things were looked at
 * @throws Refused where something in it cannot be what it says
 */
export async function previewOf(
  db: Database,
  backup: Backup,
  id: string,
  told: (done: number) => void = () => {},
): Promise<BackupPreview> {
  const none = () => ({ new: 0, same: 0, conflict: 0 })
  const counts = Object.fromEntries(backupKinds.map((k) => [k, none()])) as BackupPreview['counts']
  const [conflicts, fresh]: [BackupItem[], BackupItem[]] = [[], []]
  let done = 0
  const here = await lookHere(db)
  for await (const piece of backup.pieces()) {
    for (const item of await standingOf(db, piece, here)) {
      counts[item.kind][item.state]++
      if (item.state === 'conflict') conflicts.push(item)
      else if (item.state === 'new' && fresh.length < TOLD) fresh.push(item)
      done++
    }
    told(done)
    await breathe()
  }
  const news = Object.values(counts).reduce((n, c) => n + c.new, 0)
  return {
    id,
    made: backup.manifest.made,
    scope: backup.manifest.scope,
    counts,
    // every conflict can be decided; of what is new a list is enough
    items: backupKinds.flatMap((kind) => conflicts.filter((i) => i.kind === kind)).concat(fresh),
    more: news - fresh.length,
    warnings: [...backup.warnings],
  }
}
