import { createHash } from 'node:crypto'
import type { z } from 'zod'
import { completePlan, planSchema, type PlanDocument } from '#core/document'
import { MAX_ATTACHED } from '#shared/schemas/fan'
import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  inBackup,
  keptFanSchema,
  keptInstrumentSchema,
  keptJobSchema,
  keptLogSchema,
  keptPartSchema,
  keptPictureSchema,
  keptSettingSchema,
  manifestSchema,
  type KeptInstrument,
  type KeptLog,
  type KeptPicture,
  type Manifest,
} from '#shared/schemas/backup'
import { Refused } from '../db/errors'
import { breathe } from '../utils/breathe'
import { checkedPicture } from '../utils/picture'
import { itemsOf, jsonOf } from './json-items'
import { rowsIn, type Rows } from './log-rows'
import { NO_BACKUP, openZip, type Packed } from './zip'

/**
 * A backup as it is read: from the disk, thing by thing, each checked against its sum and by the schemas that check what
 * comes in elsewhere. No more of it is held than one thing, or a part of one.
 */

export interface BackedJob {
  plan: PlanDocument
  archived: boolean
  createdAt: string
  updatedAt: string
}
export type BackedFan = z.infer<typeof keptFanSchema>
export type BackedPart = z.infer<typeof keptPartSchema>
export type BackedLog = KeptLog & { sum: string; rows: () => AsyncGenerator<Rows> }
export type BackedPicture = KeptPicture & { sum: string; bytes: () => AsyncGenerator<Uint8Array> }
/** What comes out of a backup at once. */
export type Piece =
  | { kind: 'settings'; setting: z.infer<typeof keptSettingSchema> }
  | { kind: 'fan'; fans: BackedFan[] }
  | { kind: 'part'; parts: BackedPart[] }
  | { kind: 'instrument'; instrument: KeptInstrument }
  | { kind: 'job'; job: BackedJob }
  | { kind: 'log'; log: BackedLog }
  | { kind: 'picture'; picture: BackedPicture }

export interface Backup {
  manifest: Manifest
  /** things in it, by what it says */
  logs: readonly KeptLog[]
  pictures: readonly KeptPicture[]
  /** what of it cannot be taken, in words; of jobs only once they were read */
  warnings: string[]
  pieces: () => AsyncGenerator<Piece>
  close: () => void
}

/** Largest file that is taken, bytes. */
export const MAX_BACKUP = 2_000_000_000
const MB = 1_000_000
/** Largest that a thing may be: a plan as it may be sent, spread over its lines. */
const MAX_ITEM = 4 * MB
const MAX_HEADS = 60 * MB
/** How large a file of that name may be, bytes. */
function mostOf(name: string): number {
  if (name === inBackup.manifest) return 16 * MB
  if (name === inBackup.pictures) return MAX_HEADS
  if (name.startsWith('pictures/')) return MAX_ATTACHED
  if (/^(jobs|logs)\/.*\.json$/.test(name)) return MAX_ITEM
  if (name.startsWith('unreadable/')) return 100 * MB
  return MAX_BACKUP
}
/** Fans that come at once. */
const FANS_AT_ONCE = 25

const saying = (error: z.ZodError) => `${error.issues[0]!.path.join('.')}: ${error.issues[0]!.message}`

async function whole(parts: AsyncIterable<Buffer>): Promise<Buffer> {
  const all: Buffer[] = []
  for await (const part of parts) all.push(part)
  return Buffer.concat(all)
}

async function manifestOf(zip: Packed): Promise<Manifest> {
  if (!zip.has(inBackup.manifest)) throw new Refused(NO_BACKUP)
  const bytes = await whole(zip.read(inBackup.manifest))
  let raw: { format?: unknown; version?: unknown } | undefined
  try {
    raw = jsonOf(bytes, inBackup.manifest) as typeof raw
  } catch {
    throw new Refused(NO_BACKUP)
  }
  if (raw?.format !== BACKUP_FORMAT) throw new Refused(NO_BACKUP)
  if (typeof raw.version === 'number' && raw.version > BACKUP_VERSION)
    throw new Refused(
      `This backup was made by a newer Redpoll (version ${raw.version} of its form; this one reads ` +
        `${BACKUP_VERSION}). Nothing was changed.`,
    )
  const manifest = manifestSchema.safeParse(raw)
  if (!manifest.success) throw new Refused(NO_BACKUP)
  for (const name of Object.keys(manifest.data.sums))
    if (!zip.has(name))
      throw new Refused(`This backup is damaged: ${name} is missing in it. Nothing was changed.`)
  return manifest.data
}

/**
 * Opens a backup: what it is, and the heads of its logs and pictures.
 * @param from path of its file, or its bytes
 * @throws Refused where it is no backup, damaged, too large or of a newer Redpoll
 */
