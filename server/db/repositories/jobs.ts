import { newPlan } from '#core/document'
import type { Job, PlanDocument, Reading, Run } from '#core/document'
import { planSchema } from '#shared/schemas/plan'
import type { StoredPlan } from '#shared/api'
import type { Database, Queryable } from '../database'
import { Conflict, NotFound, Refused } from '../errors'
import { fromRow, toRowJson } from '../rows'
import { childTables, type ChildKey } from './children'

type Row = Record<string, unknown>
type ChildRows = Record<ChildKey, object[]>

const JOB_COLUMNS = `name, variant_of, goal, equipment, complaint, untouchable,
  breathes_in, breathes_out, direction, mounted_direction, intake_side, outlet_side, intake_height_m, outlet_height_m, air_outlet, outlet_to_opening_m, gasketed, backflow_flap, intake_air_c,
  ambient_c, ambient_max_c, altitude_m, humidity, hours_per_day, listener_m, room_db_a, margin,
  heat_w, heat_basis, inside_max_c, wall_loss_w_k, active_cooling, part_max_c, part_inner_k_per_w,
  volume_m3, air_changes_per_h, mixing, clear_s, clear_share, water_kg_s, inside_c, inside_rh_max, surface_c, co2_m3s, co2_max, co2_fresh,
  fume_way, capture_speed_ms, capture_distance_m, nozzle_area_m2, nozzle_opening, slot_length_m, slot_flanged, leak_area_m2, box_pressure_pa, work_opening_m2, face_speed_ms,
  room_volume_m3, room_changes_per_h, fume_rated, carbon_hours, carbon_life_h,
  turnovers_per_h, jet_reach_m, jet_speed_ms, cop, duty_share, box_power_w, contents_j_k, warmed_k, near_k,
  water_area_m2, water_c, lid, surface_speed_ms, cross_area_m2, cooling_w, reserve_m3, days_unattended,
  keep_basis, existing_fan_id, existing_count, existing_v, measured_rise_k, typed_flow_m3s,
  fit_depth_m, fit_width_m, inlet_clear_m, outlet_clear_m, opening_gap_m, baffled, hot_part_in_path, must_not_fail, mains, flammable, open_flue, wet, domain, opens_supply, stored_v, discharged, earth_refitted, supply_opening, laser, light_baffle, thermal_cutout, adapter_in_wet, touch_c,
  trust, shaft, stack_extra_m, existing_holes_m, hole_m, screw_hole_m, mount_kind, mount_capacity_kg, mount_isolated, thin_panel, panel_hz, upstream_gap_m,
  stated_change, stated_of, ranked_by, maintenance_from, blades_days, filter_days, tariff`
const INSERT_JOB = `INSERT INTO job (id, ${JOB_COLUMNS}) SELECT id, ${JOB_COLUMNS} FROM jsonb_populate_record(NULL::job, $1::jsonb)`
const UPDATE_JOB = `UPDATE job SET (${JOB_COLUMNS}) = (SELECT ${JOB_COLUMNS} FROM jsonb_populate_record(NULL::job, $2::jsonb)), revision = revision + 1, updated_at = now()
  WHERE id = $1 RETURNING revision, updated_at`

const ordered = <T extends object>(list: readonly T[]) => list.map((x, position) => ({ ...x, position }))
const single = (x: object | null) => (x ? [x] : [])

/** The document's parts as rows below its job. */
function childRows(plan: PlanDocument): ChildRows {
  return {
    targets: ordered(plan.targets),
    ports: ordered(plan.ports),
    uncertainties: ordered(plan.uncertainties),
    sink: ordered(plan.sink),
    path: ordered(plan.path),
    branches: ordered(plan.branches),
    lossPoints: plan.path.flatMap((e) => ordered(e.points).map((p) => ({ ...p, elementId: e.id }))),
    calibration: single(plan.calibration),
    calibrationPoints: ordered(plan.calibration?.points ?? []),
    feed: ordered(plan.feed),
    wiring: [plan.wiring],
    battery: single(plan.battery),
    sun: single(plan.sun),
    runs: ordered(plan.runs),
    readings: plan.runs.flatMap((run) => ordered(run.readings).map((r) => ({ ...r, runId: run.id }))),
    selection: single(plan.selection),
    source: single(plan.source),
    converter: single(plan.converter),
  }
}

async function saveChildren(tx: Queryable, plan: PlanDocument): Promise<void> {
  const rows = childRows(plan)
  for (const table of childTables) {
    const json = toRowJson(rows[table.key])
    await tx.query(table.deleteMissing, [plan.job.id, json])
    await tx.query(table.upsert, [plan.job.id, json])
  }
}

/** Fans a plan speaks of must exist: a clear message before the database's own refusal. */
async function checkFans(tx: Queryable, plan: PlanDocument): Promise<void> {
  for (const [field, id] of [
    ['plan.selection.fanId', plan.selection?.fanId],
    ['plan.selection.secondFanId', plan.selection?.secondFanId],
    ['plan.job.existingFanId', plan.job.existingFanId],
    ['plan.calibration.fanId', plan.calibration?.fanId],
    ...plan.feed.map((f) => ['plan.feed', f.fanId] as const),
  ] as const) {
    if (id && (await tx.query('SELECT 1 FROM fan WHERE id = $1', [id])).length === 0)
      throw new Refused('This fan is not on the shelf.', field)
  }
}

const pointOf = (row: Row) => ({ flowM3s: row.flow_m3s, pressurePa: row.pressure_pa })

