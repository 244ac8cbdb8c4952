import dayjs from 'dayjs'
import customParseFormat from 'dayjs/plugin/customParseFormat.js'
import utc from 'dayjs/plugin/utc.js'
import Papa from 'papaparse'
import {
  channelName,
  channelOf,
  channelUnits,
  isSentinel,
  refusedOutside,
  type LogData,
  type NamedChannel,
} from '#core/measure'
import { csvOf, plainCell } from './csv'

dayjs.extend(customParseFormat)
dayjs.extend(utc)

/**
 * Logger files as they come: any heading, any of the usual separators, points or commas for the decimals, times as seconds,
 * milliseconds, clock or date. What was guessed is shown before anything is taken, and can be set right.
 */

export const timeFormats = {
  s: 'seconds',
  ms: 'milliseconds',
  min: 'minutes',
  h: 'hours',
  'epoch-s': 'seconds since 1970',
  'epoch-ms': 'milliseconds since 1970',
  ymd: 'date, year first',
  dmy: 'date, day first',
  mdy: 'date, month first',
  clock: 'clock time',
  rows: 'no time: rows at even steps',
} as const
export type TimeFormat = keyof typeof timeFormats

export interface LogColumn {
  heading: string
  /** null: left out */ channel: NamedChannel | null
}
export interface LogTable {
  delimiter: string
  decimalComma: boolean
  /** lines before the first row of values */
  skip: number
  columns: LogColumn[]
  /** column of the time, and of the date where that stands apart; null for none */
  time: number | null
  date: number | null
  format: TimeFormat
  /** s between rows where there is no time */
  step: number
  /** some rows as they stand */
  sample: string[][]
}

const DELIMITERS = [';', '\t', ',', '|', ' '] as const
/** Lines that are looked at. */
const LOOK = 60
/** How a unit may be written in a heading, and the ending it stands for. */
const spelled: Readonly<Record<string, string>> = {
  '°c': 'degC',
  c: 'degC',
  degc: 'degC',
  celsius: 'degC',
  '°f': 'degF',
  f: 'degF',
  degf: 'degF',
  k: 'K',
  pa: 'Pa',
  hpa: 'hPa',
  mbar: 'hPa',
  mmh2o: 'mmH2O',
  rpm: 'rpm',
  'u/min': 'rpm',
  '1/min': 'rpm',
  v: 'V',
  volt: 'V',
  mv: 'mV',
  a: 'A',
  amp: 'A',
  ma: 'mA',
  w: 'W',
  watt: 'W',
  db: 'dBA',
  'db(a)': 'dBA',
  dba: 'dBA',
  'm³/h': 'm3h',
  'm3/h': 'm3h',
  cfm: 'cfm',
  'l/s': 'ls',
  'm/s': 'mps',
  '%': 'pct',
  hz: 'Hz',
}
/** Words of a heading that tell what is meant where no unit stands. */
const telling: [RegExp, string][] = [
  [/temp|probe|ntc|thermo/i, 'degC'],
  [/rpm|tach|drehzahl/i, 'rpm'],
  [/volt|spannung/i, 'V'],
  [/amp|current|strom/i, 'A'],
  [/press|druck/i, 'Pa'],
  [/level|noise|sound|db/i, 'dBA'],
  [/flow/i, 'm3h'],
  [/power|watt/i, 'W'],
]

/** What a heading says: `sink_degC`, `Sink (°C)`, `Volt [V]`, `Temp 1`. */
export function headingChannel(heading: string): NamedChannel {
  const text = heading.trim()
  const named = channelOf(text)
  if (named.quantity !== 'number') return named
  const bracket = /^(.*?)[\s_]*[[(]([^\])]*(?:\([^)]*\))?)[\])]\s*$/.exec(text)
  const ending = bracket
    ? spelled[bracket[2]!.trim().toLowerCase()]
    : telling.find(([words]) => words.test(text))?.[1]
  const name = (bracket?.[1]?.trim() || text).replaceAll('_', ' ')
  return ending
    ? { ...channelUnits[ending]!, name }
    : { name: text.replaceAll('_', ' '), quantity: 'number', factor: 1, offset: 0 }
}

