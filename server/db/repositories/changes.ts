import type { Changes, FanChanges } from '#shared/api'
import type { Database } from '../database'
import { fansChangedSince } from './fans'

/** A mark that moves with every change of a table, whoever made it. */
const MARK = `count(*) FILTER (WHERE deleted_at IS NULL) || ' ' || coalesce(sum(revision), 0) || ' ' || coalesce(max(updated_at), 'epoch')`
const CHANGES = `SELECT (SELECT ${MARK} FROM job) AS bench, (SELECT ${MARK} FROM fan) AS shelf,
  (SELECT ${MARK} FROM stock_part) AS parts, pg_snapshot_xmin(pg_current_snapshot())::text AS at,
  (SELECT revision FROM job WHERE id = $1 AND deleted_at IS NULL) AS revision`

/** How the workshop stands, in marks: what differs from the last time was changed by somebody. */
export async function changesOf(db: Database, jobId: string): Promise<Changes> {
  const [row] = await db.query<Changes & Record<string, unknown>>(CHANGES, [jobId])
  return row!
}

/** Most fans told one by one: of more the whole shelf is read again. */
const MOST = 500

/** What happened to the shelf since it was looked at. @param since `at` of that look */
export async function shelfChanges(db: Database, since: string): Promise<FanChanges> {
  const fans = await fansChangedSince(db, since, MOST + 1)
  // a mark of another database than this one says nothing here
  const foreign = BigInt(since) > BigInt((await changesOf(db, '')).at)
  if (foreign || fans.length > MOST) return { all: true, fans: [], gone: [] }
  return {
    all: false,
    fans: fans.filter((f) => !f.gone).map(({ fan, revision }) => ({ fan, revision })),
    gone: fans.filter((f) => f.gone).map((f) => f.fan.id),
  }
}
