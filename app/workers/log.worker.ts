import { expose, transfer } from 'comlink'
import { soakOf, type SoakReport } from '#core/heat'
import {
  breakAfter,
  channelView,
  gapsOf,
  jumpsOf,
  logWindow,
  summarise,
  tachLosses,
  usualStep,
  type Channel,
  type ChannelView,
  type Gap,
  type Jump,
  type LogData,
  type TachLoss,
  type WindowSummary,
} from '#core/measure'
import { encodeBlock, BLOCK_ROWS, readBlocks } from '#shared/log-blocks'
import {
  logCsv,
  logJson,
  LogReader,
  partEnd,
  rowsBegin,
  sniffLog,
  type LogTable,
  type LogTally,
} from '#shared/exchange/log-file'

let held: { log: LogData; last: number } | null = null
let file: { text: string; read: LogData | null } = { text: '', read: null }
let run = 0

const breathe = () => new Promise((resolve) => setTimeout(resolve))

/** What is drawn of a log, and what is said of the window. */
export interface LogView {
  channels: ChannelView[]
  rows: number
  first: number
  last: number
}
export interface LogFacts {
  step: number | null
  gaps: Gap[]
  tachLosses: TachLoss[]
  /** what changed faster than it can */ jumps: (Jump & { channel: number })[]
}
export interface ImportResult {
  problem: string
  tally: LogTally | null
  startedAt: string | null
  channels: Channel[]
  rows: number
}

const HEAD = 200_000
/** Time between telling how far it is, ms: a cancel comes in then. */
const TELL_MS = 80

const worker = {
  clear(): void {
    held = null
  },
  /** More blocks behind what is held. @returns the number of the last block */
  append(buffer: ArrayBuffer, channels: Channel[]): { last: number; rows: number; end: number } {
    held = readBlocks(buffer, channels, held)
    return { last: held.last, rows: held.log.times.length, end: held.log.times.at(-1) ?? 0 }
  },
  view(from: number, to: number, points: number): LogView {
    if (!held) return { channels: [], rows: 0, first: 0, last: 0 }
    const { log } = held
    const { start, end } = logWindow(log, from, to)
    const gap = breakAfter(usualStep(log.times), to - from)
    // one row beyond each side, so that lines reach the edge
    const [a, b] = [Math.max(0, start - 1), Math.min(log.times.length, end + 1)]
    return {
      channels: log.channels.map((c) => channelView(log.times, c.values, a, b, points, gap)),
      rows: end - start,
      first: log.times[0] ?? 0,
      last: log.times.at(-1) ?? 0,
    }
  },
  facts(): LogFacts {
    if (!held) return { step: null, gaps: [], tachLosses: [], jumps: [] }
    const { times, channels } = held.log
    const of = (quantity: string) => channels.find((c) => c.quantity === quantity)?.values ?? null
    const rpm = of('rotation')
    return {
      step: usualStep(times),
      gaps: gapsOf(times, 20),
      jumps: channels.flatMap(({ quantity, values }, channel) =>
        jumpsOf(quantity, times, values).map((jump) => ({ ...jump, channel })),
      ),
      tachLosses: rpm ? tachLosses(times, rpm, of('voltage')) : [],
    }
  },
  summary(from: number, to: number): (WindowSummary | null)[] {
    if (!held) return []
    const { start, end } = logWindow(held.log, from, to)
    return held.log.channels.map((c) => summarise(c.values, start, end))
  },
  soak(channel: number, ambient: number | null, from: number, to: number): SoakReport | null {
    if (!held?.log.channels[channel]) return null
    const { start, end } = logWindow(held.log, from, to)
    return soakOf(
      held.log.times.subarray(start, end),
      held.log.channels[channel].values.subarray(start, end),
      ambient === null ? null : held.log.channels[ambient]!.values.subarray(start, end),
    )
  },
  export(kind: 'csv' | 'json', name: string, startedAt: string): Blob {
    if (!held) return new Blob([])
    return kind === 'csv'
      ? new Blob([...logCsv(held.log, startedAt)], { type: 'text/csv' })
      : new Blob([...logJson(held.log, name, startedAt)], { type: 'application/json' })
  },

  /** Looks at the beginning of a file. */
  async sniff(blob: Blob): Promise<LogTable | string> {
    run++
    file = { text: await blob.text(), read: null }
    return sniffLog(file.text.slice(0, HEAD))
  },
  /** Reads it all in parts; a cancel comes in between. */
  async read(table: LogTable, progress: (share: number) => void): Promise<ImportResult | null> {
    const mine = ++run
    const reader = new LogReader(table)
    const { text } = file
    let told = performance.now()
    for (let at = rowsBegin(text, table.skip); at < text.length;) {
      const end = partEnd(text, at)
      reader.push(text.slice(at, end))
      at = end
      if (performance.now() - told < TELL_MS) continue
      told = performance.now()
      progress(at / text.length)
      await breathe()
      if (mine !== run) return null
    }
    const { log, startedAt, tally } = reader.finish()
    file.read = log
    const problem = !tally.rows
      ? 'No row could be read: look at the meaning of the columns.'
      : !log.channels.length
        ? 'No column is taken.'
        : ''
    return {
      problem,
      tally,
      startedAt,
      channels: log.channels.map((c) => ({ name: c.name, quantity: c.quantity })),
      rows: tally.rows,
    }
  },
  /** A block of what was read, for the server. */
  block(index: number): { data: Uint8Array; more: boolean } | null {
    const log = file.read
    const from = index * BLOCK_ROWS
    if (!log || from >= log.times.length) return null
    const to = Math.min(log.times.length, from + BLOCK_ROWS)
    const data = encodeBlock(
      log.times,
      log.channels.map((c) => c.values),
      from,
      to,
    )
    return transfer({ data, more: to < log.times.length }, [data.buffer])
  },
  cancel(): void {
    run++
  },
  forget(): void {
    file = { text: '', read: null }
  },
}
export type LogWorker = typeof worker
expose(worker)
