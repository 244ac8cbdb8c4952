import type { Channel, LogData } from '#core/measure'

/**
 * Samples on their way between page, server and database: a block is a number of rows as little-endian doubles, the times
 * in s first, then each channel; NaN is a gap. Several blocks follow each other with a head of three doubles: rows,
 * channels, running number.
 */

const BYTES = 8
const HEAD = 3

export interface Block {
  seq: number
  rows: number
  channels: number
  data: Uint8Array
}

/** Rows a block holds at most: an import sends many of them. */
export const BLOCK_ROWS = 20_000
/** More rows than this are refused, bytes that a block may have. */
export const MAX_BLOCK_BYTES = BLOCK_ROWS * 33 * BYTES

export function encodeBlock(
  times: ArrayLike<number>,
  columns: readonly ArrayLike<number>[],
  from = 0,
  to = times.length,
): Uint8Array {
  const rows = to - from
  const all = new Float64Array(rows * (columns.length + 1))
  for (let i = 0; i < rows; i++) all[i] = times[from + i]!
  columns.forEach((column, c) => {
    const at = (c + 1) * rows
    for (let i = 0; i < rows; i++) all[at + i] = column[from + i]!
  })
  return new Uint8Array(all.buffer)
}

/** The doubles of a block, copied so that they lie as they must (a slice of a server's buffer would not be a copy). */
export const doublesOf = (bytes: Uint8Array): Float64Array => new Float64Array(new Uint8Array(bytes).buffer)

/** Whether a block can be one: whole rows, finite times that do not fall. @returns its rows, or what is wrong */
export function checkBlock(bytes: Uint8Array, channels: number): number | string {
  const rows = bytes.length / (BYTES * (channels + 1))
  if (!Number.isInteger(rows) || rows < 1) return 'The block does not hold whole rows.'
  const times = doublesOf(bytes.subarray(0, rows * BYTES))
  for (let i = 0; i < rows; i++) {
    if (!Number.isFinite(times[i]!)) return 'A time is missing.'
    if (i > 0 && times[i]! < times[i - 1]!) return 'The times do not rise.'
  }
  return rows
}

/** Blocks one behind the other, for one answer. */
export function joinBlocks(blocks: readonly Block[]): Uint8Array {
  const out = new Uint8Array(blocks.reduce((n, b) => n + HEAD * BYTES + b.data.length, 0))
  let at = 0
  for (const b of blocks) {
    out.set(new Uint8Array(Float64Array.of(b.rows, b.channels, b.seq).buffer), at)
    out.set(b.data, at + HEAD * BYTES)
    at += HEAD * BYTES + b.data.length
  }
  return out
}

/**
 * What `joinBlocks` wrote, as one log behind what is there already. A channel that joined later has gaps before.
 * @returns the log and the number of its last block; the given one where nothing is new
 */
export function readBlocks(
  buffer: ArrayBuffer,
  channels: readonly Channel[],
  before: { log: LogData; last: number } | null = null,
): { log: LogData; last: number } {
  const parts: { rows: number; channels: number; data: Float64Array }[] = []
  let last = before?.last ?? -1
  for (let at = 0; at < buffer.byteLength;) {
    const [rows, width, seq] = new Float64Array(buffer, at, HEAD) as unknown as [number, number, number]
    parts.push({ rows, channels: width, data: new Float64Array(buffer, at + HEAD * BYTES, rows * (width + 1)) })
    last = seq
    at += (HEAD + rows * (width + 1)) * BYTES
  }
  const old = before?.log.times.length ?? 0
  const total = parts.reduce((n, p) => n + p.rows, old)
  if (before && total === old && before.log.channels.length === channels.length) return before
  const grow = (values: Float64Array | undefined) => {
    const grown = new Float64Array(total)
    if (values) grown.set(values)
    else grown.fill(NaN, 0, old)
    return grown
  }
  const log: LogData = {
    times: grow(before?.log.times),
    channels: channels.map((c, i) => ({ ...c, values: grow(before?.log.channels[i]?.values) })),
  }
  let row = old
  for (const p of parts) {
    log.times.set(p.data.subarray(0, p.rows), row)
    log.channels.forEach((c, i) => {
      if (i < p.channels) c.values.set(p.data.subarray((i + 1) * p.rows, (i + 2) * p.rows), row)
      else c.values.fill(NaN, row, row + p.rows)
    })
    row += p.rows
  }
  return { log: inOrder(log), last }
}

/** Rows that came late stand where they belong. */
function inOrder(log: LogData): LogData {
  const { times } = log
  let sorted = true
  for (let i = 1; i < times.length && sorted; i++) sorted = times[i]! >= times[i - 1]!
  if (sorted) return log
  const order = Array.from(times.keys()).sort((a, b) => times[a]! - times[b]! || a - b)
  const placed = (values: Float64Array) => Float64Array.from(order, (i) => values[i]!)
  return { times: placed(times), channels: log.channels.map((c) => ({ ...c, values: placed(c.values) })) }
}