const numeric = (cell: string) => /^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(cell.trim())
const DATE = /^\s*(\d{1,4})[-./](\d{1,2})[-./](\d{1,4})(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?)?/
const CLOCK = /^\s*(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?\s*$/
const isTime = (cell: string) => DATE.test(cell) || CLOCK.test(cell)
const blank = (cell: string) => /^\s*(|nan|null|none|n\/?a|-+|\?)\s*$/i.test(cell)

const split = (text: string, delimiter: string) =>
  Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' }).data

/** Where semicolons or tabs divide, a comma between figures is a decimal sign and no separator. */
const withoutDecimalCommas = (text: string) => (/[;\t]/.test(text) ? text.replace(/(\d),(?=\d)/g, '$1.') : text)
/** The separator, as the CSV parser guesses it from the last half of the lines: the first ones may be a preamble. */
const guessDelimiter = (lines: readonly string[]): string => {
  const tail = withoutDecimalCommas(lines.slice(lines.length >> 1).join('\n'))
  return Papa.parse<string[]>(tail, { delimitersToGuess: [...DELIMITERS] }).meta.delimiter
}

/** Day or month first: a number above 12 decides; else day first where points divide, month first where strokes do. */
function dateFormat(cells: readonly string[]): TimeFormat {
  const parts = cells.map((c) => DATE.exec(c)).filter((m) => m !== null)
  if (parts.some((m) => m[1]!.length === 4)) return 'ymd'
  if (parts.some((m) => Number(m[1]) > 12)) return 'dmy'
  if (parts.some((m) => Number(m[2]) > 12)) return 'mdy'
  return cells[0]?.includes('/') ? 'mdy' : 'dmy'
}

function numberFormat(heading: string, first: number): TimeFormat {
  if (first > 1e11) return 'epoch-ms'
  if (first > 1e8) return 'epoch-s'
  if (/(^|[^a-z])(ms|milli\w*)([^a-z]|$)/i.test(heading)) return 'ms'
  if (/(^|[^a-z])(min|minutes?)([^a-z]|$)/i.test(heading)) return 'min'
  return /(^|[^a-z])(h|hours?)([^a-z]|$)/i.test(heading) ? 'h' : 's'
}

const TIME_WORDS = /time|date|zeit|datum|uhr|elapsed|stamp|^t$|^s$|^ms$|seconds|sec\b/i

function findTime(
  headings: readonly string[],
  rows: readonly string[][],
  toNumber: (cell: string) => number,
): Pick<LogTable, 'time' | 'date' | 'format'> {
  const cells = (c: number) => rows.map((r) => r[c] ?? '').filter((x) => !blank(x))
  const dates = headings.map((_, c) => cells(c).length > 0 && cells(c).every((x) => DATE.test(x)))
  const clocks = headings.map((_, c) => cells(c).length > 0 && cells(c).every((x) => CLOCK.test(x)))
  const day = dates.indexOf(true)
  const clock = clocks.indexOf(true)
  if (day >= 0) {
    const hasClock = cells(day).some((x) => DATE.exec(x)?.[4] !== undefined)
    return {
      time: !hasClock && clock >= 0 ? clock : day,
      date: !hasClock && clock >= 0 ? day : null,
      format: dateFormat(cells(day)),
    }
  }
  if (clock >= 0) return { time: clock, date: null, format: 'clock' }
  // a clock may jump within the rows looked at: most steps must go up
  const rising = (c: number) => {
    const numbers = cells(c).every(numeric) ? cells(c).map(toNumber) : []
    return (
      numbers.length > 1 &&
      numbers.filter((x, i) => i > 0 && x >= numbers[i - 1]!).length >= 0.6 * (numbers.length - 1)
    )
  }
  const named = headings.findIndex((h, c) => TIME_WORDS.test(h) && rising(c))
  if (named >= 0)
    return { time: named, date: null, format: numberFormat(headings[named]!, toNumber(cells(named)[0]!)) }
  return { time: null, date: null, format: 'rows' }
}

/** A logger has tens of channels, with some words beside them; a log keeps 32. */
const MOST_COLUMNS = 200

/**
 * Looks at the beginning of a file.
 * @param head its first hundred kilobytes or so
 * @returns what is meant by it, or why nothing can be made of it
 */
export function sniffLog(head: string): LogTable | string {
  const lines = head
    .replace(/^\ufeff/, '')
    .split(/\r\n|\n|\r/)
    .filter((l) => l.trim() !== '')
    .slice(0, LOOK)
  if (!lines.length) return 'The file is empty.'
  const delimiter = guessDelimiter(lines)
  const rows = lines.map((l) => split(l, delimiter)[0] ?? [])
  const width = rows.map((r) => r.length).toSorted((a, b) => a - b)[rows.length >> 1]!
  if (width > MOST_COLUMNS)
    return `This table has ${width} columns: at most ${MOST_COLUMNS} are read. Keep those that matter and save it again.`
  const valued = (r: string[]) =>
    r.length >= Math.min(2, width) &&
    r.filter((c) => numeric(c) || isTime(c)).length >= Math.max(1, r.filter((c) => !blank(c)).length / 2)
  const firstRow = rows.findIndex((r, i) => valued(r) && (rows[i + 1] === undefined || valued(rows[i + 1]!)))
  if (firstRow < 0) return 'No rows of numbers were found in this file.'
  const values = rows.slice(firstRow).filter((r) => r.length === width && valued(r))
  if (!values.length) return 'No rows of numbers were found in this file.'
  const head0 = rows
    .slice(0, firstRow)
    .toReversed()
    .find((r) => r.length === width && r.some((c) => c.trim()))
  const headings = Array.from(
    { length: width },
    (_, i) => plainCell(head0?.[i] ?? '').trim() || `column ${i + 1}`,
  )
  const decimalComma = delimiter !== ',' && values.some((r) => r.some((c) => /^[+-]?\d+,\d+$/.test(c.trim())))
  const toNumber = (cell: string) => Number(decimalComma ? cell.replace(',', '.') : cell)
  const { time, date, format } = findTime(headings, values, toNumber)
  // lines as they are counted in the file, blank ones included
  const skip = head
    .replace(/^\ufeff/, '')
    .split(/\r\n|\n|\r/)
    .indexOf(lines[firstRow]!)
  const seen = new Set<string>()
  const columns = headings.map((heading, i): LogColumn => {
    if (i === time || i === date) return { heading, channel: null }
    if (!values.some((r) => numeric(r[i] ?? ''))) return { heading, channel: null }
    const channel = headingChannel(heading)
    const key = () => channelName(channel)
    for (let n = 2; seen.has(key()); n++) channel.name = `${headingChannel(heading).name} ${n}`
    seen.add(key())
    return { heading, channel }
  })
  return { delimiter, decimalComma, skip, columns, time, date, format, step: 1, sample: values.slice(0, 8) }
}

export interface LogTally {
  rows: number
  broken: number
  /** line and text of the first ones */ brokenSample: { line: number; text: string }[]
  gaps: number
  clockJumps: number
  sameTime: number
  repeated: number
}
export interface ReadLog {
  log: LogData
  startedAt: string | null
  tally: LogTally
}

const FACTOR: Partial<Record<TimeFormat, number>> = {
  s: 1,
  ms: 1e-3,
  min: 60,
  h: 3600,
  'epoch-s': 1,
  'epoch-ms': 1e-3,
}
const DAY_S = 86400
const TOLD = 20

/** Seconds of a clock: hours, minutes, and seconds with either decimal sign. */
const secondsOf = (hours?: string, minutes?: string, seconds = '0') =>
  Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds.replace(',', '.'))
