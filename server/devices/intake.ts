import {
  channelOf,
  isSentinel,
  readBench,
  refusedOutside,
  TACH,
  type BenchMessage,
  type BenchRow,
  type Channel,
  type NamedChannel,
} from '#core/measure'
import type { InstrumentState, Receipt } from '#shared/api'
import { encodeBlock } from '#shared/log-blocks'
import type { Database, Queryable } from '../db/database'
import { Refused } from '../db/errors'
import type { Instrument } from '../db/repositories/instruments'
import { addChannels, getLog, putBlock } from '../db/repositories/logs'

/**
 * What instruments send: read, checked, and where their log is open written in one transaction before the answer goes
 * out. A row that is sent again is known by its running number, so a board may repeat what it has no answer for.
 */

interface Live {
  at: number
  boot: string
  bootsBefore: string[]
  last: BenchRow | null
  channels: Map<string, NamedChannel>
  arrivals: { ms: number; rows: number }[]
  refused: number
  lastRefusal: string
  problem: string
  stoodSince: number | null
  turned: boolean
  tachLost: boolean
}

const live = new Map<string, Live>()
const newLive = (boot: string): Live => ({
  at: 0,
  boot,
  bootsBefore: [],
  last: null,
  channels: new Map(),
  arrivals: [],
  refused: 0,
  lastRefusal: '',
  problem: '',
  stoodSince: null,
  turned: false,
  tachLost: false,
})

/** Messages whose rate is averaged, starts of a board that are remembered, refusals told in one answer. */
const KEPT_ARRIVALS = 12
const KEPT_BOOTS = 20
const TOLD = 5

/** A value in SI; sentinels and what cannot be are gaps. */
function clean(channel: NamedChannel, value: number | null, first: boolean): number {
  if (value === null) return NaN
  if (channel.quantity === 'temperature' && isSentinel(value, first)) return NaN
  const si = value * channel.factor + channel.offset
  const limits = refusedOutside(channel.quantity)
  // below zero a voltage is no nonsense: somebody swapped + and −, and must see it
  const size = channel.quantity === 'voltage' ? Math.abs(si) : si
  return limits && !(size >= limits[0] && size <= limits[1]) ? NaN : si
}

/** Watches for the loss of the tach while rows come in. */
function watchTach(state: Live, row: BenchRow) {
  const of = (quantity: string) => {
    const name = Object.keys(row.values).find((n) => state.channels.get(n)?.quantity === quantity)
    return name === undefined ? undefined : row.values[name]
  }
  const [rpm, volts] = [of('rotation'), of('voltage')]
  if (rpm === undefined) return
  const unfed = typeof volts === 'number' && volts <= TACH.fedV
  if (typeof rpm === 'number' && rpm > TACH.turning) state.turned = true
  if (unfed) state.turned = false
  const stands = state.turned && !unfed && (rpm === null || rpm < TACH.standing)
  state.stoodSince = stands ? (state.stoodSince ?? row.ms) : null
  state.tachLost = stands && row.ms - state.stoodSince! >= 1000 * TACH.forS
}

function note(state: Live, message: BenchMessage, now: number) {
  state.at = now
  state.refused += message.refused.length
  if (message.refused.length) state.lastRefusal = `line ${message.refused[0]!.line}: ${message.refused[0]!.why}`
  for (const row of message.rows) {
    for (const name of Object.keys(row.values))
      if (!state.channels.has(name)) state.channels.set(name, channelOf(name))
    watchTach(state, row)
  }
  const last = message.rows.at(-1)
  if (!last) return
  state.last = last
  state.arrivals = [...state.arrivals.slice(1 - KEPT_ARRIVALS), { ms: last.ms, rows: message.rows.length }]
}

/** @throws Refused when two boards send under one token */
function liveOf(instrument: Instrument, boot: string): Live {
  let state = live.get(instrument.id)
  if (!state) live.set(instrument.id, (state = newLive(boot)))
  if (state.boot !== boot) {
    if (state.bootsBefore.includes(boot)) {
      state.problem = 'Two boards send with this token: give each its own.'
      throw new Refused(state.problem, 'token')
    }
    state.bootsBefore = [...state.bootsBefore.slice(-KEPT_BOOTS), state.boot]
    Object.assign(state, { boot, arrivals: [], stoodSince: null, turned: false, tachLost: false })
  }
  return state
}

interface Boot {
  last_seq: number
  last_ms: number
  offset_s: number
  lost: number
  repeated: number
  clock_jumps: number
}
/** After a jump of the board's clock the log goes on this much later, s. */
const AFTER_JUMP_S = 0.001
/** A step of more than this between two rows is a jump of the clock, not a pause, ms. A choice of ours. */
const LONGEST_PAUSE_MS = 7 * 86400_000

async function lastTime(tx: Queryable, logId: string): Promise<number> {
  const [row] = await tx.query<{ last: number }>(
    'SELECT max(last_ms / 1000 + offset_s)::float8 AS last FROM log_boot WHERE log_id = $1',
    [logId],
  )
  return row?.last ?? 0
}

const keyOf = (c: Channel) => `${c.name}|${c.quantity}`
/** Channels of a log, each with the name it is sent under; those that are new are added. */
async function channelsFor(
  tx: Queryable,
  logId: string,
  sent: Iterable<string>,
): Promise<(NamedChannel & { raw: string | null })[]> {
  const have = await tx.query<Channel>(
    'SELECT name, quantity FROM log_channel WHERE log_id = $1 ORDER BY position',
    [logId],
  )
  const wanted = new Map(
    [...sent].map((raw) => [raw, channelOf(raw)] as const).map(([raw, c]) => [keyOf(c), { ...c, raw }]),
  )
  const fresh = [...wanted.values()].filter((c) => !have.some((h) => keyOf(h) === keyOf(c)))
  await addChannels(tx, logId, fresh, have.length)
  return [...have.map((h) => wanted.get(keyOf(h)) ?? { ...h, factor: 1, offset: 0, raw: null }), ...fresh]
}

