import type { Attachment } from '#shared/api'
import type { Database, Queryable } from '../database'
import { NotFound, Refused } from '../errors'

type Row = Record<string, unknown>

/** What a picture belongs to. */
export type Owner = { fanId: string } | { jobId: string }
const ids = (owner: Owner): [string | null, string | null] =>
  'fanId' in owner ? [owner.fanId, null] : [null, owner.jobId]

const ATTACHMENT = 'id, name, media_type, length(bytes) AS size'
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
      `SELECT ${ATTACHMENT} FROM attachment WHERE (fan_id = $1 OR job_id = $2) AND deleted_at IS NULL ORDER BY created_at, id`,
      ids(owner),
    )
  ).map(attachmentOf)
}

/** @throws NotFound when the owner is not there */
export async function addAttachment(
  db: Database,
  owner: Owner,
  id: string,
  name: string,
  mediaType: Attachment['mediaType'],
  bytes: Uint8Array,
): Promise<Attachment> {
  return db.transaction(async (tx) => {
    const there = await tx.query(
      'SELECT 1 FROM fan WHERE id = $1 UNION ALL SELECT 1 FROM job WHERE id = $2',
      ids(owner),
    )
    if (!there.length) throw new NotFound('fanId' in owner ? 'fan' : 'job')
    const [row] = await tx.query<Row>(
      `INSERT INTO attachment (id, fan_id, job_id, name, media_type, bytes) VALUES ($1, $2, $3, $4, $5, $6)
      ON CONFLICT (id) DO NOTHING RETURNING ${ATTACHMENT}`,
      [id, ...ids(owner), name, mediaType, bytes],
    )
    if (row) return attachmentOf(row)
    // sent again because its answer was lost on the way: it is kept once
    const [kept] = await tx.query<Row>(
      `SELECT ${ATTACHMENT} FROM attachment WHERE id = $1 AND (fan_id = $2 OR job_id = $3)`,
      [id, ...ids(owner)],
    )
    if (!kept) throw new Refused('Something else has this id.')
    return attachmentOf(kept)
  })
}

/** @throws NotFound */
export async function readAttachment(
  db: Queryable,
  id: string,
): Promise<{ name: string; mediaType: string; bytes: Uint8Array }> {
  const [row] = await db.query<Row>(
    'SELECT name, media_type, bytes FROM attachment WHERE id = $1 AND deleted_at IS NULL',
    [id],
  )
  if (!row) throw new NotFound('picture')
  return { name: row.name as string, mediaType: row.media_type as string, bytes: row.bytes as Uint8Array }
}

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