function clockSeconds(cell: string): number {
  const m = CLOCK.exec(cell)
  return m ? secondsOf(m[1], m[2], m[3]) : NaN
}

/** How a day may be written, by the order of its parts. */
const dayFormats: Partial<Record<TimeFormat, string[]>> = {
  ymd: ['YYYY-MM-DD'],
  dmy: ['DD-MM-YYYY', 'DD-MM-YY'],
  mdy: ['MM-DD-YYYY', 'MM-DD-YY'],
}
/** Days that were read already: a log has many rows of few days. */
const days = new Map<string, number>()
/** Seconds since 1970 at the beginning of a day, no zone; NaN where there is no such day. */
function daySeconds(day: string, format: TimeFormat): number {
  const key = `${format} ${day}`
  const known = days.get(key)
  if (known !== undefined) return known
  const read = (dayFormats[format] ?? []).map((f) => dayjs.utc(day, f, true)).find((d) => d.isValid())
  const seconds = read?.unix() ?? NaN
  days.set(key, seconds)
  return seconds
}
/** Seconds since 1970 of a date as it stands, no zone. */
function dateSeconds(cell: string, format: TimeFormat): number {
  const m = DATE.exec(cell)
  if (!m) return NaN
  const day = [m[1], m[2], m[3]].map((part) => part!.padStart(2, '0')).join('-')
  return daySeconds(day, format) + secondsOf(m[4], m[5], m[6])
}

