import { createHash } from 'node:crypto'
import type { Attachment } from '#shared/api'
import { breathe } from '../../utils/breathe'
import type { Database, Queryable } from '../database'
import { NotFound, Refused } from '../errors'

type Row = Record<string, unknown>

/** What a picture belongs to. */
export type Owner = { fanId: string } | { jobId: string }
const ids = (owner: Owner): [string | null, string | null] =>
  'fanId' in owner ? [owner.fanId, null] : [null, owner.jobId]

const ATTACHMENT = 'id, name, media_type, size'
const attachmentOf = (row: Row): Attachment => ({
  id: row.id as string,
  name: row.name as string,
  mediaType: row.media_type as Attachment['mediaType'],
  size: row.size as number,
})

/** Pictures and pages of an owner, without their bytes. */
export async function listAttachments(db: Queryable, owner: Owner): Promise<Attachment[]> {
  return (
    await db.query<Row>(
      `SELECT ${ATTACHMENT}
        FROM attachment
        WHERE (fan_id = $1 OR job_id = $2) AND whole AND deleted_at IS NULL
        ORDER BY created_at, id`,
      ids(owner),
    )
  ).map(attachmentOf)
}

/** Bytes of one part: about what the database stores within some milliseconds. As in migration 026. */
const PART_BYTES = 65_536

/** The same bytes in parts of that size. */
async function* inParts(bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): AsyncGenerator<Buffer> {
  let held: Uint8Array[] = []
  let size = 0
  for await (const piece of bytes) {
    held.push(piece)
    size += piece.length
    if (size < PART_BYTES) continue
    const all = Buffer.concat(held)
    let from = 0
    for (; all.length - from >= PART_BYTES; from += PART_BYTES) yield all.subarray(from, from + PART_BYTES)
    held = [all.subarray(from)]
    size = all.length - from
  }
  if (size) yield Buffer.concat(held)
}

/**
 * Stores a picture's bytes part by part, each by itself, so that nobody waits for all of them; it is not whole before the
 * last one. Begun anew, it is written over. Bytes go as base64: the database decodes them some ten times as fast as the
 * driver writes them out.
 */
export async function storePicture(
  db: Queryable,
  id: string,
  bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
): Promise<void> {
  const sum = createHash('sha256')
  let [seq, size] = [0, 0]
  for await (const part of inParts(bytes)) {
    sum.update(part)
    size += part.length
    await db.query(
      `INSERT INTO attachment_part (attachment_id, seq, bytes) VALUES ($1, $2, decode($3, 'base64'))
        ON CONFLICT (attachment_id, seq) DO UPDATE SET bytes = EXCLUDED.bytes, updated_at = now()`,
      [id, seq++, part.toString('base64')],
    )
    await breathe()
  }
  const stored = await db.query(
    `WITH behind AS (DELETE FROM attachment_part WHERE attachment_id = $1 AND seq >= $2)
      UPDATE attachment SET whole = true, size = $3, sha256 = $4, updated_at = now(), revision = revision + 1
      WHERE id = $1 RETURNING id`,
    [id, seq, size, sum.digest('hex')],
  )
  if (!stored.length) throw new NotFound('picture')
}

/**
 * Keeps a picture of a fan or a job. Sent again because its answer was lost on the way, it is kept once.
 * @throws NotFound when the owner is not there, Refused when something else has this id
 */
export async function addAttachment(
  db: Database,
  owner: Owner,
  id: string,
  name: string,
  mediaType: Attachment['mediaType'],
  bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
): Promise<Attachment> {
  const one = async () => {
    const [row] = await db.query<Row>(
      `SELECT ${ATTACHMENT}, whole FROM attachment WHERE id = $1 AND (fan_id = $2 OR job_id = $3)`,
      [id, ...ids(owner)],
    )
    return row
  }
  await db.transaction(async (tx) => {
    const there = await tx.query(
      'SELECT 1 FROM fan WHERE id = $1 UNION ALL SELECT 1 FROM job WHERE id = $2',
      ids(owner),
    )
    if (!there.length) throw new NotFound('fanId' in owner ? 'fan' : 'job')
    await tx.query(
      `INSERT INTO attachment (id, fan_id, job_id, name, media_type, whole) VALUES ($1, $2, $3, $4, $5, false)
      ON CONFLICT (id) DO NOTHING`,
      [id, ...ids(owner), name, mediaType],
    )
  })
  const begun = await one()
  if (!begun) throw new Refused('Something else has this id.')
  if (begun.whole) return attachmentOf(begun)
  try {
    await storePicture(db, id, bytes)
  } catch (error) {
    // what did not come to its end leaves nothing behind
    await db.query('DELETE FROM attachment WHERE id = $1 AND NOT whole', [id]).catch(() => {})
    throw error
  }
  return attachmentOf((await one())!)
}

/** @throws NotFound */
export async function readAttachment(
  db: Queryable,
  id: string,
): Promise<Attachment & { bytes: AsyncGenerator<Buffer> }> {
  const [row] = await db.query<Row>(
    `SELECT ${ATTACHMENT} FROM attachment WHERE id = $1 AND whole AND deleted_at IS NULL`,
    [id],
  )
  if (!row) throw new NotFound('picture')
  return { ...attachmentOf(row), bytes: pictureParts(db, id) }
}

/** The bytes of a picture, part by part. */
export async function* pictureParts(db: Queryable, id: string): AsyncGenerator<Buffer> {
  for (let seq = 0; ; seq++) {
    const [part] = await db.query<{ bytes: string }>(
      "SELECT encode(bytes, 'base64') AS bytes FROM attachment_part WHERE attachment_id = $1 AND seq = $2",
      [id, seq],
    )
    if (!part) return
    yield Buffer.from(part.bytes, 'base64')
    await breathe()
  }
}

/** Takes away what an upload that broke off with its server left behind. */
export const dropHalfPictures = (db: Queryable) =>
  db.query("DELETE FROM attachment WHERE NOT whole AND updated_at < now() - interval '1 day'")

/** Puts a picture archived, or brings it back. @throws NotFound */
export async function archiveAttachment(db: Queryable, id: string, archived: boolean): Promise<void> {
  const rows = await db.query(
    `UPDATE attachment
      SET deleted_at = CASE WHEN $2::boolean THEN now() END, updated_at = now(), revision = revision + 1
      WHERE id = $1 AND (deleted_at IS NULL) = $2::boolean
      RETURNING id`,
    [id, archived],
  )
  if (!rows.length) throw new NotFound('picture')
}
