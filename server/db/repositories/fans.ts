import { shelfShown } from '#core/selection'
import type { Fan, FanPoint, ShelfShown } from '#core/document'
import type { FanPage, ShelfFacets, StoredFan } from '#shared/api'
import { fanSchema, type FanQuery } from '#shared/schemas/fan'
import type { Database, Queryable } from '../database'
import { Conflict, NotFound, Refused } from '../errors'
import { fromRow, toRowJson } from '../rows'
import { fanTables, type FanChildKey } from './children'

type Row = Record<string, unknown>

const FAN_COLUMNS = `maker, model, kind, frame_m, thickness_m, thickness_measured_m, hole_spacing_m, rated_v, min_v, max_v, start_v, intercept_v, rated_a, rated_w, rated_rpm, max_flow_m3s, max_pressure_pa,
  also_flow_m3s, also_pressure_pa, noise_db_a, noise_distance_m, noise_sone, wires, connector, pwm_min_duty, pwm_start_duty, pwm_min_speed, blades, bearing, shaft_allowed, life_h, life_c, mass_kg, ip_solid, ip_water,
  min_air_c, max_air_c, price, price_on, owned, curve_basis, notes`
/** Writes fans, new and known ones; a known one moves its revision and comes back when it was put aside. */
const UPSERT_FANS = `INSERT INTO fan (id, ${FAN_COLUMNS}) SELECT id, ${FAN_COLUMNS} FROM jsonb_populate_recordset(NULL::fan, $1::jsonb)
  ON CONFLICT (id) DO UPDATE SET (${FAN_COLUMNS}) = ROW (${FAN_COLUMNS.split(',')
    .map((c) => `EXCLUDED.${c.trim()}`)
    .join(', ')}), revision = fan.revision + 1, updated_at = now(), deleted_at = NULL`

const ordered = <T extends object>(fan: Fan, list: readonly T[]) =>
  list.map((x, position) => ({ ...x, fanId: fan.id, position }))
/** The parts of fans as rows below them. */
const childRows = (fans: readonly Fan[]): Record<FanChildKey, object[]> => ({
  points: fans.flatMap((f) => ordered(f, f.points)),
  curves: fans.flatMap((f) =>
    ordered(
      f,
      f.curves.map(({ volts, basis }) => ({ volts, basis })),
    ),
  ),
  curvePoints: fans.flatMap((f) =>
    f.curves.flatMap((c, curve) => ordered(f, c.points).map((p) => ({ ...p, curve }))),
  ),
  sources: fans.flatMap((f) => f.sources.map((s) => ({ ...s, fanId: f.id }))),
  tests: fans.flatMap((f) => ordered(f, f.tests)),
})

/** Writes fans with all their parts, a few statements for any number of them. */
async function writeFans(tx: Queryable, fans: readonly Fan[]): Promise<void> {
  if (!fans.length) return
  await tx.query(UPSERT_FANS, [
    toRowJson(fans.map(({ points: _p, curves: _c, sources: _s, tests: _t, trusted: _r, ...row }) => row)),
  ])
  const ids = JSON.stringify(fans.map((f) => f.id))
  const rows = childRows(fans)
  for (const table of fanTables) {
    const json = toRowJson(rows[table.key])
    await tx.query(table.deleteMissing, [ids, json])
    if (rows[table.key].length) await tx.query(table.upsert, [ids, json])
  }
}

const pointOf = (row: Row): FanPoint => ({
  flowM3s: row.flow_m3s as number,
  pressurePa: row.pressure_pa as number,
})
const plain = (row: Row) => {
  const { fanId: _fan, ...rest } = fromRow(row)
  return rest
}

/** Rows of the fan table with their parts, in the same order. */
async function withParts(db: Queryable, rows: readonly Row[]): Promise<StoredFan[]> {
  if (!rows.length) return []
  const ids = JSON.stringify(rows.map((r) => r.id))
  const parts = new Map<FanChildKey, Map<unknown, Row[]>>()
  for (const table of fanTables) {
    const byFan = new Map<unknown, Row[]>()
    for (const row of await db.query<Row>(table.select, [ids])) {
      const list = byFan.get(row.fan_id)
      if (list) list.push(row)
      else byFan.set(row.fan_id, [row])
    }
    parts.set(table.key, byFan)
  }
  return rows.map((row) => {
    const of = (key: FanChildKey) => parts.get(key)!.get(row.id) ?? []
    const fan = fanSchema.parse({
      ...fromRow(row),
      points: of('points').map(pointOf),
      sources: of('sources').map(plain),
      tests: of('tests').map(plain),
      curves: of('curves').map((c) => ({
        ...plain(c),
        points: of('curvePoints')
          .filter((p) => p.curve === c.position)
          .map(pointOf),
      })),
    })
    return { fan, revision: row.revision as number }
  })
}

