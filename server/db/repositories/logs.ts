import type { Channel } from '#core/measure'
import type { LogSummary } from '#shared/api'
import type { Block } from '#shared/log-blocks'
import type { NewLog } from '#shared/schemas/log'
import type { Boot } from '../../devices/bookkeeping'
import type { Database, Queryable } from '../database'
import { NotFound, Refused } from '../errors'

type Row = Record<string, unknown>

const SUMMARY = `SELECT l.id, l.job_id, l.instrument_id, l.name, l.origin, l.started_at, l.open, l.remarks, l.whole,
  (SELECT coalesce(sum(rows), 0)::float8 FROM log_block b WHERE b.log_id = l.id) AS rows,
  (SELECT coalesce(jsonb_agg(jsonb_build_object('name', c.name, 'quantity', c.quantity) ORDER BY c.position), '[]')
    FROM log_channel c WHERE c.log_id = l.id) AS channels,
  (SELECT coalesce(sum(lost), 0)::float8 FROM log_boot b WHERE b.log_id = l.id) AS lost,
  (SELECT coalesce(sum(repeated), 0)::float8 FROM log_boot b WHERE b.log_id = l.id) AS repeated,
  (SELECT coalesce(sum(late), 0)::float8 FROM log_boot b WHERE b.log_id = l.id) AS late,
  (SELECT coalesce(sum(clock_jumps), 0)::float8 FROM log_boot b WHERE b.log_id = l.id) AS clock_jumps,
  (SELECT count(*)::int FROM log_boot b WHERE b.log_id = l.id) AS boots
  FROM log l`
const summaryOf = (r: Row): LogSummary => ({
  id: r.id as string,
  jobId: r.job_id as string,
  instrumentId: r.instrument_id as string | null,
  name: r.name as string,
  origin: r.origin as LogSummary['origin'],
  startedAt: (r.started_at as Date).toISOString(),
  open: r.open as boolean,
  remarks: r.remarks as string,
  rows: r.rows as number,
  channels: r.channels as Channel[],
  lost: r.lost as number,
  repeated: r.repeated as number,
  clockJumps: r.clock_jumps as number,
  boots: r.boots as number,
  late: r.late as number,
  whole: r.whole as boolean,
})

/** Logs of a job, newest first, without their samples. */
export async function listLogs(db: Queryable, jobId: string): Promise<LogSummary[]> {
  return (
    await db.query<Row>(
      `${SUMMARY} WHERE l.job_id = $1 AND l.deleted_at IS NULL ORDER BY l.started_at DESC, l.id`,
      [jobId],
    )
  ).map(summaryOf)
}
/** @throws NotFound */
export async function getLog(db: Queryable, id: string): Promise<LogSummary> {
  const [row] = await db.query<Row>(`${SUMMARY} WHERE l.id = $1 AND l.deleted_at IS NULL`, [id])
  if (!row) throw new NotFound('log')
  return summaryOf(row)
}

export async function addChannels(
  tx: Queryable,
  logId: string,
  channels: readonly Channel[],
  from = 0,
): Promise<void> {
  for (const [i, c] of channels.entries())
    await tx.query('INSERT INTO log_channel (log_id, position, name, quantity) VALUES ($1, $2, $3, $4)', [
      logId,
      from + i,
      c.name,
      c.quantity,
    ])
}

/**
 * A new log. One that is recorded is open; an instrument writes to one log at a time.
 * @throws NotFound (job, instrument), Refused (the instrument records already)
 */
export async function createLog(db: Database, jobId: string, log: NewLog): Promise<LogSummary> {
  return db.transaction(async (tx) => {
    if (!(await tx.query('SELECT 1 FROM job WHERE id = $1 AND deleted_at IS NULL', [jobId])).length)
      throw new NotFound('job')
    if (log.instrumentId !== null) {
      if (
        !(await tx.query('SELECT 1 FROM instrument WHERE id = $1 AND deleted_at IS NULL', [log.instrumentId]))
          .length
      )
        throw new NotFound('instrument')
      const [busy] = await tx.query<{ name: string }>(
        'SELECT name FROM log WHERE instrument_id = $1 AND open AND deleted_at IS NULL',
        [log.instrumentId],
      )
      if (busy && log.origin === 'recorded')
        throw new Refused(`This instrument records “${busy.name}” already: stop that first.`, 'instrumentId')
    }
    await tx.query(
      `INSERT INTO log (id, job_id, instrument_id, name, origin, started_at, open, remarks, whole)
        VALUES ($1, $2, $3, $4, $5, $6, $7, $8, NOT $9)`,
      [
        log.id,
        jobId,
        log.instrumentId,
        log.name,
        log.origin,
        log.startedAt,
        log.origin === 'recorded',
        log.remarks,
        // until its last row is there
        log.origin === 'imported',
      ],
    )
    await addChannels(tx, log.id, log.channels)
    return getLog(tx, log.id)
  })
}

/**
 * Stores a block; sent again it does no harm. Bytes go as base64: the database decodes them some ten times as fast as the
 * driver writes them out.
 * @throws Refused where another block has its number
 */
