import type { Fan, FanPoint } from '../../../core/plan'
import type { StoredFan } from '../../../shared/api'
import { fanSchema } from '../../../shared/schemas/fan'
import type { Database, Queryable } from '../database'
import { Conflict, NotFound, Refused } from '../errors'
import { fromRow, toRowJson } from '../rows'

type Row = Record<string, unknown>

const FAN_COLUMNS = `maker, model, kind, frame_m, thickness_m, rated_v, min_v, max_v, start_v, intercept_v, rated_a, rated_rpm, max_flow_m3s, max_pressure_pa, noise_db_a, noise_distance_m,
  wires, bearing, mass_kg, ip_water, max_air_c, price, owned, curve_basis, notes`
const INSERT_FAN = `INSERT INTO fan (id, ${FAN_COLUMNS}) SELECT id, ${FAN_COLUMNS} FROM jsonb_populate_record(NULL::fan, $1::jsonb)`
const UPDATE_FAN = `UPDATE fan SET (${FAN_COLUMNS}) = (SELECT ${FAN_COLUMNS} FROM jsonb_populate_record(NULL::fan, $2::jsonb)), revision = revision + 1, updated_at = now() WHERE id = $1 RETURNING revision`

const withPoints = (row: Row, points: FanPoint[]): StoredFan => ({ fan: fanSchema.parse({ ...fromRow(row), points }), revision: row.revision as number })
const pointOf = (row: Row): FanPoint => ({ flowM3s: row.flow_m3s as number, pressurePa: row.pressure_pa as number })

async function savePoints(tx: Queryable, fan: Fan): Promise<void> {
  await tx.query('DELETE FROM fan_point WHERE fan_id = $1 AND position >= $2', [fan.id, fan.points.length])
  await tx.query(`
    INSERT INTO fan_point AS t (fan_id, position, flow_m3s, pressure_pa)
    SELECT $1, position, flow_m3s, pressure_pa FROM jsonb_populate_recordset(NULL::fan_point, $2::jsonb)
    ON CONFLICT (fan_id, position) DO UPDATE SET (flow_m3s, pressure_pa) = (EXCLUDED.flow_m3s, EXCLUDED.pressure_pa), revision = t.revision + 1, updated_at = now()
    WHERE (t.flow_m3s, t.pressure_pa) IS DISTINCT FROM (EXCLUDED.flow_m3s, EXCLUDED.pressure_pa)`,
  [fan.id, toRowJson(fan.points.map((p, position) => ({ ...p, position })))])
}

/** The shelf, by frame size and name. Deleted fans that a plan still speaks of are kept out of the list but not out of plans. */
export async function listFans(db: Queryable): Promise<StoredFan[]> {
  const rows = await db.query<Row>('SELECT * FROM fan WHERE deleted_at IS NULL ORDER BY frame_m, maker, model')
  const points = await db.query<Row>('SELECT fan_id, flow_m3s, pressure_pa FROM fan_point ORDER BY fan_id, position')
  const byFan = groupByFan(points)
  return rows.map(row => withPoints(row, (byFan.get(row.id) ?? []).map(pointOf)))
}

function groupByFan(points: Row[]): Map<unknown, Row[]> {
  const map = new Map<unknown, Row[]>()
  for (const p of points) map.set(p.fan_id, [...map.get(p.fan_id) ?? [], p])
  return map
}

/** One fan, also a deleted one: a plan may still speak of it. @throws NotFound */
export async function getFan(db: Queryable, id: string): Promise<StoredFan> {
  const [row] = await db.query<Row>('SELECT * FROM fan WHERE id = $1', [id])
  if (!row) throw new NotFound('fan')
  const points = await db.query<Row>('SELECT flow_m3s, pressure_pa FROM fan_point WHERE fan_id = $1 ORDER BY position', [id])
  return withPoints(row, points.map(pointOf))
}

/** @throws Refused when the id is taken */
export async function createFan(db: Database, fan: Fan): Promise<StoredFan> {
  return db.transaction(async (tx) => {
    if ((await tx.query('SELECT 1 FROM fan WHERE id = $1', [fan.id])).length) throw new Refused('A fan with this id exists already.', 'id')
    await tx.query(INSERT_FAN, [toRowJson(fan)])
    await savePoints(tx, fan)
    return getFan(tx, fan.id)
  })
}

/** @throws NotFound, Conflict */
export async function saveFan(db: Database, fan: Fan, revision: number): Promise<StoredFan> {
  return db.transaction(async (tx) => {
    const [current] = await tx.query<{ revision: number }>('SELECT revision FROM fan WHERE id = $1 AND deleted_at IS NULL FOR UPDATE', [fan.id])
    if (!current) throw new NotFound('fan')
    if (current.revision !== revision) throw new Conflict(current.revision)
    await tx.query(UPDATE_FAN, [fan.id, toRowJson(fan)])
    await savePoints(tx, fan)
    return getFan(tx, fan.id)
  })
}

/** What an import did, enough to take it back. */
export interface Imported { created: string[], before: Fan[] }

/** Writes fans whole, new and known ones, in one transaction: all of them or none. A fan that was put aside comes back. */
export async function importFans(db: Database, fans: readonly Fan[]): Promise<Imported> {
  return db.transaction(async (tx) => {
    const done: Imported = { created: [], before: [] }
    for (const fan of fans) {
      const [row] = await tx.query<Row>('SELECT deleted_at FROM fan WHERE id = $1 FOR UPDATE', [fan.id])
      if (row && row.deleted_at === null) done.before.push((await getFan(tx, fan.id)).fan)
      else done.created.push(fan.id)
      if (row) {
        await tx.query(UPDATE_FAN, [fan.id, toRowJson(fan)])
        await tx.query('UPDATE fan SET deleted_at = NULL WHERE id = $1', [fan.id])
      }
      else await tx.query(INSERT_FAN, [toRowJson(fan)])
      await savePoints(tx, fan)
    }
    return done
  })
}

/** Takes an import back: what it made is put aside, what it changed is written as it was. */
export async function undoImport(db: Database, { created, before }: Imported): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.query('UPDATE fan SET deleted_at = now(), updated_at = now() WHERE id IN (SELECT jsonb_array_elements_text($1::jsonb)) AND deleted_at IS NULL', [JSON.stringify(created)])
    for (const fan of before) {
      await tx.query(UPDATE_FAN, [fan.id, toRowJson(fan)])
      await savePoints(tx, fan)
    }
  })
}

/** Puts a fan aside; `restoreFan` brings it back. @throws NotFound */
export async function deleteFan(db: Database, id: string): Promise<void> {
  const rows = await db.query('UPDATE fan SET deleted_at = now(), updated_at = now() WHERE id = $1 AND deleted_at IS NULL RETURNING id', [id])
  if (!rows.length) throw new NotFound('fan')
}

/** @throws NotFound */
export async function restoreFan(db: Database, id: string): Promise<void> {
  const rows = await db.query('UPDATE fan SET deleted_at = NULL, updated_at = now() WHERE id = $1 AND deleted_at IS NOT NULL RETURNING id', [id])
  if (!rows.length) throw new NotFound('fan')
}

/** The fans a plan speaks of, deleted ones included. */
export async function fansOfPlan(db: Queryable, ids: readonly (string | null | undefined)[]): Promise<Fan[]> {
  const fans: Fan[] = []
  for (const id of new Set(ids)) if (id) fans.push((await getFan(db, id)).fan)
  return fans
}