/**
 * Fans of a query as SQL: $1 words, $2 frame, $3 voltage, $4 only owned. Empty and null do not narrow.
 */
const WHERE = `deleted_at IS NULL AND ($1::text = '' OR strpos(lower(maker || ' ' || model || ' ' || kind || ' ' || notes), $1::text) > 0)
  AND ($2::double precision IS NULL OR frame_m = $2) AND ($3::double precision IS NULL OR rated_v = $3) AND ($4::boolean IS NOT TRUE OR owned)`
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
    `SELECT * FROM fan WHERE ${WHERE} ORDER BY ${order} LIMIT $5 OFFSET $6`,
  ]),
) as Record<FanQuery['sort'], string>

/** One page of the shelf and how many fans the query has in all. Fans that were put aside are kept out of the list but not out of plans. */
export async function pageOfFans(db: Queryable, query: FanQuery): Promise<FanPage> {
  const narrow = [query.text.trim().toLowerCase(), query.frameM, query.ratedV, query.owned]
  const [counted] = await db.query<{ n: number }>(COUNT_FANS, narrow)
  const rows = await db.query<Row>(PAGES[query.sort], [...narrow, query.limit, query.offset])
  return { fans: await withParts(db, rows), total: counted!.n }
}

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

/** What the tests of the whole shelf say about claims. */
export async function shownByShelf(db: Queryable): Promise<ShelfShown> {
  const rows = await db.query<Row>(
    'SELECT * FROM fan WHERE deleted_at IS NULL AND id IN (SELECT fan_id FROM fan_test) ORDER BY id',
  )
  return shelfShown((await withParts(db, rows)).map((s) => s.fan))
}

/** One fan, also a deleted one: a plan may still speak of it. @throws NotFound */
export async function getFan(db: Queryable, id: string): Promise<StoredFan> {
  const [stored] = await withParts(db, await db.query<Row>('SELECT * FROM fan WHERE id = $1', [id]))
  if (!stored) throw new NotFound('fan')
  return stored
}

/** @throws Refused when the id is taken */
export async function createFan(db: Database, fan: Fan): Promise<StoredFan> {
  return db.transaction(async (tx) => {
    if ((await tx.query('SELECT 1 FROM fan WHERE id = $1', [fan.id])).length)
      throw new Refused('A fan with this id exists already.', 'id')
    await writeFans(tx, [fan])
    return getFan(tx, fan.id)
  })
}

/** @throws NotFound, Conflict */
export async function saveFan(db: Database, fan: Fan, revision: number): Promise<StoredFan> {
  return db.transaction(async (tx) => {
    const [current] = await tx.query<{ revision: number }>(
      'SELECT revision FROM fan WHERE id = $1 AND deleted_at IS NULL FOR UPDATE',
      [fan.id],
    )
    if (!current) throw new NotFound('fan')
    if (current.revision !== revision) throw new Conflict(current.revision)
    await writeFans(tx, [fan])
    return getFan(tx, fan.id)
  })
}

/** What an import did, enough to take it back. */
export interface Imported {
  created: string[]
  before: Fan[]
}

/** Writes fans whole, new and known ones, in one transaction: all of them or none. A fan that was put aside comes back. */
export async function importFans(db: Database, fans: readonly Fan[]): Promise<Imported> {
  return db.transaction(async (tx) => {
    const rows = await tx.query<Row>(
      'SELECT * FROM fan WHERE deleted_at IS NULL AND id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb))) FOR UPDATE',
      [JSON.stringify(fans.map((f) => f.id))],
    )
    const before = (await withParts(tx, rows)).map((s) => s.fan)
    const known = new Set(before.map((f) => f.id))
    await writeFans(tx, fans)
    return { created: fans.filter((f) => !known.has(f.id)).map((f) => f.id), before }
  })
}

/** Takes an import back: what it made is put aside, what it changed is written as it was. */
export async function undoImport(db: Database, { created, before }: Imported): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.query(
      'UPDATE fan SET deleted_at = now(), updated_at = now() WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb))) AND deleted_at IS NULL',
      [JSON.stringify(created)],
    )
    await writeFans(tx, before)
  })
}

/** Puts a fan aside; `restoreFan` brings it back. @throws NotFound */
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
  const rows = await db.query<Row>(
    'SELECT * FROM fan WHERE id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb))) ORDER BY id',
    [JSON.stringify(wanted)],
  )
  return (await withParts(db, rows)).map((s) => s.fan)
}
