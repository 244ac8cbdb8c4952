import { createHash } from 'node:crypto'
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { fanIdsOf } from '#core/document'
import { csvOf } from '#shared/exchange/csv'
import { writeCsv } from '#shared/exchange/shelf-file'
import { decodeBlock } from '#shared/log-blocks'
import { BACKUP_FORMAT, BACKUP_VERSION, inBackup, type Manifest } from '#shared/schemas/backup'
import type { Database } from '../db/database'
import { keptFans } from '../db/repositories/fans'
import { jobIds, keptJob } from '../db/repositories/jobs'
import {
  keptBoots,
  keptInstruments,
  keptLogs,
  keptPictures,
  keptSettings,
  pictureBytes,
  type CountedLog,
} from '../db/repositories/keeping'
import { readLogBlocks } from '../db/repositories/logs'
import { keptParts } from '../db/repositories/stock'

/** Everything of a workshop, or of one job, as one zip file that is made while it is sent. */

/** A zip that is made file by file; what is ready of it is taken away in between. */
function packing() {
  const ready: Uint8Array[] = []
  const sums: Record<string, string> = {}
  const zip = new Zip((error, chunk) => {
    if (error) throw error
    ready.push(chunk)
  })
  /** @param packed pictures are packed already */
  function begin(name: string, packed = false) {
    const file = packed ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 })
    const sum = createHash('sha256')
    zip.add(file)
    return {
      push(bytes: Uint8Array) {
        sum.update(bytes)
        file.push(bytes)
      },
      end() {
        file.push(new Uint8Array(0), true)
        sums[name] = sum.digest('hex')
      },
    }
  }
  function add(name: string, content: string | Uint8Array, packed = false) {
    const file = begin(name, packed)
    file.push(typeof content === 'string' ? strToU8(content) : content)
    file.end()
  }
  return {
    begin,
    add,
    json: (name: string, value: unknown) => add(name, JSON.stringify(value, null, 1)),
    sums,
    end: () => zip.end(),
    taken: () => ready.splice(0),
  }
}

/** As it is read back to the last bit; a gap is empty. */
const cell = (x: number) => (Number.isNaN(x) ? '' : String(x))
/** Rows read at once, bytes; rows written at once. */
const READ_BYTES = 1_000_000
const AT_ONCE = 5000

/** A log's rows: seconds from its start, then each channel in SI units. */
async function* rowsOf(db: Database, log: CountedLog): AsyncGenerator<string> {
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
      }
      after = seq
    }
    more = part.more
  }
  yield '\n'
}

/**
 * @param jobId one job with the fans it speaks of, its logs and pictures; null for everything
 * @param made ISO moment
 * @yields the parts of the zip file
 */
export async function* writeBackup(
  db: Database,
  jobId: string | null,
  made: string,
): AsyncGenerator<Uint8Array> {
  const zip = packing()
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
      zip.json(inBackup.job(id), { plan, ...kept })
    } else {
      manifest.unreadable.push(id)
      zip.json(inBackup.unread(id), rows)
    }
    yield* zip.taken()
  }
  const fans = (await keptFans(db)).filter((f) => jobId === null || spoken.has(f.fan.id))
  zip.json(inBackup.fans, fans)
  const written = fans.filter((f) => !f.archived).map((f) => f.fan)
  zip.add(inBackup.shelf, writeCsv(written))
  yield* zip.taken()
  if (jobId === null) {
    zip.json(inBackup.parts, await keptParts(db))
    zip.json(inBackup.instruments, await keptInstruments(db))
    zip.json(inBackup.settings, await keptSettings(db))
  }
  const jobs = new Set(manifest.jobs)
  for (const log of await keptLogs(db)) {
    if (!jobs.has(log.jobId)) continue
    manifest.logs.push(log.id)
    const { rows: _, ...kept } = log
    zip.json(inBackup.log(log.id), { ...kept, boots: await keptBoots(db, log.id) })
    const file = zip.begin(inBackup.rows(log.id))
    for await (const text of rowsOf(db, log)) {
      file.push(strToU8(text))
      yield* zip.taken()
    }
    file.end()
  }
  const there = new Set(fans.map((f) => f.fan.id))
  const pictures = (await keptPictures(db)).filter((p) =>
    p.fanId === null ? jobs.has(p.jobId!) : there.has(p.fanId),
  )
  zip.json(
    inBackup.pictures,
    pictures.map(({ size: _, ...picture }) => picture),
  )
  for (const p of pictures) {
    zip.add(inBackup.picture(p.id, p.mediaType), await pictureBytes(db, p.id), true)
    yield* zip.taken()
  }
  zip.json(inBackup.manifest, { ...manifest, sums: { ...zip.sums } })
  zip.end()
  yield* zip.taken()
}
