import type { Changes, FanChanges } from '#shared/api'
import type { Database, Queryable } from '../database'
import { fansChangedSince } from './fans'

/** A mark that moves with every change of a table, whoever made it. */
const MARK = `count(*) FILTER (WHERE deleted_at IS NULL) || ' ' || coalesce(sum(revision), 0) || ' ' || coalesce(max(updated_at), 'epoch')`
const CHANGES = `SELECT (SELECT ${MARK} FROM job) AS bench, (SELECT ${MARK} FROM fan) AS shelf,
  (SELECT ${MARK} FROM stock_part) AS parts, now() AS at,
  (SELECT revision FROM job WHERE id = $1 AND deleted_at IS NULL) AS revision`

/** How the workshop stands, in marks: what differs from the last time was changed by somebody. */
export async function changesOf(db: Database, jobId: string): Promise<Changes> {
  const [row] = await db.query<Omit<Changes, 'at'> & { at: Date }>(CHANGES, [jobId])
  return { ...row!, at: row!.at.toISOString() }
}

/** Most fans told one by one: of more the whole shelf is read again. */
const MOST = 500
/** Work that was begun before a moment may be written after it, s. */
const LATE_S = 60

/** What happened to the shelf since a moment. */
export async function shelfChanges(db: Queryable, since: string): Promise<FanChanges> {
  const from = new Date(Date.parse(since) - 1000 * LATE_S).toISOString()
  const fans = await fansChangedSince(db, from, MOST + 1)
  if (fans.length > MOST) return { all: true, fans: [], gone: [] }
  return {
    all: false,
    fans: fans.filter((f) => !f.gone).map(({ fan, revision }) => ({ fan, revision })),
    gone: fans.filter((f) => f.gone).map((f) => f.fan.id),
  }
}
