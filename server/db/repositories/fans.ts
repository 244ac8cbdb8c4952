import { fanSchema, type Fan, type ShelfShown } from '#core/document'
import { shelfShown } from '#core/selection'
import type { FanName, FanPage, Imported, ShelfFacets, StoredFan, Undone } from '#shared/api'
import type { FanQuery } from '#shared/schemas/fan'
import type { Database, Queryable } from '../database'
import { Conflict, NotFound, Refused } from '../errors'
import { FAN } from '../owners'
import { ownColumns, ownFields, ownRow, partStore } from '../parts'

const PARTS = partStore(FAN)
const COLUMNS = ownColumns(FAN)
const SELECT_FANS = `SELECT ${ownFields(FAN)}, o.revision, o.deleted_at,
  ${PARTS.select}
  FROM fan o`
/** Writes fans, new and known ones; a known one moves its revision and comes back when it was archived. */
const UPSERT_FANS = `INSERT INTO fan (${COLUMNS}) SELECT ${COLUMNS} FROM jsonb_populate_recordset(NULL::fan, $1::jsonb)
  ON CONFLICT (id) DO UPDATE SET (${COLUMNS}) = ROW (${COLUMNS.split(', ')
    .map((c) => `EXCLUDED.${c}`)
    .join(', ')}), revision = fan.revision + 1, updated_at = now(), deleted_at = NULL
  RETURNING id, revision`
const AMONG = 'o.id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))'

const held = (fan: Fan) => ({ id: fan.id, document: fan })
/**
 * Writes fans with all their parts: a few statements for any number of them.
 * @param before those of them that are stored, as they are
 * @returns where that leaves each of them
 */
async function writeFans(
  tx: Queryable,
  before: readonly Fan[],
  fans: readonly Fan[],
): Promise<Record<string, number>> {
  if (!fans.length) return {}
  const written = await tx.query<{ id: string; revision: number }>(UPSERT_FANS, [
    `[${fans.map((f) => ownRow(FAN, f)).join(',')}]`,
  ])
  await PARTS.write(tx, before.map(held), fans.map(held))
  return Object.fromEntries(written.map((r) => [r.id, r.revision]))
}

interface FanRow extends Record<string, unknown> {
  revision: number
  deleted_at: Date | null
}
const storedFan = ({ revision, ...row }: FanRow): StoredFan => ({ fan: fanSchema.parse(row), revision })

/**
 * Fans of a query as SQL: $1 words, $2 frame, $3 voltage, $4 only owned. Empty and null do not narrow.
 */
const WHERE = `deleted_at IS NULL AND ($1::text = '' OR strpos(lower(maker || ' ' || model || ' ' || kind || ' ' || notes), $1::text) > 0)
  AND ($2::double precision IS NULL OR frame_m = $2) AND ($3::double precision IS NULL OR rated_v = $3)
  AND ($4::boolean IS NOT TRUE OR owned)`
const COUNT_FANS = `SELECT count(*)::integer AS n FROM fan WHERE ${WHERE}`
/** Whole orders as constants: an order cannot be a parameter. */
const ORDERS: Record<FanQuery['sort'], string> = {
  frame: 'frame_m, maker, model, id',
  name: 'maker, model, id',
  flow: 'max_flow_m3s DESC NULLS LAST, id',
  pressure: 'max_pressure_pa DESC NULLS LAST, id',
  level: 'noise_db_a NULLS LAST, id',
  price: 'price NULLS LAST, id',
}
const PAGES = Object.fromEntries(
  Object.entries(ORDERS).map(([key, order]) => [
    key,
    `${SELECT_FANS} WHERE ${WHERE} ORDER BY ${order} LIMIT $5 OFFSET $6`,
  ]),
) as Record<FanQuery['sort'], string>

/** One page of the shelf and how many fans the query has in all. Fans that were put aside are kept out of the list but not out of plans. */
export async function pageOfFans(db: Queryable, query: FanQuery): Promise<FanPage> {
  const narrow = [query.text.trim().toLowerCase(), query.frameM, query.ratedV, query.owned]
  const [counted] = await db.query<{ n: number }>(COUNT_FANS, narrow)
  const rows = await db.query<FanRow>(PAGES[query.sort], [...narrow, query.limit, query.offset])
  return { fans: rows.map(storedFan), total: counted!.n }
}

/** What the fans of the shelf are called. */
export const fanNames = (db: Queryable): Promise<FanName[]> =>
  db.query<FanName>(
    `SELECT id, maker, model, frame_m AS "frameM" FROM fan WHERE deleted_at IS NULL ORDER BY ${ORDERS.frame}`,
  )
