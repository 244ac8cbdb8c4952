/**
 * The tables below a job, each with its three statements. $1 is the job's id, $2 the rows as JSON with column names.
 * A row keeps its created_at; its revision and updated_at move only when something in it changed.
 */
export interface ChildTable { key: 'targets' | 'path' | 'loads' | 'runs' | 'readings' | 'pick' | 'source' | 'converter', select: string, deleteMissing: string, upsert: string }

export const childTables: ChildTable[] = [
  {
    key: 'targets',
    select: 'SELECT * FROM target WHERE job_id = $1 ORDER BY position',
    deleteMissing: 'DELETE FROM target WHERE job_id = $1 AND id NOT IN (SELECT r.id FROM jsonb_populate_recordset(NULL::target, $2::jsonb) r)',
    upsert: `
      INSERT INTO target AS t (job_id, id, position, kind, "limit", place, why)
      SELECT $1, id, position, kind, "limit", place, why FROM jsonb_populate_recordset(NULL::target, $2::jsonb)
      ON CONFLICT (job_id, id) DO UPDATE SET
        (position, kind, "limit", place, why) = (EXCLUDED.position, EXCLUDED.kind, EXCLUDED."limit", EXCLUDED.place, EXCLUDED.why),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.position, t.kind, t."limit", t.place, t.why) IS DISTINCT FROM (EXCLUDED.position, EXCLUDED.kind, EXCLUDED."limit", EXCLUDED.place, EXCLUDED.why)`,
  },
  {
    key: 'path',
    select: 'SELECT * FROM path_element WHERE job_id = $1 ORDER BY position',
    deleteMissing: 'DELETE FROM path_element WHERE job_id = $1 AND id NOT IN (SELECT r.id FROM jsonb_populate_recordset(NULL::path_element, $2::jsonb) r)',
    upsert: `
      INSERT INTO path_element AS t (job_id, id, position, kind, name, basis, area_m2, free_area_ratio, edge, medium, c1, c2, load_factor,
        diameter_m, length_m, surface, slack, radius_ratio, angle_deg, count, a, b)
      SELECT $1, id, position, kind, name, basis, area_m2, free_area_ratio, edge, medium, c1, c2, load_factor,
        diameter_m, length_m, surface, slack, radius_ratio, angle_deg, count, a, b FROM jsonb_populate_recordset(NULL::path_element, $2::jsonb)
      ON CONFLICT (job_id, id) DO UPDATE SET
        (position, kind, name, basis, area_m2, free_area_ratio, edge, medium, c1, c2, load_factor, diameter_m, length_m, surface, slack, radius_ratio, angle_deg, count, a, b)
        = (EXCLUDED.position, EXCLUDED.kind, EXCLUDED.name, EXCLUDED.basis, EXCLUDED.area_m2, EXCLUDED.free_area_ratio, EXCLUDED.edge, EXCLUDED.medium, EXCLUDED.c1, EXCLUDED.c2,
          EXCLUDED.load_factor, EXCLUDED.diameter_m, EXCLUDED.length_m, EXCLUDED.surface, EXCLUDED.slack, EXCLUDED.radius_ratio, EXCLUDED.angle_deg, EXCLUDED.count, EXCLUDED.a, EXCLUDED.b),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.position, t.kind, t.name, t.basis, t.area_m2, t.free_area_ratio, t.edge, t.medium, t.c1, t.c2, t.load_factor, t.diameter_m, t.length_m, t.surface, t.slack,
          t.radius_ratio, t.angle_deg, t.count, t.a, t.b)
        IS DISTINCT FROM (EXCLUDED.position, EXCLUDED.kind, EXCLUDED.name, EXCLUDED.basis, EXCLUDED.area_m2, EXCLUDED.free_area_ratio, EXCLUDED.edge, EXCLUDED.medium, EXCLUDED.c1,
          EXCLUDED.c2, EXCLUDED.load_factor, EXCLUDED.diameter_m, EXCLUDED.length_m, EXCLUDED.surface, EXCLUDED.slack, EXCLUDED.radius_ratio, EXCLUDED.angle_deg, EXCLUDED.count, EXCLUDED.a, EXCLUDED.b)`,
  },
  {
    key: 'pick',
    select: 'SELECT * FROM pick WHERE job_id = $1',
    deleteMissing: 'DELETE FROM pick WHERE job_id = $1 AND NOT EXISTS (SELECT 1 FROM jsonb_populate_recordset(NULL::pick, $2::jsonb))',
    upsert: `
      INSERT INTO pick AS t (job_id, id, fan_id, count, arrangement, drive_v)
      SELECT $1, id, fan_id, count, arrangement, drive_v FROM jsonb_populate_recordset(NULL::pick, $2::jsonb)
      ON CONFLICT (job_id) DO UPDATE SET (id, fan_id, count, arrangement, drive_v) = (EXCLUDED.id, EXCLUDED.fan_id, EXCLUDED.count, EXCLUDED.arrangement, EXCLUDED.drive_v),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.id, t.fan_id, t.count, t.arrangement, t.drive_v) IS DISTINCT FROM (EXCLUDED.id, EXCLUDED.fan_id, EXCLUDED.count, EXCLUDED.arrangement, EXCLUDED.drive_v)`,
  },
  {
    key: 'source',
    select: 'SELECT * FROM power_source WHERE job_id = $1',
    deleteMissing: 'DELETE FROM power_source WHERE job_id = $1 AND NOT EXISTS (SELECT 1 FROM jsonb_populate_recordset(NULL::power_source, $2::jsonb))',
    upsert: `
      INSERT INTO power_source AS t (job_id, id, kind, name, nominal_v, low_v, high_v, i_max_a, i_peak_a, regulated, output, wire_awg, wire_length_m, fuse_a, fuse_fitted, polarity_checked)
      SELECT $1, id, kind, name, nominal_v, low_v, high_v, i_max_a, i_peak_a, regulated, output, wire_awg, wire_length_m, fuse_a, fuse_fitted, polarity_checked
      FROM jsonb_populate_recordset(NULL::power_source, $2::jsonb)
      ON CONFLICT (job_id) DO UPDATE SET
        (id, kind, name, nominal_v, low_v, high_v, i_max_a, i_peak_a, regulated, output, wire_awg, wire_length_m, fuse_a, fuse_fitted, polarity_checked)
        = (EXCLUDED.id, EXCLUDED.kind, EXCLUDED.name, EXCLUDED.nominal_v, EXCLUDED.low_v, EXCLUDED.high_v, EXCLUDED.i_max_a, EXCLUDED.i_peak_a, EXCLUDED.regulated, EXCLUDED.output,
          EXCLUDED.wire_awg, EXCLUDED.wire_length_m, EXCLUDED.fuse_a, EXCLUDED.fuse_fitted, EXCLUDED.polarity_checked),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.id, t.kind, t.name, t.nominal_v, t.low_v, t.high_v, t.i_max_a, t.i_peak_a, t.regulated, t.output, t.wire_awg, t.wire_length_m, t.fuse_a, t.fuse_fitted, t.polarity_checked)
        IS DISTINCT FROM (EXCLUDED.id, EXCLUDED.kind, EXCLUDED.name, EXCLUDED.nominal_v, EXCLUDED.low_v, EXCLUDED.high_v, EXCLUDED.i_max_a, EXCLUDED.i_peak_a, EXCLUDED.regulated,
          EXCLUDED.output, EXCLUDED.wire_awg, EXCLUDED.wire_length_m, EXCLUDED.fuse_a, EXCLUDED.fuse_fitted, EXCLUDED.polarity_checked)`,
  },
  {
    key: 'converter',
    select: 'SELECT * FROM power_converter WHERE job_id = $1',
    deleteMissing: 'DELETE FROM power_converter WHERE job_id = $1 AND NOT EXISTS (SELECT 1 FROM jsonb_populate_recordset(NULL::power_converter, $2::jsonb))',
    upsert: `
      INSERT INTO power_converter AS t (job_id, id, kind, out_v, i_max_a, efficiency, dropout_v, adjustable, set_first, measured_v)
      SELECT $1, id, kind, out_v, i_max_a, efficiency, dropout_v, adjustable, set_first, measured_v FROM jsonb_populate_recordset(NULL::power_converter, $2::jsonb)
      ON CONFLICT (job_id) DO UPDATE SET
        (id, kind, out_v, i_max_a, efficiency, dropout_v, adjustable, set_first, measured_v)
        = (EXCLUDED.id, EXCLUDED.kind, EXCLUDED.out_v, EXCLUDED.i_max_a, EXCLUDED.efficiency, EXCLUDED.dropout_v, EXCLUDED.adjustable, EXCLUDED.set_first, EXCLUDED.measured_v),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.id, t.kind, t.out_v, t.i_max_a, t.efficiency, t.dropout_v, t.adjustable, t.set_first, t.measured_v)
        IS DISTINCT FROM (EXCLUDED.id, EXCLUDED.kind, EXCLUDED.out_v, EXCLUDED.i_max_a, EXCLUDED.efficiency, EXCLUDED.dropout_v, EXCLUDED.adjustable, EXCLUDED.set_first, EXCLUDED.measured_v)`,
  },
  {
    key: 'loads',
    select: 'SELECT * FROM power_load WHERE job_id = $1 ORDER BY position',
    deleteMissing: 'DELETE FROM power_load WHERE job_id = $1 AND id NOT IN (SELECT r.id FROM jsonb_populate_recordset(NULL::power_load, $2::jsonb) r)',
    upsert: `
      INSERT INTO power_load AS t (job_id, id, position, name, count, current_a, start_a, after_converter)
      SELECT $1, id, position, name, count, current_a, start_a, after_converter FROM jsonb_populate_recordset(NULL::power_load, $2::jsonb)
      ON CONFLICT (job_id, id) DO UPDATE SET
        (position, name, count, current_a, start_a, after_converter)
        = (EXCLUDED.position, EXCLUDED.name, EXCLUDED.count, EXCLUDED.current_a, EXCLUDED.start_a, EXCLUDED.after_converter),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.position, t.name, t.count, t.current_a, t.start_a, t.after_converter)
        IS DISTINCT FROM (EXCLUDED.position, EXCLUDED.name, EXCLUDED.count, EXCLUDED.current_a, EXCLUDED.start_a, EXCLUDED.after_converter)`,
  },
  {
    key: 'runs',
    select: 'SELECT * FROM run WHERE job_id = $1 ORDER BY position',
    deleteMissing: 'DELETE FROM run WHERE job_id = $1 AND id NOT IN (SELECT r.id FROM jsonb_populate_recordset(NULL::run, $2::jsonb) r)',
    upsert: `
      INSERT INTO run AS t (job_id, id, position, kind, name, taken_at, fan_v, voltage_at, ambient_c, heat_w, distance_m, soak_s, steady, lid, background_db_a, instrument, floor_db_a, changes, notes)
      SELECT $1, id, position, kind, name, taken_at, fan_v, voltage_at, ambient_c, heat_w, distance_m, soak_s, steady, lid, background_db_a, instrument, floor_db_a, changes, notes
      FROM jsonb_populate_recordset(NULL::run, $2::jsonb)
      ON CONFLICT (job_id, id) DO UPDATE SET
        (position, kind, name, taken_at, fan_v, voltage_at, ambient_c, heat_w, distance_m, soak_s, steady, lid, background_db_a, instrument, floor_db_a, changes, notes)
        = (EXCLUDED.position, EXCLUDED.kind, EXCLUDED.name, EXCLUDED.taken_at, EXCLUDED.fan_v, EXCLUDED.voltage_at, EXCLUDED.ambient_c, EXCLUDED.heat_w, EXCLUDED.distance_m, EXCLUDED.soak_s,
          EXCLUDED.steady, EXCLUDED.lid, EXCLUDED.background_db_a, EXCLUDED.instrument, EXCLUDED.floor_db_a, EXCLUDED.changes, EXCLUDED.notes),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.position, t.kind, t.name, t.taken_at, t.fan_v, t.voltage_at, t.ambient_c, t.heat_w, t.distance_m, t.soak_s, t.steady, t.lid, t.background_db_a, t.instrument, t.floor_db_a, t.changes, t.notes)
        IS DISTINCT FROM (EXCLUDED.position, EXCLUDED.kind, EXCLUDED.name, EXCLUDED.taken_at, EXCLUDED.fan_v, EXCLUDED.voltage_at, EXCLUDED.ambient_c, EXCLUDED.heat_w, EXCLUDED.distance_m,
          EXCLUDED.soak_s, EXCLUDED.steady, EXCLUDED.lid, EXCLUDED.background_db_a, EXCLUDED.instrument, EXCLUDED.floor_db_a, EXCLUDED.changes, EXCLUDED.notes)`,
  },
  {
    key: 'readings',
    select: 'SELECT * FROM reading WHERE job_id = $1 ORDER BY run_id, position',
    deleteMissing: 'DELETE FROM reading WHERE job_id = $1 AND (run_id, id) NOT IN (SELECT r.run_id, r.id FROM jsonb_populate_recordset(NULL::reading, $2::jsonb) r)',
    upsert: `
      INSERT INTO reading AS t (job_id, run_id, id, position, quantity, place, value)
      SELECT $1, run_id, id, position, quantity, place, value FROM jsonb_populate_recordset(NULL::reading, $2::jsonb)
      ON CONFLICT (job_id, run_id, id) DO UPDATE SET (position, quantity, place, value) = (EXCLUDED.position, EXCLUDED.quantity, EXCLUDED.place, EXCLUDED.value),
        revision = t.revision + 1, updated_at = now()
      WHERE (t.position, t.quantity, t.place, t.value) IS DISTINCT FROM (EXCLUDED.position, EXCLUDED.quantity, EXCLUDED.place, EXCLUDED.value)`,
  },
]