/** Reads a whole file, part by part; between parts a worker may breathe, tell how far it is, or stop. */
export class LogReader {
  private times = new Float64Array(4096)
  private columns: {
    at: number
    channel: NamedChannel
    values: Float64Array
    low: number
    high: number
    probe: boolean
  }[]
  private n = 0
  private line: number
  private offset = 0
  private lastTime = -Infinity
  private zero: number | null = null
  private last: string[] | null = null
  readonly tally: LogTally = {
    rows: 0,
    broken: 0,
    brokenSample: [],
    gaps: 0,
    clockJumps: 0,
    sameTime: 0,
    repeated: 0,
  }

  constructor(private readonly table: LogTable) {
    this.line = table.skip
    this.columns = table.columns.flatMap((c, at) => {
      if (!c.channel) return []
      const { quantity } = c.channel
      const [low, high] = refusedOutside(quantity) ?? [-Infinity, Infinity]
      return [
        {
          at,
          channel: c.channel,
          values: new Float64Array(4096),
          low,
          high,
          probe: quantity === 'temperature',
        },
      ]
    })
  }

  /** Lines of text, whole ones. */
  push(text: string): void {
    const { data } = Papa.parse<string[]>(text, { delimiter: this.table.delimiter, skipEmptyLines: false })
    // a text that ends with a line end has an empty row behind it
    const end =
      data.length && data.at(-1)!.length === 1 && data.at(-1)![0] === '' ? data.length - 1 : data.length
    for (let i = 0; i < end; i++) {
      this.line++
      this.row(data[i]!)
    }
  }

  private grow() {
    const bigger = (a: Float64Array) => {
      const b = new Float64Array(2 * a.length)
      b.set(a)
      return b
    }
    this.times = bigger(this.times)
    for (const c of this.columns) c.values = bigger(c.values)
  }

  private breaks(row: string[]) {
    this.tally.broken++
    if (this.tally.brokenSample.length < TOLD)
      this.tally.brokenSample.push({ line: this.line, text: row.join(this.table.delimiter).slice(0, 80) })
  }

  private timeOf(row: string[]): number {
    const { time, date, format, step, decimalComma } = this.table
    if (time === null) return this.n * step
    const cell = row[time] ?? ''
    if (date !== null) return dateSeconds(row[date] ?? '', format) + clockSeconds(cell)
    if (format === 'clock') return clockSeconds(cell)
    if (format === 'ymd' || format === 'dmy' || format === 'mdy') return dateSeconds(cell, format)
    return cell === '' ? NaN : Number(decimalComma ? cell.replace(',', '.') : cell) * FACTOR[format]!
  }

  private row(row: string[]) {
    if (row.length === 1 && row[0]!.trim() === '') return
    const raw = row.length < this.table.columns.length ? NaN : this.timeOf(row)
    if (!Number.isFinite(raw)) return this.breaks(row)
    // only a row of the same time can be a whole repeat
    if (
      this.last &&
      this.zero !== null &&
      raw - this.zero + this.offset === this.lastTime &&
      row.every((c, i) => c === this.last![i])
    ) {
      this.tally.repeated++
      return
    }
    this.zero ??= raw
    let t = raw - this.zero + this.offset
    if (t < this.lastTime) {
      // a clock that passes midnight goes on; any other step back is a jump, and the log goes on where it was
      const midnight = this.table.format === 'clock' && this.lastTime - t > DAY_S / 2
      const shift = midnight ? DAY_S * Math.ceil((this.lastTime - t) / DAY_S) : this.lastTime - t
      if (!midnight) this.tally.clockJumps++
      this.offset += shift
      t += shift
    } else if (t === this.lastTime) this.tally.sameTime++
    if (this.n === this.times.length) this.grow()
    const { decimalComma } = this.table
    let read = 0
    for (const c of this.columns) {
      const cell = row[c.at]!
      let value = NaN
      if (cell !== '') {
        const number = Number(decimalComma ? cell.replace(',', '.') : cell)
        if (number === number) {
          const si = number * c.channel.factor + c.channel.offset
          if (si >= c.low && si <= c.high && !(c.probe && isSentinel(number, this.n === 0))) value = si
        } else if (!blank(cell)) read -= 1000
      }
      if (value === value) read++
      else this.tally.gaps++
      c.values[this.n] = value
    }
    // cells that are neither numbers nor empty: the row is torn
    if (read < 0 && this.columns.length) {
      this.tally.gaps -= this.columns.reduce((n, c) => n + (c.values[this.n] === c.values[this.n] ? 0 : 1), 0)
      return this.breaks(row)
    }
    this.times[this.n++] = t
    this.lastTime = t
    this.last = row
    this.tally.rows++
  }