/** Some fans, archived ones too: a plan may still speak of them. */
export const someFans = async (db: Queryable, ids: readonly string[]): Promise<StoredFan[]> =>
  (await db.query<FanRow>(`${SELECT_FANS} WHERE ${AMONG}`, [JSON.stringify(ids)])).map(storedFan)
/** Which fans were touched since a look at the shelf, archived ones too, and how they stand. */
export const fansTouchedSince = (
  db: Queryable,
  since: string,
): Promise<{ id: string; revision: number; gone: boolean }[]> =>
  db.query(
    'SELECT id, revision, deleted_at IS NOT NULL AS gone FROM fan WHERE changed_in >= $1::xid8 ORDER BY id',
    [since],
  )

/** Frames and voltages that are on the shelf, and how many fans there are. */
export async function shelfFacets(db: Queryable): Promise<ShelfFacets> {
  const frames = await db.query<{ v: number }>(
    'SELECT DISTINCT frame_m AS v FROM fan WHERE deleted_at IS NULL ORDER BY 1',
  )
  const volts = await db.query<{ v: number }>(
    'SELECT DISTINCT rated_v AS v FROM fan WHERE deleted_at IS NULL ORDER BY 1',
  )
  const [counted] = await db.query<{ n: number }>(
    'SELECT count(*)::integer AS n FROM fan WHERE deleted_at IS NULL',
  )
  return { frames: frames.map((r) => r.v), volts: volts.map((r) => r.v), total: counted!.n }
}

/** Every fan of the shelf that was tested. */
export async function testedFans(db: Queryable): Promise<Fan[]> {
  const rows = await db.query<FanRow>(
    `${SELECT_FANS} WHERE o.deleted_at IS NULL AND o.id IN (SELECT fan_id FROM fan_test) ORDER BY o.id`,
  )
  return rows.map((row) => storedFan(row).fan)
}

/** What the tests of the whole shelf say about claims. */
export const shownByShelf = async (db: Queryable): Promise<ShelfShown> => shelfShown(await testedFans(db))

/** One fan, also a deleted one: a plan may still speak of it. @throws NotFound */
export async function getFan(db: Queryable, id: string): Promise<StoredFan> {
  const [row] = await db.query<FanRow>(`${SELECT_FANS} WHERE o.id = $1`, [id])
  if (!row) throw new NotFound('fan')
  return storedFan(row)
}

/** @throws Refused when the id is taken */
export async function createFan(db: Database, fan: Fan): Promise<StoredFan> {
  return db.transaction(async (tx) => {
    if ((await tx.query('SELECT 1 FROM fan WHERE id = $1', [fan.id])).length)
      throw new Refused('A fan with this id exists already.', 'id')
    await writeFans(tx, [], [fan])
    return getFan(tx, fan.id)
  })
}

/** @throws NotFound, Conflict */
export async function saveFan(db: Database, fan: Fan, revision: number): Promise<StoredFan> {
  return db.transaction(async (tx) => {
    const [row] = await tx.query<FanRow>(
      `${SELECT_FANS} WHERE o.id = $1 AND o.deleted_at IS NULL FOR UPDATE OF o`,
      [fan.id],
    )
    if (!row) throw new NotFound('fan')
    const stored = storedFan(row)
    if (stored.revision !== revision) throw new Conflict(stored.revision)
    await writeFans(tx, [stored.fan], [fan])
    return getFan(tx, fan.id)
  })
}

/** Those of some fans that are stored, archived ones too, locked until the end of the transaction. */
async function storedAmong(tx: Queryable, fans: readonly Pick<Fan, 'id'>[]): Promise<FanRow[]> {
  const ids = [JSON.stringify(fans.map((f) => f.id))]
  // locked first, in one order, then read: a statement that waits sees the parts as they were before its wait
  await tx.query(`SELECT 1 FROM fan o WHERE ${AMONG} ORDER BY o.id FOR UPDATE`, ids)
  return tx.query<FanRow>(`${SELECT_FANS} WHERE ${AMONG}`, ids)
}

/** Writes fans whole, new and known ones, in one transaction: all of them or none. A fan that was put aside comes back. */
export async function importFans(db: Database, fans: readonly Fan[]): Promise<Imported> {
  return db.transaction(async (tx) => {
    const rows = await storedAmong(tx, fans)
    const before = rows.filter((r) => !r.deleted_at).map((r) => storedFan(r).fan)
    const known = new Set(before.map((f) => f.id))
    const revisions = await writeFans(
      tx,
      rows.map((r) => storedFan(r).fan),
      fans,
    )
    return { created: fans.filter((f) => !known.has(f.id)).map((f) => f.id), before, revisions }
  })
}