async function store(
  tx: Queryable,
  logId: string,
  startedAt: number,
  { boot, rows }: BenchMessage,
  now: number,
): Promise<{ accepted: number; repeated: number; next: number }> {
  const [known] = await tx.query<Boot>(
    `SELECT last_seq::float8 AS last_seq, last_ms, offset_s, lost::float8 AS lost, repeated::float8 AS repeated, clock_jumps
      FROM log_boot
      WHERE log_id = $1 AND boot = $2 FOR UPDATE`,
    [logId, boot],
  )
  const ended = await lastTime(tx, logId)
  const b = known ?? {
    last_seq: rows[0]!.seq - 1,
    last_ms: rows[0]!.ms,
    offset_s: Math.max(ended ? ended + AFTER_JUMP_S : 0, (now - startedAt) / 1000) - rows[0]!.ms / 1000,
    lost: 0,
    repeated: 0,
    clock_jumps: 0,
  }
  const first = !known
  const kept: { t: number; row: BenchRow }[] = []
  let repeated = 0
  for (const row of rows) {
    if (row.seq <= b.last_seq) {
      repeated++
      continue
    }
    const step = row.ms - b.last_ms
    if (step < 0 || step > LONGEST_PAUSE_MS) {
      b.clock_jumps++
      b.offset_s = b.last_ms / 1000 + b.offset_s + AFTER_JUMP_S - row.ms / 1000
    }
    b.lost += row.seq - b.last_seq - 1
    b.last_seq = row.seq
    b.last_ms = row.ms
    kept.push({ t: row.ms / 1000 + b.offset_s, row })
  }
  b.repeated += repeated
  if (kept.length) {
    const names = new Set(kept.flatMap((k) => Object.keys(k.row.values)))
    const channels = await channelsFor(tx, logId, names)
    const columns = channels.map((c) =>
      kept.map(({ row }, i) => clean(c, c.raw === null ? null : (row.values[c.raw] ?? null), first && i === 0)),
    )
    const [last] = await tx.query<{ seq: number }>(
      'SELECT coalesce(max(seq), -1)::float8 AS seq FROM log_block WHERE log_id = $1',
      [logId],
    )
    await putBlock(tx, logId, {
      seq: last!.seq + 1,
      rows: kept.length,
      channels: channels.length,
      data: encodeBlock(
        kept.map((k) => k.t),
        columns,
      ),
    })
  }
  await tx.query(
    `INSERT INTO log_boot (log_id, boot, last_seq, last_ms, offset_s, lost, repeated, clock_jumps) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
      ON CONFLICT (log_id, boot) DO UPDATE SET last_seq = EXCLUDED.last_seq, last_ms = EXCLUDED.last_ms,
      offset_s = EXCLUDED.offset_s, lost = EXCLUDED.lost, repeated = EXCLUDED.repeated,
      clock_jumps = EXCLUDED.clock_jumps, updated_at = now()`,
    [logId, boot, b.last_seq, b.last_ms, b.offset_s, b.lost, b.repeated, b.clock_jumps],
  )
  return { accepted: kept.length, repeated, next: b.last_seq + 1 }
}

/**
 * Takes a message in either form.
 * @returns what was taken; `next` is the first running number that is not safe yet
 * @throws Refused when two boards share the token
 */
export async function takeMessage(
  db: Database,
  instrument: Instrument,
  text: string,
  now = Date.now(),
): Promise<Receipt> {
  const message = readBench(text)
  const state = liveOf(instrument, message.boot)
  note(state, message, now)
  const refused = message.refused.slice(0, TOLD)
  const after = (message.rows.at(-1)?.seq ?? -1) + 1
  if (!message.rows.length || instrument.logId === null)
    return { accepted: 0, repeated: 0, refused, log: instrument.logId, next: after }
  const stored = await db.transaction(async (tx) => {
    const log = await getLog(tx, instrument.logId!)
    return store(tx, log.id, Date.parse(log.startedAt), message, now)
  })
  return { ...stored, refused, log: instrument.logId }
}

/** What is known of an instrument since the server started. */
export function liveState(instrument: Instrument, now = Date.now()): InstrumentState {
  const state = live.get(instrument.id)
  const { id, name, kind, logId } = instrument
  if (!state?.at) return { id, name, kind, logId, live: null }
  const spanMs = state.arrivals.length > 1 ? state.arrivals.at(-1)!.ms - state.arrivals[0]!.ms : 0
  const rows = state.arrivals.slice(1).reduce((n, a) => n + a.rows, 0)
  return {
    id,
    name,
    kind,
    logId,
    live: {
      ageS: (now - state.at) / 1000,
      rateHz: spanMs > 0 ? (1000 * rows) / spanMs : null,
      refused: state.refused,
      lastRefusal: state.lastRefusal,
      problem: state.problem,
      tachLost: state.tachLost,
      values: [...state.channels].map(([raw, c]) => {
        const value = clean(c, state.last?.values[raw] ?? null, false)
        return { name: c.name, quantity: c.quantity, value: Number.isNaN(value) ? null : value }
      }),
    },
  }
}
export const forgetLive = (id: string) => live.delete(id)
