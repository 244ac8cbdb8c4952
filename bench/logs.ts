/** Logs: import of a million rows against the CSV parser alone, storing, drawing, the soak fit, an hour at 50 Hz. */
import Papa from 'papaparse'
import { soakOf } from '#core/heat'
import { breakAfter, channelView, usualStep, writeBench, type LogData } from '#core/measure'
import { normal, seeded } from '#core/numeric'
import { LogReader, partEnd, rowsBegin, sniffLog } from '#shared/exchange/log-file'
import { BLOCK_ROWS, encodeBlock, joinBlocks, readBlocks } from '#shared/log-blocks'
import type { Database } from '../server/db/database'
import { createInstrument, getInstrument } from '../server/db/repositories/instruments'
import { createJob } from '../server/db/repositories/jobs'
import { createLog, getLog, putBlock, readLogBlocks } from '../server/db/repositories/logs'
import { takeMessage } from '../server/devices/intake'
import { memoryDatabase } from '../tests/api/harness'
import { line, time } from './measure'

const ROWS = 1_000_000

/** A logger's file of a million rows, one in twenty torn. */
function bigFile(): string {
  const gauss = normal(seeded(4))
  const lines = ['time_s,sink_degC,room_degC,fan_rpm,fan_V,fan_A']
  for (let i = 0; i < ROWS; i++)
    lines.push(
      i % 20 === 7
        ? `${i / 10},torn`
        : `${(i / 10).toFixed(1)},${(45 - 20 * Math.exp(-i / 90000) + 0.1 * gauss()).toFixed(2)},22.1,${1500 + (i % 7)},12.02,0.151`,
    )
  return `${lines.join('\n')}\n`
}

function parserAlone(text: string): number {
  const from = performance.now()
  for (let at = 0; at < text.length;) {
    const end = partEnd(text, at)
    Papa.parse(text.slice(at, end), { delimiter: ',' })
    at = end
  }
  return performance.now() - from
}
function importOf(text: string): { ms: number; log: LogData; broken: number } {
  const from = performance.now()
  const table = sniffLog(text.slice(0, 200_000))
  if (typeof table === 'string') throw new Error(table)
  const reader = new LogReader(table)
  for (let at = rowsBegin(text, table.skip); at < text.length;) {
    const end = partEnd(text, at)
    reader.push(text.slice(at, end))
    at = end
  }
  const { log, tally } = reader.finish()
  return { ms: performance.now() - from, log, broken: tally.broken }
}

async function storing(db: Database, log: LogData): Promise<{ write: number; read: number }> {
  await createLog(db, 'bench', {
    id: 'big',
    name: 'big',
    origin: 'imported',
    startedAt: new Date().toISOString(),
    instrumentId: null,
    channels: log.channels.map(({ name, quantity }) => ({ name, quantity })),
    remarks: '',
  })
  const from = performance.now()
  for (let seq = 0; seq * BLOCK_ROWS < log.times.length; seq++) {
    const [start, end] = [seq * BLOCK_ROWS, Math.min(log.times.length, (seq + 1) * BLOCK_ROWS)]
    await putBlock(db, 'big', {
      seq,
      rows: end - start,
      channels: log.channels.length,
      data: encodeBlock(
        log.times,
        log.channels.map((c) => c.values),
        start,
        end,
      ),
    })
  }
  const write = performance.now() - from
  const began = performance.now()
  let held: { log: LogData; last: number } | null = null
  for (let more = true, after = -1; more;) {
    const part = await readLogBlocks(db, 'big', after, 2_000_000)
    held = readBlocks(joinBlocks(part.blocks).buffer as ArrayBuffer, log.channels, held)
    after = held.last
    more = part.more
  }
  if (held?.log.times.length !== log.times.length) throw new Error('rows were lost')
  return { write, read: performance.now() - began }
}

/** An hour of 50 rows a second with 8 channels, a message a second, through reading, checking and storing. */
async function hour(db: Database): Promise<{ ms: number; grown: number; rows: number }> {
  const { instrument } = await createInstrument(db, 'fast', 'Fast board', 'board')
  const start = Date.now()
  await createLog(db, 'bench', {
    id: 'hour',
    name: 'hour',
    origin: 'recorded',
    startedAt: new Date(start).toISOString(),
    instrumentId: instrument.id,
    channels: [],
    remarks: '',
  })
  const board = await getInstrument(db, instrument.id)
  const gauss = normal(seeded(9))
  const names = ['a_degC', 'b_degC', 'c_degC', 'fan_rpm', 'box_Pa', 'duct_m3h', 'fan_V', 'fan_A']
  let [seq, settled] = [0, 0]
  const from = performance.now()
  for (let s = 0; s < 3600; s++) {
    const rows = Array.from({ length: 50 }, () => ({
      seq: seq++,
      ms: 20 * seq,
      values: Object.fromEntries(names.map((n) => [n, 20 + gauss()])),
    }))
    await takeMessage(db, board, writeBench('h', rows), start + 1000 * s)
    if (s === 600) {
      globalThis.gc?.()
      settled = process.memoryUsage().heapUsed
    }
  }
  const ms = performance.now() - from
  globalThis.gc?.()
  return { ms, grown: (process.memoryUsage().heapUsed - settled) / 1e6, rows: (await getLog(db, 'hour')).rows }
}

export async function benchLogs(): Promise<void> {
  const text = bigFile()
  const alone = [parserAlone(text), parserAlone(text), parserAlone(text)].sort((a, b) => a - b)[1]!
  const imports = [importOf(text), importOf(text), importOf(text)].sort((a, b) => a.ms - b.ms)
  const { ms, log, broken } = imports[1]!
  line(
    `import of ${ROWS / 1e6} million rows, ${broken} torn, against the parser`,
    `${(ms / alone).toFixed(2)} x`,
    'at most 2.5 x',
    ms / alone <= 2.5,
  )
  const db = await memoryDatabase()
  await createJob(db, 'bench', 'Bench')
  const { write, read } = await storing(db, log)
  line(
    'the same read and stored, against the parser',
    `${((ms + write) / alone).toFixed(2)} x`,
    'at most 2.2 x',
    ms + write <= 2.2 * alone,
  )
  console.log(
    `      stored in ${(write / 1000).toFixed(2)} s, read back in ${(read / 1000).toFixed(2)} s; ` +
      `the parser alone ${(alone / 1000).toFixed(1)} s`,
  )
  const n = log.times.length
  const first = time(
    () =>
      log.channels.map((c) =>
        channelView(log.times, c.values, 0, n, 1400, breakAfter(usualStep(log.times), log.times[n - 1]!)),
      ),
    7,
  )
  line(
    `first drawing: ${n} rows, ${log.channels.length} channels brought to points`,
    `${first.toFixed(0)} ms`,
    'under 300 ms',
    first < 300,
  )
  const t = log.times.subarray(0, 100_000)
  const soak = time(
    () => soakOf(t, log.channels[0]!.values.subarray(0, 100_000), log.channels[1]!.values.subarray(0, 100_000)),
    7,
  )
  line('soak prediction on 100 000 readings', `${soak.toFixed(1)} ms`, 'under 50 ms', soak < 50)
  const { ms: live, grown, rows } = await hour(db)
  line(
    `an hour of 50 rows a second, 8 channels (${rows} rows)`,
    `${(live / 1000).toFixed(1)} s`,
    'faster than 30 x time',
    live < 120_000,
  )
  line('growth of the heap over its last 50 minutes', `${grown.toFixed(1)} MB`, 'under 10 MB', grown < 10)
  await db.close()
}