/** Puts fans that a plan from elsewhere brings on the shelf, as far as they are not known; those that are stay as they are. */
export async function addUnknownFans(tx: Queryable, fans: readonly Fan[]): Promise<void> {
  const known = new Set((await storedAmong(tx, fans)).map((r) => storedFan(r).fan.id))
  const unknown = fans.filter((f) => !known.has(f.id))
  if (unknown.length) await writeFans(tx, [], unknown)
}

/**
 * Takes an import back: what it made is archived, what it changed is written as it was. What somebody has changed since is
 * left as it is.
 */
export async function undoImport(db: Database, { created, before, revisions }: Imported): Promise<Undone> {
  return db.transaction(async (tx) => {
    const stored = await storedAmong(tx, [...created.map((id) => ({ id })), ...before])
    const untouched = (r: FanRow) => revisions[String(r.id)] === r.revision
    const back = stored.filter(untouched)
    const ids = new Set(back.map((r) => String(r.id)))
    await tx.query(
      `UPDATE fan
        SET deleted_at = now(), updated_at = now()
        WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb))) AND deleted_at IS NULL`,
      [JSON.stringify(created.filter((id) => ids.has(id)))],
    )
    const changed = back.filter((r) => before.some((f) => f.id === r.id))
    await writeFans(
      tx,
      changed.map((r) => storedFan(r).fan),
      before.filter((f) => ids.has(f.id)),
    )
    const left = stored.filter((r) => !untouched(r)).map((r) => storedFan(r).fan.model)
    return { undone: back.length, left }
  })
}

/** Revisions of fans, archived ones too. */
export const fanRevisions = async (db: Queryable, ids: readonly string[]): Promise<Map<string, number>> =>
  new Map(
    (
      await db.query<{ id: string; revision: number }>(
        'SELECT id, revision FROM fan WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))',
        [JSON.stringify(ids)],
      )
    ).map((r) => [r.id, r.revision]),
  )

/** Fans that were changed since a look at the shelf, archived ones too. */
export async function fansChangedSince(
  db: Queryable,
  since: string,
  most: number,
): Promise<(StoredFan & { gone: boolean })[]> {
  const rows = await db.query<FanRow>(`${SELECT_FANS} WHERE o.changed_in >= $1::xid8 ORDER BY o.id LIMIT $2`, [
    since,
    most,
  ])
  return rows.map((row) => ({ ...storedFan(row), gone: row.deleted_at !== null }))
}

/** Ids of every fan, archived ones too, in order. */
export const fanIds = async (db: Queryable): Promise<string[]> =>
  (await db.query<{ id: string }>('SELECT id FROM fan ORDER BY id')).map((r) => r.id)
/** Some fans as they are kept, archived ones too, in the order of their ids. */
export const keptFans = async (
  db: Queryable,
  ids: readonly string[],
): Promise<{ fan: Fan; archived: boolean }[]> =>
  (await db.query<FanRow>(`${SELECT_FANS} WHERE ${AMONG} ORDER BY o.id`, [JSON.stringify(ids)])).map((row) => ({
    fan: storedFan(row).fan,
    archived: row.deleted_at !== null,
  }))
/** Writes fans as they were kept, over those of their ids. */
export async function putFans(tx: Queryable, kept: readonly { fan: Fan; archived: boolean }[]): Promise<void> {
  const fans = kept.map((k) => k.fan)
  const stored = await storedAmong(tx, fans)
  await writeFans(
    tx,
    stored.map((r) => storedFan(r).fan),
    fans,
  )
  await tx.query(
    'UPDATE fan SET deleted_at = now() WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))',
    [JSON.stringify(kept.filter((k) => k.archived).map((k) => k.fan.id))],
  )
}

/** Archives a fan; `restoreFan` brings it back. @throws NotFound */
export async function deleteFan(db: Database, id: string): Promise<void> {
  const rows = await db.query(
    'UPDATE fan SET deleted_at = now(), updated_at = now() WHERE id = $1 AND deleted_at IS NULL RETURNING id',
    [id],
  )
  if (!rows.length) throw new NotFound('fan')
}

/** @throws NotFound */
export async function restoreFan(db: Database, id: string): Promise<void> {
  const rows = await db.query(
    'UPDATE fan SET deleted_at = NULL, updated_at = now() WHERE id = $1 AND deleted_at IS NOT NULL RETURNING id',
    [id],
  )
  if (!rows.length) throw new NotFound('fan')
}

/** The fans a plan speaks of, deleted ones included. */
export async function fansOfPlan(db: Queryable, ids: readonly (string | null | undefined)[]): Promise<Fan[]> {
  const wanted = [...new Set(ids)].filter((id) => typeof id === 'string')
  const rows = await db.query<FanRow>(`${SELECT_FANS} WHERE ${AMONG} ORDER BY o.id`, [JSON.stringify(wanted)])
  return rows.map((row) => storedFan(row).fan)
}
