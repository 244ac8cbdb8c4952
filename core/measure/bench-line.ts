/**
 * What boards send: bench lines or JSON, the same rows. A line is
 *
 *     118 59000 sink_degC=41.25 fan_rpm=1480 box_Pa=
 *
 * a running number, milliseconds since the board started, and values named with their unit; nothing behind `=` is a gap.
 * `# boot=8f3a17` before the rows tells one start of the board from the next. The JSON form is
 * `{ "boot": "8f3a17", "rows": [{ "seq": 118, "ms": 59000, "sink_degC": 41.25 }] }`.
 */

export interface BenchRow {
  seq: number
  ms: number
  values: Record<string, number | null>
}
export interface BenchMessage {
  boot: string
  rows: BenchRow[]
  /** what could not be read: line counted from 1, and why */ refused: { line: number; why: string }[]
}

/** More channels than this are no bench. */
export const MAX_CHANNELS = 32
const NAME = /^[\p{L}][\p{L}\p{N}_]{0,39}$/u
const BOOT = /^[\w-]{1,40}$/
/** A clock beyond this is garbled, ms: thirty thousand years. */
const LATEST_MS = 1e15
/** Largest running number that a double counts exactly. */
const wholeNumber = (text: string) => (/^\d{1,15}$/.test(text) ? Number(text) : null)

function valueOf(text: string): number | null | undefined {
  if (text === '' || /^(nan|null|-)$/i.test(text)) return null
  const value = Number(text.replace(',', '.'))
  return Number.isFinite(value) ? value : undefined
}

/**
 * One line: a row, a heading (`# key=value`), nothing, or why it cannot be read.
 * Reference: a choice of ours
 */
export function readBenchLine(
  line: string,
): { row: BenchRow } | { heading: Record<string, string> } | { why: string } | null {
  const text = line.trim()
  if (!text) return null
  if (text.startsWith('#'))
    return {
      heading: Object.fromEntries([...text.slice(1).matchAll(/(\w+)=(\S+)/g)].map((m) => [m[1]!, m[2]!])),
    }
  const [first, second, ...rest] = text.split(/\s+/)
  const seq = wholeNumber(first!)
  if (seq === null) return { why: 'it does not begin with its running number' }
  const ms = second === undefined ? NaN : Number(second)
  if (!Number.isFinite(ms) || ms < 0 || ms > LATEST_MS) return { why: 'its milliseconds cannot be read' }
  if (rest.length > MAX_CHANNELS) return { why: `more than ${MAX_CHANNELS} values` }
  const values: Record<string, number | null> = {}
  for (const part of rest) {
    const cut = part.indexOf('=')
    const name = part.slice(0, cut)
    if (cut < 1 || !NAME.test(name)) return { why: `“${part.slice(0, 30)}” is no name=value` }
    const value = valueOf(part.slice(cut + 1))
    if (value === undefined) return { why: `the value of ${name} cannot be read` }
    values[name] = value
  }
  return { row: { seq, ms, values } }
}

function readJsonRow(raw: unknown): BenchRow | string {
  if (typeof raw !== 'object' || raw === null) return 'a row is not an object'
  const { seq, ms, ...rest } = raw as Record<string, unknown>
  if (typeof seq !== 'number' || !Number.isSafeInteger(seq) || seq < 0) return 'seq is not a whole number'
  if (typeof ms !== 'number' || !Number.isFinite(ms) || ms < 0 || ms > LATEST_MS) return 'ms cannot be read'
  const values: Record<string, number | null> = {}
  const entries = Object.entries(rest)
  if (entries.length > MAX_CHANNELS) return `more than ${MAX_CHANNELS} values`
  for (const [name, value] of entries) {
    if (!NAME.test(name)) return `“${name.slice(0, 30)}” is no name`
    if (value !== null && (typeof value !== 'number' || !Number.isFinite(value)))
      return `the value of ${name} cannot be read`
    values[name] = value as number | null
  }
  return { seq, ms, values }
}

/**
 * A whole message in either form. Rows that cannot be read are told, the others are taken. @param boot of a message that names none
 * Reference: a choice of ours
 */
export function readBench(text: string, boot = 'unnamed'): BenchMessage {
  const message: BenchMessage = { boot, rows: [], refused: [] }
  if (/^\s*[{[]/.test(text)) {
    let json: unknown
    try {
      json = JSON.parse(text)
    } catch {
      return { ...message, refused: [{ line: 1, why: 'it looks like JSON and is none' }] }
    }
    const body = (Array.isArray(json) ? { rows: json } : json) as { boot?: unknown; rows?: unknown }
    if (typeof body.boot === 'string' && BOOT.test(body.boot)) message.boot = body.boot
    if (!Array.isArray(body.rows)) return { ...message, refused: [{ line: 1, why: 'it has no rows' }] }
    for (const [i, raw] of body.rows.entries()) {
      const row = readJsonRow(raw)
      if (typeof row === 'string') message.refused.push({ line: i + 1, why: row })
      else message.rows.push(row)
    }
    return message
  }
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    const read = readBenchLine(line)
    if (!read) continue
    if ('why' in read) message.refused.push({ line: i + 1, why: read.why })
    else if ('row' in read) message.rows.push(read.row)
    else if (read.heading.boot && BOOT.test(read.heading.boot)) message.boot = read.heading.boot
  }
  return message
}

const number = (value: number | null) => (value === null ? '' : String(Number(value.toPrecision(7))))
/**
 * Rows as bench lines, for a board or the stand-in.
 * Reference: a choice of ours
 */
export const writeBench = (boot: string, rows: readonly BenchRow[]): string =>
  `# boot=${boot}\n` +
  `${rows.map((r) => [r.seq, Math.round(r.ms), ...Object.entries(r.values).map(([k, v]) => `${k}=${number(v)}`)].join(' ')).join('\n')}\n`
