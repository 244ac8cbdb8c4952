import type { Readable } from 'node:stream'
import { fanIdsOf } from '#core/document'
import { csvOf } from '#shared/exchange/csv'
import { writeCsv } from '#shared/exchange/shelf-file'
import { decodeBlock } from '#shared/log-blocks'
import { BACKUP_FORMAT, BACKUP_VERSION, inBackup, type Manifest } from '#shared/schemas/backup'
import type { Database } from '../db/database'
import { pictureParts } from '../db/repositories/attachments'
import { fanIds, keptFans } from '../db/repositories/fans'
import { jobIds, keptJob } from '../db/repositories/jobs'
import {
  keptBoots,
  keptInstruments,
  keptLogs,
  keptPictures,
  keptSettings,
  type CountedLog,
} from '../db/repositories/keeping'
import { readLogBlocks } from '../db/repositories/logs'
import { keptParts } from '../db/repositories/stock'
import { breathe } from '../utils/breathe'
import { packing } from './zip'

/** Everything of a workshop, or of one job, as one zip file that is made while it is sent. */

/** As it is read back to the last bit; a gap is empty. */
const cell = (x: number) => (Number.isNaN(x) ? '' : String(x))
/** Rows read at once, bytes; rows written at once; fans read at once. */
const READ_BYTES = 200_000
const AT_ONCE = 2000
const FANS_AT_ONCE = 50

/** A log's rows: seconds from its start, then each channel in SI units. */
export async function* rowsOf(db: Database, log: CountedLog): AsyncGenerator<string> {
  const heading = (c: CountedLog['channels'][number]) => `${c.name} (${c.quantity})`.replaceAll(/\s+/g, ' ')
  yield csvOf(['time_s', ...log.channels.map(heading)], [], '\n').trimEnd()
  for (let after = -1, more = true; more;) {
    const part = await readLogBlocks(db, log.id, after, READ_BYTES)
    for (const { rows, channels, data, seq } of part.blocks) {
      const columns = decodeBlock(data, channels)
      if (columns?.[0]?.length !== rows) throw new Error(`Part ${seq} of log ${log.id} cannot be read.`)
      for (let from = 0; from < rows; from += AT_ONCE) {
        let text = ''
        for (let i = from; i < Math.min(rows, from + AT_ONCE); i++) {
          text += `\n${cell(columns[0]![i]!)}`
          for (let c = 1; c <= log.channels.length; c++) text += `,${cell(columns[c]?.[i] ?? NaN)}`
        }
        yield text
        await breathe()
      }
      after = seq
    }
    more = part.more
  }
  yield '\n'
}

const json = (value: unknown) => JSON.stringify(value, null, 1)
/** A list as JSON, item by item. */
async function* listed(items: AsyncIterable<unknown> | Iterable<unknown>): AsyncGenerator<string> {
  let before = '['
  for await (const item of items) {
    yield `${before}\n${json(item)}`
    before = ','
  }
  yield before === '[' ? '[]' : '\n]'
}
/** Fans in the order of their ids, some at a time. */
async function* fansOf(db: Database, ids: readonly string[]) {
  for (let from = 0; from < ids.length; from += FANS_AT_ONCE) {
    yield* await keptFans(db, ids.slice(from, from + FANS_AT_ONCE))
    await breathe()
  }
}
async function* shelfOf(db: Database, ids: readonly string[]): AsyncGenerator<string> {
  let head = true
  for (let from = 0; head || from < ids.length; from += FANS_AT_ONCE) {
    const fans = (await keptFans(db, ids.slice(from, from + FANS_AT_ONCE))).filter((f) => !f.archived)
    const text = writeCsv(fans.map((f) => f.fan))
    yield head ? text : text.slice(text.indexOf('\n') + 1)
    head = false
    await breathe()
  }
}

/**
 * @param jobId one job with the fans it speaks of, its logs and pictures; null for everything
 * @param made ISO moment
 * @returns the zip file, while it is made
 */
export function writeBackup(db: Database, jobId: string | null, made: string): Readable {
  const zip = packing()
  const { out } = zip
  void fill(db, zip, jobId, made).catch((error: unknown) => {
    zip.fail(error)
    out.destroy(error as Error)
  })
  return out
}

async function fill(db: Database, zip: ReturnType<typeof packing>, jobId: string | null, made: string) {
  const manifest: Omit<Manifest, 'sums'> = {
    format: BACKUP_FORMAT,
    version: BACKUP_VERSION,
    made,
    scope: jobId === null ? 'workshop' : 'job',
    jobs: [],
    logs: [],
    unreadable: [],
  }
  const spoken = new Set<string>()
  for (const id of jobId === null ? await jobIds(db) : [jobId]) {
    const job = await keptJob(db, id)
    if (!job) continue
    const { plan, rows, revision: _, ...kept } = job
    if (plan) {
      manifest.jobs.push(id)
      for (const fan of fanIdsOf(plan)) spoken.add(fan)
      await zip.add(inBackup.job(id), json({ plan, ...kept }))
    } else {
      manifest.unreadable.push(id)
      await zip.add(inBackup.unread(id), json(rows))
    }
    await breathe()
  }
  const fans = (await fanIds(db)).filter((id) => jobId === null || spoken.has(id))
  await zip.add(inBackup.fans, listed(fansOf(db, fans)))
  await zip.add(inBackup.shelf, shelfOf(db, fans))
  if (jobId === null) {
    await zip.add(inBackup.parts, listed(await keptParts(db)))
    await zip.add(inBackup.instruments, listed(await keptInstruments(db)))
    await zip.add(inBackup.settings, listed(await keptSettings(db)))
  }
  const jobs = new Set(manifest.jobs)
  for (const log of await keptLogs(db)) {
    if (!jobs.has(log.jobId)) continue
    manifest.logs.push(log.id)
    const { rows: _, ...kept } = log
    await zip.add(inBackup.log(log.id), json({ ...kept, boots: await keptBoots(db, log.id) }))
    await zip.add(inBackup.rows(log.id), rowsOf(db, log))
  }
  const there = new Set(fans)
  const pictures = (await keptPictures(db)).filter((p) =>
    p.fanId === null ? jobs.has(p.jobId!) : there.has(p.fanId),
  )
  await zip.add(inBackup.pictures, listed(pictures.map(({ size: _, sha256: __, ...picture }) => picture)))
  for (const p of pictures) await zip.add(inBackup.picture(p.id, p.mediaType), pictureParts(db, p.id), true)
  await zip.add(inBackup.manifest, json({ ...manifest, sums: { ...zip.sums } }))
  zip.end()
}