export async function openBackup(from: string | Uint8Array): Promise<Backup> {
  const zip = await openZip(from, mostOf)
  try {
    return await backupIn(zip)
  } catch (error) {
    zip.close()
    throw error
  }
}

async function backupIn(zip: Packed): Promise<Backup> {
  const manifest = await manifestOf(zip)
  const sums = new Map(Object.entries(manifest.sums))
  /** A file's bytes, held against its sum when they end. */
  async function* read(name: string): AsyncGenerator<Buffer> {
    const sum = createHash('sha256')
    for await (const part of zip.read(name)) {
      sum.update(part)
      yield part
    }
    const wanted = sums.get(name)
    if (wanted !== undefined && sum.digest('hex') !== wanted)
      throw new Refused(`This backup is damaged: ${name} is not as it was written. Nothing was changed.`)
  }
  function checkedItem<S extends z.ZodType>(value: unknown, schema: S, where: string): z.infer<S> {
    const result = schema.safeParse(value)
    if (!result.success) throw new Refused(`This backup cannot be read: ${where}${saying(result.error)}`)
    return result.data
  }
  async function* listed<S extends z.ZodType>(name: string, schema: S): AsyncGenerator<z.infer<S>> {
    if (!zip.has(name)) return
    let n = 0
    for await (const item of itemsOf(read(name), name, MAX_ITEM))
      yield checkedItem(item, schema, `${name}, ${n++}.`)
  }
  async function single<S extends z.ZodType>(name: string, schema: S): Promise<z.infer<S>> {
    return checkedItem(jsonOf(await whole(read(name)), name), schema, `${name}, `)
  }

  const logs: KeptLog[] = []
  for (const id of manifest.logs) {
    const name = inBackup.log(id)
    const log = await single(name, keptLogSchema)
    if (log.id !== id || !zip.has(inBackup.rows(id))) throw new Refused(`This backup cannot be read: ${name}`)
    logs.push(log)
  }
  const pictures: KeptPicture[] = []
  for await (const picture of listed(inBackup.pictures, keptPictureSchema))
    if (zip.sizeOf(inBackup.picture(picture.id, picture.mediaType)) > 0) pictures.push(picture)
  const ids = [...manifest.jobs.map((id) => `j ${id}`), ...logs.map((l) => `l ${l.id}`)]
  if (new Set([...ids, ...pictures.map((p) => `p ${p.id}`)]).size !== ids.length + pictures.length)
    throw new Refused('This backup cannot be read: two things in it have the same id.')
  const warnings = manifest.unreadable.map(
    (id) =>
      `Job ${id} could not be read when this backup was made: its rows lie in the file, and are not taken.`,
  )

  async function jobOf(id: string): Promise<BackedJob | null> {
    const kept = await single(inBackup.job(id), keptJobSchema)
    const plan = planSchema.safeParse(completePlan(kept.plan))
    const wrong = !plan.success
      ? saying(plan.error)
      : plan.data.job.id !== id
        ? 'it says that it is another one'
        : plan.data.job.variantOf === id
          ? 'it says that it is its own variant'
          : ''
    if (!wrong) return { ...kept, plan: plan.data! }
    const told = `Job ${id} is not taken: ${wrong}`
    if (!warnings.includes(told)) warnings.push(told)
    return null
  }
  async function* inBatches<T>(all: AsyncIterable<T>): AsyncGenerator<T[]> {
    let batch: T[] = []
    for await (const one of all) {
      if (batch.push(one) < FANS_AT_ONCE) continue
      yield batch
      batch = []
    }
    if (batch.length) yield batch
  }
  async function* pieces(): AsyncGenerator<Piece> {
    for await (const setting of listed(inBackup.settings, keptSettingSchema))
      yield { kind: 'settings', setting }
    for await (const fans of inBatches(listed(inBackup.fans, keptFanSchema))) yield { kind: 'fan', fans }
    for await (const parts of inBatches(listed(inBackup.parts, keptPartSchema))) yield { kind: 'part', parts }
    for await (const instrument of listed(inBackup.instruments, keptInstrumentSchema))
      yield { kind: 'instrument', instrument }
    for (const id of manifest.jobs) {
      const job = await jobOf(id)
      if (job) yield { kind: 'job', job }
      await breathe()
    }
    for (const log of logs) {
      const name = inBackup.rows(log.id)
      const rows = () => rowsIn(read(name), name, log.channels.length, log.origin === 'recorded')
      yield { kind: 'log', log: { ...log, sum: sums.get(name) ?? '', rows } }
    }
    for (const picture of pictures) {
      const name = inBackup.picture(picture.id, picture.mediaType)
      const bytes = () => checkedPicture(read(name), picture.mediaType)
      yield { kind: 'picture', picture: { ...picture, sum: sums.get(name) ?? '', bytes } }
    }
  }
  return { manifest, logs, pictures, warnings, pieces, close: () => zip.close() }
}
