import {
  channelOf,
  isSentinel,
  MAX_CHANNELS,
  readBench,
  refusedOutside,
  TACH,
  type BenchMessage,
  type BenchRow,
  type Channel,
  type NamedChannel,
} from '#core/measure'
import type { InstrumentState, Receipt } from '#shared/api'
import { BLOCK_ROWS, encodeBlock } from '#shared/log-blocks'
import type { Database, Queryable } from '../db/database'
import { NotFound, Refused } from '../db/errors'
import type { Instrument } from '../db/repositories/instruments'
import { addChannels, putBlock, putBoot } from '../db/repositories/logs'
import { AFTER_JUMP_S, book, newBoot, type Boot } from './bookkeeping'

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
      if (!state.channels.has(name) && state.channels.size < MAX_CHANNELS)
        state.channels.set(name, channelOf(name))
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

/** What a message needs to know of its log ($1) and its board's start ($2), at one go. */
const STANDING = `SELECT
  (SELECT coalesce(jsonb_agg(jsonb_build_object('name', name, 'quantity', quantity) ORDER BY position), '[]')
    FROM log_channel WHERE log_id = $1) AS channels,
  (SELECT coalesce(max(seq), -1)::float8 FROM log_block WHERE log_id = $1) AS block,
  (SELECT max(last_ms / 1000 + offset_s)::float8 FROM log_boot WHERE log_id = $1) AS ended,
  (SELECT jsonb_build_object('lastSeq', last_seq, 'lastMs', last_ms, 'offsetS', offset_s, 'lost', lost,
    'repeated', repeated, 'late', late, 'clockJumps', clock_jumps, 'gaps', gaps, 'held', held)
    FROM log_boot WHERE log_id = $1 AND boot = $2) AS boot`
interface Standing extends Record<string, unknown> {
  channels: Channel[]
  block: number
  /** where its last board ended, s */
  ended: number | null
  boot: Boot | null
}
const keyOf = (c: Channel) => `${c.name}|${c.quantity}`
type SentChannel = NamedChannel & { raw: string | null }
/**
 * Channels of a log, each with the name it is sent under; those that are new are added, as long as there is room: a log
 * has so many over its whole life.
 * @returns also the names that found none
 */
async function channelsFor(
  tx: Queryable,
  logId: string,
  have: readonly Channel[],
  sent: Iterable<string>,
): Promise<{ channels: SentChannel[]; full: string[] }> {
  const known = new Set(have.map(keyOf))
  const wanted = new Map<string, SentChannel>()
  const full: string[] = []
  for (const raw of sent) {
    const channel = { ...channelOf(raw), raw }
    const key = keyOf(channel)
    if (known.has(key) || known.size < MAX_CHANNELS) wanted.set(key, channel)
    else full.push(raw)
    if (known.size < MAX_CHANNELS) known.add(key)
  }
  const fresh = [...wanted.values()].filter((c) => !have.some((h) => keyOf(h) === keyOf(c)))
  await addChannels(tx, logId, fresh, have.length)
  const old = have.map((h) => wanted.get(keyOf(h)) ?? { ...h, factor: 1, offset: 0, raw: null })
  return { channels: [...old, ...fresh], full }
}

/** What was done with the rows of a message. */
type Stored = Omit<Receipt, 'refused' | 'log'> & { told: string[] }

async function store(tx: Queryable, logId: string, { boot, rows }: BenchMessage, now: number): Promise<Stored> {
  // one message at a time: two of a board must not be told the same place
  const [log] = await tx.query<{ started_at: Date; open: boolean }>(
    'SELECT started_at, open FROM log WHERE id = $1 AND deleted_at IS NULL FOR UPDATE',
    [logId],
  )
  if (!log?.open) throw new NotFound('log')
  const [standing] = await tx.query<Standing>(STANDING, [logId, boot])
  const { channels: have, block, ended, boot: known } = standing!
  const nowS = (now - log.started_at.getTime()) / 1000
  // a board that is heard for the first time begins now, and behind what is there
  const before = known ?? newBoot(rows[0]!, Math.max(ended ? ended + AFTER_JUMP_S : 0, nowS))
  const { boot: after, kept, repeated, late, stray } = book(before, rows.slice(0, BLOCK_ROWS))
  const told: string[] = []
  if (stray) told.push(`${stray} rows with a running number that leaps and that no other confirms`)
  if (rows.length > BLOCK_ROWS) told.push(`more than ${BLOCK_ROWS} rows in one message: send the others again`)
  if (kept.length) {
    const names = new Set(kept.flatMap((k) => Object.keys(k.row.values)))
    const { channels, full } = await channelsFor(tx, logId, have, names)
    if (full.length)
      told.push(`a log has at most ${MAX_CHANNELS} channels: ${full.slice(0, TOLD).join(', ')} not stored`)
    // late ones among them stand where they belong
    const placed = kept.toSorted((a, b) => a.t - b.t)
    const columns = channels.map((c) =>
      placed.map(({ row }, i) =>
        clean(c, c.raw === null ? null : (row.values[c.raw] ?? null), !known && i === 0),
      ),
    )
    await putBlock(tx, logId, {
      seq: block + 1,
      rows: placed.length,
      channels: channels.length,
      data: encodeBlock(
        placed.map((k) => k.t),
        columns,
      ),
    })
  }
  await putBoot(tx, logId, boot, after)
  return { accepted: kept.length, repeated, late, held: after.held ? 1 : 0, next: after.lastSeq + 1, told }
}

/** A message that waits to be written. */
interface Waiting {
  logId: string
  message: BenchMessage
  now: number
  done: (stored: Stored) => void
  failed: (error: unknown) => void
}
/** Messages written in one transaction at most. */
const TOGETHER = 100
const lines = new WeakMap<Database, { waiting: Waiting[]; writing: boolean }>()

/**
 * Writes what waits, as much as came meanwhile in one transaction: the disk is waited for once for all of it. Where one
 * cannot be written the others are, each on its own.
 */
async function writeWaiting(db: Database, line: { waiting: Waiting[]; writing: boolean }): Promise<void> {
  line.writing = true
  while (line.waiting.length) {
    const batch = line.waiting.splice(0, TOGETHER)
    const write = (those: readonly Waiting[]) =>
      db.transaction(async (tx) => {
        const results: Stored[] = []
        for (const w of those) results.push(await store(tx, w.logId, w.message, w.now))
        return results
      })
    try {
      const results = await write(batch)
      batch.forEach((w, i) => w.done(results[i]!))
    } catch (error) {
      if (batch.length === 1) batch[0]!.failed(error)
      else for (const w of batch) await write([w]).then(([result]) => w.done(result!), w.failed)
    }
  }
  line.writing = false
}
function storeSoon(db: Database, logId: string, message: BenchMessage, now: number): Promise<Stored> {
  const line = lines.get(db) ?? { waiting: [], writing: false }
  lines.set(db, line)
  return new Promise((done, failed) => {
    line.waiting.push({ logId, message, now, done, failed })
    if (!line.writing) void writeWaiting(db, line)
  })
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
  const { logId } = instrument
  if (!message.rows.length || logId === null) {
    // nothing is recorded: nothing needs to be kept for it
    const next = (message.rows.at(-1)?.seq ?? -1) + 1
    return { accepted: 0, repeated: 0, late: 0, held: 0, refused, log: logId, next }
  }
  const { told, ...stored } = await storeSoon(db, logId, message, now)
  state.lastRefusal = told[0] ?? state.lastRefusal
  return { ...stored, refused: [...refused, ...told.map((why) => ({ line: 0, why }))], log: logId }
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
