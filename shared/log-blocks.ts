import type { Channel, LogData } from '#core/measure'
import { decodeColumn, encodeColumn } from './block-column'

/**
 * Samples on their way between page, server and database: a block holds some rows of a log, column by column, the times
 * in s first, then each channel; NaN is a gap. A packed block begins with a mark that no time can be, its rows and its
 * columns (four bytes each, little-endian), then the columns. A block without the mark is an older one: plain doubles.
 */

const BYTES = 8
/** A double that is no number, with a version in its first byte. */
const MARK = Uint8Array.of(1, 0x52, 0x70, 0, 0, 0, 0xf8, 0x7f)
const BLOCK_HEAD = MARK.length + 8
/** Before each of several blocks: rows, channels, running number, bytes, as doubles. */
const HEAD = 4

export interface Block {
  seq: number
  rows: number
  channels: number
  data: Uint8Array
}

/** Rows a block holds at most: an import sends many of them. */
export const BLOCK_ROWS = 20_000
/** More channels than a log may have are refused. */
const MOST_COLUMNS = 33
/** Bytes that a block may have. */
export const MAX_BLOCK_BYTES = BLOCK_HEAD + (BLOCK_ROWS * BYTES + 1) * MOST_COLUMNS

export function encodeBlock(
  times: ArrayLike<number>,
  columns: readonly ArrayLike<number>[],
  from = 0,
  to = times.length,
): Uint8Array {
  const packed = [times, ...columns].map((c) => encodeColumn(c, from, to))
  const block = new Uint8Array(packed.reduce((n, c) => n + c.length, BLOCK_HEAD))
  block.set(MARK)
  const head = new DataView(block.buffer)
  head.setUint32(MARK.length, to - from, true)
  head.setUint32(MARK.length + 4, packed.length, true)
  let at = BLOCK_HEAD
  for (const column of packed) {
    block.set(column, at)
    at += column.length
  }
  return block
}

/** A block's columns, each with a value a row: the times first. */
export type Columns = Float64Array[]

const isPacked = (bytes: Uint8Array) => MARK.every((b, i) => bytes[i] === b)

/** Rows that a packed block may say it has: a few bytes must not fill the memory. */
const MOST_ROWS = 1_000_000
/**
 * @param channels of its log, by which an older block is told apart
 * @param most rows that a packed one may have
 * @returns null where it cannot be a block
 */
export function decodeBlock(bytes: Uint8Array, channels: number, most = MOST_ROWS): Columns | null {
  return isPacked(bytes) ? unpacked(bytes, channels, most) : older(bytes, channels)
}
function unpacked(bytes: Uint8Array, channels: number, most: number): Columns | null {
  if (bytes.length < BLOCK_HEAD) return null
  const head = new DataView(bytes.buffer, bytes.byteOffset, BLOCK_HEAD)
  const rows = head.getUint32(MARK.length, true)
  if (rows < 1 || rows > most || head.getUint32(MARK.length + 4, true) !== channels + 1) return null
  const columns: Columns = []
  let at = BLOCK_HEAD
  for (let c = 0; c <= channels; c++) {
    const column = new Float64Array(rows)
    at = decodeColumn(bytes, at, column)
    if (at < 0) return null
    columns.push(column)
  }
  return at === bytes.length ? columns : null
}
function older(bytes: Uint8Array, channels: number): Columns | null {
  const rows = bytes.length / (BYTES * (channels + 1))
  if (!Number.isInteger(rows) || rows < 1) return null
  // copied so that they lie as they must (a slice of a server's buffer would not be a copy)
  const all = new Float64Array(new Uint8Array(bytes).buffer)
  return Array.from({ length: channels + 1 }, (_, c) => all.subarray(c * rows, (c + 1) * rows))
}

/** Whether a block can be one: whole rows, finite times that do not fall. @returns its rows, or what is wrong */
export function checkBlock(bytes: Uint8Array, channels: number): number | string {
  const times = decodeBlock(bytes, channels, BLOCK_ROWS)?.[0]
  if (!times) return `The block does not hold whole rows, or more than ${BLOCK_ROWS}.`
  for (let i = 0; i < times.length; i++) {
    if (!Number.isFinite(times[i]!)) return 'A time is missing.'
    if (i > 0 && times[i]! < times[i - 1]!) return 'The times do not rise.'
  }
  return times.length
}

/** Blocks one behind the other, for one answer. */
export function joinBlocks(blocks: readonly Block[]): Uint8Array {
  const out = new Uint8Array(blocks.reduce((n, b) => n + HEAD * BYTES + b.data.length, 0))
  let at = 0
  for (const b of blocks) {
    out.set(new Uint8Array(Float64Array.of(b.rows, b.channels, b.seq, b.data.length).buffer), at)
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
  const parts: Columns[] = []
  let last = before?.last ?? -1
  for (let at = 0; at < buffer.byteLength;) {
    const head = new Float64Array(buffer.slice(at, at + HEAD * BYTES))
    const [, width, seq, length] = head as unknown as [number, number, number, number]
    at += HEAD * BYTES
    const part = decodeBlock(new Uint8Array(buffer, at, length), width)
    if (!part) throw new Error('A part of this log cannot be read.')
    parts.push(part)
    last = seq
    at += length
  }
  const rowsOf = (columns: Columns) => columns[0]!.length
  const old = before?.log.times.length ?? 0
  const total = parts.reduce((n, p) => n + rowsOf(p), old)
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
  for (const columns of parts) {
    const rows = rowsOf(columns)
    log.times.set(columns[0]!, row)
    log.channels.forEach((c, i) => {
      const column = columns[i + 1]
      if (column) c.values.set(column, row)
      else c.values.fill(NaN, row, row + rows)
    })
    row += rows
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
