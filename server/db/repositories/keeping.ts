import {
  keptInstrumentSchema,
  type KeptBoot,
  type KeptInstrument,
  type KeptLog,
  type KeptPicture,
} from '#shared/schemas/backup'
import type { Queryable } from '../database'
import { storePicture } from './attachments'
import { putBoot } from './logs'

/** What a backup reads and writes beside plans, fans and parts: rows as they are, archived ones too. */

const isArchived = 'deleted_at IS NOT NULL AS archived'

export const keptSettings = (db: Queryable) =>
  db.query<{ key: string; value: unknown }>('SELECT key, value FROM setting ORDER BY key')
export const putSetting = (tx: Queryable, key: string, value: unknown) =>
  tx.query(
    `INSERT INTO setting AS t (key, value) VALUES ($1, $2::jsonb)
      ON CONFLICT (key) DO UPDATE SET value = EXCLUDED.value, revision = t.revision + 1, updated_at = now()`,
    [key, JSON.stringify(value)],
  )

export const keptInstruments = async (db: Queryable): Promise<KeptInstrument[]> =>
  (
    await db.query(
      `SELECT id, name, kind, token_hash AS "tokenHash", ${isArchived} FROM instrument ORDER BY id`,
    )
  ).map((row) => keptInstrumentSchema.parse(row))
export const putInstrument = (tx: Queryable, { id, name, kind, tokenHash, archived }: KeptInstrument) =>
  tx.query(
    `INSERT INTO instrument AS t (id, name, kind, token_hash, deleted_at)
      VALUES ($1, $2, $3, $4, CASE WHEN $5::boolean THEN now() END)
      ON CONFLICT (id) DO UPDATE SET name = EXCLUDED.name, kind = EXCLUDED.kind, token_hash = EXCLUDED.token_hash,
      deleted_at = EXCLUDED.deleted_at, revision = t.revision + 1, updated_at = now()`,
    [id, name, kind, tokenHash, archived],
  )

const LOG = `SELECT l.id, l.job_id AS "jobId", l.instrument_id AS "instrumentId", l.name, l.origin, l.started_at, l.remarks,
  l.whole, l.${isArchived},
  (SELECT coalesce(jsonb_agg(jsonb_build_object('name', c.name, 'quantity', c.quantity) ORDER BY c.position), '[]')
    FROM log_channel c WHERE c.log_id = l.id) AS channels,
  (SELECT coalesce(sum(rows), 0)::float8 FROM log_block b WHERE b.log_id = l.id) AS rows
  FROM log l`
const BOOTS = `SELECT boot, last_seq::float8 AS "lastSeq", last_ms AS "lastMs", offset_s AS "offsetS", lost::float8 AS lost,
  repeated::float8 AS repeated, late::float8 AS late, clock_jumps AS "clockJumps", gaps
  FROM log_boot WHERE log_id = $1 ORDER BY boot`
export type CountedLog = Omit<KeptLog, 'boots'> & { rows: number }
const countedLog = ({ started_at, ...row }: Record<string, unknown>): CountedLog => ({
  ...(row as unknown as CountedLog),
  startedAt: (started_at as Date).toISOString(),
})
export const keptLogs = async (db: Queryable): Promise<CountedLog[]> =>
  (await db.query(`${LOG} ORDER BY l.id`)).map(countedLog)
export const keptBoots = (db: Queryable, logId: string) =>
  db.query<KeptBoot & Record<string, unknown>>(BOOTS, [logId])

/** Writes a log without its rows; one of this id goes with all that it holds. */
export async function putLog(tx: Queryable, log: KeptLog): Promise<void> {
  await tx.query('DELETE FROM log WHERE id = $1', [log.id])
  await tx.query(
    `INSERT INTO log (id, job_id, instrument_id, name, origin, started_at, open, remarks, whole, deleted_at)
      VALUES ($1, $2, (SELECT id FROM instrument WHERE id = $3), $4, $5, $6, false, $7, $8, CASE WHEN $9::boolean THEN now() END)`,
    [
      log.id,
      log.jobId,
      log.instrumentId,
      log.name,
      log.origin,
      log.startedAt,
      log.remarks,
      log.whole,
      log.archived,
    ],
  )
  await tx.query(
    `INSERT INTO log_channel (log_id, position, name, quantity)
      SELECT $1, n - 1, c ->> 'name', c ->> 'quantity' FROM jsonb_array_elements($2::jsonb) WITH ORDINALITY AS x (c, n)`,
    [log.id, JSON.stringify(log.channels)],
  )
  for (const b of log.boots) await putBoot(tx, log.id, b.boot, b)
}

/** Says whether all rows of a log are there. */
export const wholeLog = (db: Queryable, id: string, whole: boolean) =>
  db.query('UPDATE log SET whole = $2, updated_at = now() WHERE id = $1', [id, whole])

/** Pictures of fans and jobs, without their bytes. */
export const keptPictures = (db: Queryable) =>
  db.query<KeptPicture & { size: number; sha256: string }>(
    `SELECT id, fan_id AS "fanId", job_id AS "jobId", name, media_type AS "mediaType", ${isArchived}, size, sha256
      FROM attachment WHERE whole ORDER BY id`,
  )
/** Writes a picture with its bytes, over the one of its id where there is one. */
export async function putPicture(
  db: Queryable,
  p: KeptPicture,
  bytes: AsyncIterable<Uint8Array>,
): Promise<void> {
  await db.query(
    `INSERT INTO attachment AS t (id, fan_id, job_id, name, media_type, whole, deleted_at)
      VALUES ($1, $2, $3, $4, $5, false, CASE WHEN $6::boolean THEN now() END)
      ON CONFLICT (id) DO UPDATE SET fan_id = EXCLUDED.fan_id, job_id = EXCLUDED.job_id, name = EXCLUDED.name,
      media_type = EXCLUDED.media_type, whole = false, deleted_at = EXCLUDED.deleted_at,
      revision = t.revision + 1, updated_at = now()`,
    [p.id, p.fanId, p.jobId, p.name, p.mediaType, p.archived],
  )
  await storePicture(db, p.id, bytes)
}