  finish(): ReadLog {
    const { format } = this.table
    const dated =
      this.zero !== null &&
      (format === 'epoch-s' ||
        format === 'epoch-ms' ||
        format === 'ymd' ||
        format === 'dmy' ||
        format === 'mdy')
    return {
      tally: this.tally,
      startedAt: dated ? new Date(this.zero! * 1000).toISOString() : null,
      log: {
        times: this.times.slice(0, this.n),
        channels: this.columns.map((c) => ({
          name: c.channel.name,
          quantity: c.channel.quantity,
          values: c.values.slice(0, this.n),
        })),
      },
    }
  }
}

/** Characters read at once: few enough that their rows are gone before they grow old in memory. */
const PART = 400_000
/** Where the next part of a text ends: at a line end. */
export function partEnd(text: string, from: number, size = PART): number {
  if (from + size >= text.length) return text.length
  const end = text.indexOf('\n', from + size)
  return end < 0 ? text.length : end + 1
}
/** Where the rows begin. */
export function rowsBegin(text: string, skip: number): number {
  let at = text.startsWith('\ufeff') ? 1 : 0
  for (let i = 0; i < skip; i++) {
    const end = /\r\n|\n|\r/g
    end.lastIndex = at
    const found = end.exec(text)
    if (!found) return text.length
    at = end.lastIndex
  }
  return at
}

const rounded = (x: number) => (Number.isNaN(x) ? '' : String(Number(x.toPrecision(9))))
/** Rows of a log as CSV, the head first: seconds from the start, then each channel under its name with unit, gaps empty. */
export function* logCsv(log: LogData, startedAt: string, start = 0, end = log.times.length): Generator<string> {
  // a head is one line, whatever a channel is called
  const names = log.channels.map((c) => channelName(c).replaceAll(/\s+/g, ' '))
  yield `# Redpoll log, started ${startedAt}\n${csvOf(['time_s', ...names], [], '\n').trimEnd()}\n`
  const scale = log.channels.map((c) => channelOf(channelName(c)))
  for (let from = start; from < end; from += 5000) {
    let text = ''
    for (let i = from; i < Math.min(end, from + 5000); i++) {
      text += rounded(log.times[i]!)
      for (const [k, c] of log.channels.entries())
        text += `,${rounded((c.values[i]! - scale[k]!.offset) / scale[k]!.factor)}`
      text += '\n'
    }
    yield text
  }
}
/** The same as JSON, in SI units. */
export function* logJson(
  log: LogData,
  name: string,
  startedAt: string,
  start = 0,
  end = log.times.length,
): Generator<string> {
  const channels = log.channels.map((c) => ({ name: c.name, quantity: c.quantity }))
  const head = JSON.stringify({ format: 'redpoll-log', version: 1, name, startedAt, channels })
  yield `${head.slice(0, -1)},"rows":[\n`
  for (let from = start; from < end; from += 5000) {
    const part: string[] = []
    for (let i = from; i < Math.min(end, from + 5000); i++)
      part.push(
        JSON.stringify([
          Number(log.times[i]!.toPrecision(12)),
          ...log.channels.map((c) => (Number.isNaN(c.values[i]!) ? null : Number(c.values[i]!.toPrecision(9)))),
        ]),
      )
    yield part.join(',\n') + (from + 5000 < end ? ',\n' : '\n')
  }
  yield ']}\n'
}