export async function putBlock(
  tx: Queryable,
  logId: string,
  { seq, rows, channels, data }: Block,
): Promise<void> {
  const bytes = Buffer.from(data.buffer, data.byteOffset, data.byteLength).toString('base64')
  const written = await tx.query(
    `INSERT INTO log_block (log_id, seq, rows, channels, data)
      VALUES ($1, $2, $3, $4, decode($5, 'base64'))
      ON CONFLICT (log_id, seq) DO NOTHING
      RETURNING seq`,
    [logId, seq, rows, channels, bytes],
  )
  if (written.length) return
  const same = await tx.query(
    `SELECT 1 FROM log_block WHERE log_id = $1 AND seq = $2 AND data = decode($3, 'base64')`,
    [logId, seq, bytes],
  )
  if (!same.length) throw new Refused('Another part of this log has this number.', 'seq')
}
/** How far a start of a board has been written. `held` is a row that waits for the next one. */
export async function putBoot(
  tx: Queryable,
  logId: string,
  boot: string,
  b: Omit<Boot, 'held'> & { held?: Boot['held'] },
): Promise<void> {
  await tx.query(
    `INSERT INTO log_boot (log_id, boot, last_seq, last_ms, offset_s, lost, repeated, late, clock_jumps, gaps, held)
      VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10::jsonb, $11::jsonb)
      ON CONFLICT (log_id, boot) DO UPDATE SET last_seq = EXCLUDED.last_seq, last_ms = EXCLUDED.last_ms,
      offset_s = EXCLUDED.offset_s, lost = EXCLUDED.lost, repeated = EXCLUDED.repeated, late = EXCLUDED.late,
      clock_jumps = EXCLUDED.clock_jumps, gaps = EXCLUDED.gaps, held = EXCLUDED.held, updated_at = now()`,
    [
      logId,
      boot,
      b.lastSeq,
      b.lastMs,
      b.offsetS,
      b.lost,
      b.repeated,
      b.late,
      b.clockJumps,
      JSON.stringify(b.gaps),
      b.held ? JSON.stringify(b.held) : null,
    ],
  )
}
/** The last row of an import is there. @throws Refused where some are missing, NotFound */
export async function finishLog(db: Database, id: string, rows: number): Promise<void> {
  await db.transaction(async (tx) => {
    const log = await getLog(tx, id)
    if (log.rows !== rows) throw new Refused(`${log.rows} of ${rows} rows have arrived.`, 'rows')
    await tx.query('UPDATE log SET whole = true, updated_at = now(), revision = revision + 1 WHERE id = $1', [
      id,
    ])
  })
}
/** A part of the blocks behind a number, about as many bytes as asked for. @returns also whether more follow */
export async function readLogBlocks(
  db: Queryable,
  logId: string,
  after: number,
  bytes: number,
): Promise<{ blocks: Block[]; more: boolean }> {
  const rows = await db.query<Row>(
    `SELECT seq::float8 AS seq, rows, channels, encode(data, 'base64') AS data
      FROM (SELECT *, sum(octet_length(data)) OVER (ORDER BY seq) - octet_length(data) AS before
      FROM log_block
      WHERE log_id = $1 AND seq > $2) b
      WHERE before < $3
      ORDER BY seq`,
    [logId, after, bytes],
  )
  const last = rows.at(-1)?.seq as number | undefined
  const more =
    last !== undefined &&
    (await db.query('SELECT 1 FROM log_block WHERE log_id = $1 AND seq > $2 LIMIT 1', [logId, last])).length > 0
  return {
    blocks: rows.map((r) => ({
      seq: r.seq as number,
      rows: r.rows as number,
      channels: r.channels as number,
      data: Buffer.from(r.data as string, 'base64'),
    })),
    more,
  }
}

/** Closes, renames, puts aside or brings back. @throws NotFound */
async function changed(rows: Promise<unknown[]>): Promise<void> {
  if (!(await rows).length) throw new NotFound('log')
}
export const closeLog = (db: Queryable, id: string) =>
  changed(
    db.query(
      'UPDATE log SET open = false, updated_at = now(), revision = revision + 1 WHERE id = $1 AND deleted_at IS NULL RETURNING id',
      [id],
    ),
  )
export const renameLog = (db: Queryable, id: string, name: string) =>
  changed(
    db.query(
      'UPDATE log SET name = $2, updated_at = now(), revision = revision + 1 WHERE id = $1 AND deleted_at IS NULL RETURNING id',
      [id, name],
    ),
  )
export const archiveLog = (db: Queryable, id: string) =>
  changed(
    db.query(
      `UPDATE log
        SET deleted_at = now(), open = false, updated_at = now(), revision = revision + 1
        WHERE id = $1 AND deleted_at IS NULL
        RETURNING id`,
      [id],
    ),
  )
export const restoreLog = (db: Queryable, id: string) =>
  changed(
    db.query(
      'UPDATE log SET deleted_at = NULL, updated_at = now(), revision = revision + 1 WHERE id = $1 AND deleted_at IS NOT NULL RETURNING id',
      [id],
    ),
  )
/** An import that was given up: its blocks go with it. */
export const dropLog = (db: Queryable, id: string) =>
  changed(db.query("DELETE FROM log WHERE id = $1 AND origin = 'imported' RETURNING id", [id]))
