import { createHash } from 'node:crypto'
import { strFromU8, unzipSync } from 'fflate'
import type { z } from 'zod'
import { completePlan, planSchema, type PlanDocument } from '#core/document'
import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  inBackup,
  keptFansSchema,
  keptInstrumentsSchema,
  keptJobSchema,
  keptLogSchema,
  keptPartsSchema,
  keptPicturesSchema,
  keptSettingsSchema,
  manifestSchema,
  type KeptInstrument,
  type KeptLog,
  type KeptPicture,
  type Manifest,
} from '#shared/schemas/backup'
import { Refused } from '../db/errors'

/** A backup as it is read: checked against its sums and schemas before anything is written. */

export interface BackedJob {
  plan: PlanDocument
  archived: boolean
  createdAt: string
  updatedAt: string
}
export interface Backup {
  manifest: Manifest
  jobs: BackedJob[]
  fans: z.infer<typeof keptFansSchema>
  parts: z.infer<typeof keptPartsSchema>
  instruments: KeptInstrument[]
  settings: z.infer<typeof keptSettingsSchema>
  logs: (KeptLog & { rows: number })[]
  pictures: (KeptPicture & { size: number })[]
  /** what of it cannot be taken, in words */
  warnings: string[]
  rowsOf: (logId: string) => { times: Float64Array; columns: Float64Array[] }
  bytesOf: (picture: KeptPicture) => Uint8Array
}

/** Largest file that is taken, and largest that it may become, bytes. */
export const MAX_BACKUP = 500_000_000
const MAX_UNPACKED = 1_500_000_000
const MAX_FILES = 200_000

const NO_BACKUP = 'This file is no backup of Redpoll, or it was cut short: nothing was changed.'

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let [size, files] = [0, 0]
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        size += originalSize
        if (size > MAX_UNPACKED || ++files > MAX_FILES)
          throw new Refused('This file is larger than any workshop.')
        return true
      },
    })
  } catch (error) {
    throw error instanceof Refused ? error : new Refused(NO_BACKUP)
  }
}

const sumOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
function jsonOf(bytes: Uint8Array | undefined): unknown {
  if (!bytes) return undefined
  try {
    return JSON.parse(strFromU8(bytes))
  } catch {
    return undefined
  }
}
const saying = (error: z.ZodError) => `${error.issues[0]!.path.join('.')}: ${error.issues[0]!.message}`

function manifestOf(files: Record<string, Uint8Array>): Manifest {
  const raw = jsonOf(files[inBackup.manifest]) as { format?: unknown; version?: unknown } | undefined
  if (raw?.format !== BACKUP_FORMAT) throw new Refused(NO_BACKUP)
  if (typeof raw.version === 'number' && raw.version > BACKUP_VERSION)
    throw new Refused(
      `This backup was made by a newer Redpoll (version ${raw.version} of its form; this one reads ` +
        `${BACKUP_VERSION}). Nothing was changed.`,
    )
  const manifest = manifestSchema.safeParse(raw)
  if (!manifest.success) throw new Refused(NO_BACKUP)
  for (const [name, sum] of Object.entries(manifest.data.sums)) {
    if (!files[name])
      throw new Refused(`This backup is damaged: ${name} is missing in it. Nothing was changed.`)
    if (sumOf(files[name]) !== sum)
      throw new Refused(`This backup is damaged: ${name} is not as it was written. Nothing was changed.`)
  }
  return manifest.data
}

const NEWLINE = 10
/** Lines behind the head. */
function linesIn(bytes: Uint8Array): number {
  let n = 0
  for (let at = bytes.indexOf(NEWLINE); at >= 0 && at + 1 < bytes.length; at = bytes.indexOf(NEWLINE, at + 1))
    n++
  return n
}
/** Rows of a log as they were written: numbers parted by commas, nothing between two where there is a gap. */
function rowsIn(bytes: Uint8Array, rows: number, channels: number) {
  const times = new Float64Array(rows)
  const columns = Array.from({ length: channels }, () => new Float64Array(rows))
  const number = (text: string | undefined) => (text ? Number(text) : NaN)
  let from = bytes.indexOf(NEWLINE) + 1
  for (let row = 0; row < rows; row++) {
    const end = bytes.indexOf(NEWLINE, from)
    const cells = strFromU8(bytes.subarray(from, end < 0 ? bytes.length : end)).split(',')
    times[row] = number(cells[0])
    columns.forEach((column, c) => (column[row] = number(cells[c + 1])))
    from = end + 1
  }
  return { times, columns }
}

/** @throws Refused where it is no backup, damaged, too large or of a newer Redpoll */
export function readBackup(bytes: Uint8Array): Backup {
  const files = unpack(bytes)
  const manifest = manifestOf(files)
  const warnings = manifest.unreadable.map(
    (id) =>
      `Job ${id} could not be read when this backup was made: its rows lie in the file, and are not taken.`,
  )
  function part<S extends z.ZodType>(name: string, schema: S, none: z.input<S>): z.infer<S> {
    const read = schema.safeParse(files[name] ? jsonOf(files[name]) : none)
    if (!read.success) throw new Refused(`This backup cannot be read: ${name}, ${saying(read.error)}`)
    return read.data
  }
  const jobs: BackedJob[] = []
  for (const id of manifest.jobs) {
    const name = inBackup.job(id)
    const kept = part(name, keptJobSchema, undefined as never)
    const plan = planSchema.safeParse(completePlan(kept.plan))
    if (plan.success) jobs.push({ ...kept, plan: plan.data })
    else warnings.push(`Job ${id} is not taken: ${saying(plan.error)}`)
  }
  const logs = manifest.logs.map((id) => ({
    ...part(inBackup.log(id), keptLogSchema, undefined as never),
    rows: linesIn(files[inBackup.rows(id)] ?? new Uint8Array(0)),
  }))
  const bytesOf = (p: KeptPicture) => files[inBackup.picture(p.id, p.mediaType)] ?? new Uint8Array(0)
  const pictures = part(inBackup.pictures, keptPicturesSchema, []).map((p) => ({
    ...p,
    size: bytesOf(p).length,
  }))
  return {
    manifest,
    jobs,
    fans: part(inBackup.fans, keptFansSchema, []),
    parts: part(inBackup.parts, keptPartsSchema, []),
    instruments: part(inBackup.instruments, keptInstrumentsSchema, []),
    settings: part(inBackup.settings, keptSettingsSchema, []),
    logs,
    pictures: pictures.filter((p) => p.size > 0),
    warnings,
    rowsOf: (id) => {
      const { rows, channels } = logs.find((l) => l.id === id)!
      return rowsIn(files[inBackup.rows(id)]!, rows, channels.length)
    },
    bytesOf,
  }
}