async function readPlan(db: Queryable, jobRow: Row): Promise<StoredPlan> {
  const id = jobRow.id as string
  const parts = {} as Record<ChildKey, Row[]>
  for (const table of childTables) parts[table.key] = await db.query(table.select, [id])
  const runs = parts.runs.map(
    (run) =>
      ({
        ...fromRow(run),
        readings: parts.readings
          .filter((r) => r.run_id === run.id)
          .map((r) => fromRow(r) as unknown as Reading),
      }) as unknown as Run,
  )
  const path = parts.path.map((e) => ({
    ...fromRow(e),
    points: parts.lossPoints.filter((p) => p.element_id === e.id).map(pointOf),
  }))
  const one = (rows: Row[]) => (rows[0] ? fromRow(rows[0]) : null)
  const calibration = one(parts.calibration)
  const plan = planSchema.parse({
    job: fromRow(jobRow) as unknown as Job,
    targets: parts.targets.map(fromRow),
    ports: parts.ports.map(fromRow),
    uncertainties: parts.uncertainties.map(fromRow),
    sink: parts.sink.map(fromRow),
    path,
    branches: parts.branches.map(fromRow),
    calibration: calibration && { ...calibration, points: parts.calibrationPoints.map(pointOf) },
    feed: parts.feed.map(fromRow),
    wiring: one(parts.wiring) ?? newPlan('', '').wiring,
    battery: one(parts.battery),
    sun: one(parts.sun),
    runs,
    selection: one(parts.selection),
    source: one(parts.source),
    converter: one(parts.converter),
  })
  return { plan, revision: jobRow.revision as number, updatedAt: (jobRow.updated_at as Date).toISOString() }
}

/** All jobs that are not deleted, newest change first, with their whole plans. */
export async function listPlans(db: Database): Promise<StoredPlan[]> {
  const rows = await db.query<Row>('SELECT * FROM job WHERE deleted_at IS NULL ORDER BY updated_at DESC, name')
  const plans: StoredPlan[] = []
  for (const row of rows) plans.push(await readPlan(db, row))
  return plans
}

/** @throws NotFound */
export async function getPlan(db: Queryable, id: string): Promise<StoredPlan> {
  const [row] = await db.query<Row>('SELECT * FROM job WHERE id = $1 AND deleted_at IS NULL', [id])
  if (!row) throw new NotFound('job')
  return readPlan(db, row)
}

/** Makes a job from nothing, or stores a whole plan (demo, copies). */
export async function createPlan(db: Database, plan: PlanDocument): Promise<StoredPlan> {
  return db.transaction(async (tx) => {
    await checkFans(tx, plan)
    await tx.query(INSERT_JOB, [toRowJson(plan.job)])
    await saveChildren(tx, plan)
    return getPlan(tx, plan.job.id)
  })
}

export const createJob = (db: Database, id: string, name: string) => createPlan(db, newPlan(id, name))

/**
 * Saves a whole document in one transaction.
 * @param revision the one the document was read at
 * @throws NotFound, Conflict (saved elsewhere in the meantime), Refused (unknown fan)
 */
export async function savePlan(
  db: Database,
  plan: PlanDocument,
  revision: number,
): Promise<{ revision: number; updatedAt: string }> {
  return db.transaction(async (tx) => {
    const [current] = await tx.query<{ revision: number }>(
      'SELECT revision FROM job WHERE id = $1 AND deleted_at IS NULL FOR UPDATE',
      [plan.job.id],
    )
    if (!current) throw new NotFound('job')
    if (current.revision !== revision) throw new Conflict(current.revision)
    await checkFans(tx, plan)
    const [saved] = await tx.query<{ revision: number; updated_at: Date }>(UPDATE_JOB, [
      plan.job.id,
      toRowJson(plan.job),
    ])
    await saveChildren(tx, plan)
    return { revision: saved!.revision, updatedAt: saved!.updated_at.toISOString() }
  })
}

/** The job a variant belongs to, or itself. @throws NotFound */
async function rootOf(db: Queryable, id: string): Promise<string> {
  const [row] = await db.query<{ root: string }>(
    'SELECT coalesce(variant_of, id) AS root FROM job WHERE id = $1 AND deleted_at IS NULL',
    [id],
  )
  if (!row) throw new NotFound('job')
  return row.root
}

/** Keeps a plan beside the job it came from. @throws NotFound */
export async function createVariant(
  db: Database,
  from: string,
  id: string,
  name: string,
  plan: PlanDocument,
): Promise<StoredPlan> {
  const variantOf = await rootOf(db, from)
  return createPlan(db, { ...plan, job: { ...plan.job, id, name, variantOf } })
}

/** A job and all its variants, the first one first. @throws NotFound */
export async function listVariants(db: Database, id: string): Promise<StoredPlan[]> {
  const root = await rootOf(db, id)
  const rows = await db.query<Row>(
    'SELECT * FROM job WHERE (id = $1 OR variant_of = $1) AND deleted_at IS NULL ORDER BY created_at, id',
    [root],
  )
  return Promise.all(rows.map((row) => readPlan(db, row)))
}

/** Puts a job aside; `restoreJob` brings it back. @throws NotFound */
export async function deleteJob(db: Database, id: string): Promise<void> {
  const rows = await db.query(
    'UPDATE job SET deleted_at = now(), updated_at = now() WHERE id = $1 AND deleted_at IS NULL RETURNING id',
    [id],
  )
  if (!rows.length) throw new NotFound('job')
}

/** @throws NotFound */
export async function restoreJob(db: Database, id: string): Promise<void> {
  const rows = await db.query(
    'UPDATE job SET deleted_at = NULL, updated_at = now() WHERE id = $1 AND deleted_at IS NOT NULL RETURNING id',
    [id],
  )
  if (!rows.length) throw new NotFound('job')
}
