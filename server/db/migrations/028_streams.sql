-- Every air stream is a row of its own, the one that stood in the job itself too: it keeps the name "main" by which
-- controls and reasons know it.

-- a row as the document has it: wall_loss_w_k is wallLossWK
CREATE FUNCTION as_document(of jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT jsonb_object_agg((
    SELECT string_agg(CASE WHEN i = 1 THEN part ELSE upper(left(part, 1)) || substr(part, 2) END, '' ORDER BY i)
      FROM unnest(string_to_array(key, '_')) WITH ORDINALITY AS parts (part, i)), value)
    FROM jsonb_each(of)
    WHERE key <> ALL (ARRAY['job_id', 'element_id', 'position', 'created_at', 'updated_at', 'revision'])
$$;

ALTER TABLE air_stream DROP CONSTRAINT air_stream_id_check, DROP CONSTRAINT air_stream_position_check;
UPDATE air_stream SET position = position + 1;
ALTER TABLE air_stream ADD CONSTRAINT air_stream_position_check CHECK (position BETWEEN 0 AND 7);

INSERT INTO air_stream
  (job_id, id, position, job, ports, uncertainties, sink, path, branches, calibration, selection, fit, second_place)
SELECT j.id, 'main', 0,
  (SELECT as_document(jsonb_object_agg(key, value)) FROM jsonb_each(to_jsonb(j)) WHERE key = ANY (ARRAY[
    'stream_name', 'goal', 'as_is', 'heard_db_a', 'breathes_in', 'breathes_out', 'direction',
    'mounted_direction', 'intake_side', 'outlet_side', 'intake_height_m', 'outlet_height_m', 'air_outlet',
    'outlet_to_opening_m', 'gasketed', 'backflow_flap', 'intake_air_c', 'margin', 'heat_w', 'heat_basis',
    'inside_max_c', 'wall_loss_w_k', 'active_cooling', 'part_max_c', 'part_inner_k_per_w', 'volume_m3',
    'air_changes_per_h', 'mixing', 'clear_s', 'clear_share', 'water_kg_s', 'inside_c', 'inside_rh_max',
    'surface_c', 'co2_m3s', 'co2_max', 'co2_fresh', 'fume_way', 'capture_speed_ms', 'capture_distance_m',
    'nozzle_area_m2', 'nozzle_opening', 'slot_length_m', 'slot_flanged', 'leak_area_m2', 'box_pressure_pa',
    'work_opening_m2', 'face_speed_ms', 'room_volume_m3', 'room_mixing', 'room_changes_per_h', 'fume_rated',
    'carbon_hours', 'carbon_life_h', 'turnovers_per_h', 'jet_reach_m', 'jet_speed_ms', 'cop', 'duty_share',
    'box_power_w', 'contents_j_k', 'warmed_k', 'near_k', 'water_area_m2', 'water_c', 'lid', 'surface_speed_ms',
    'cross_area_m2', 'cooling_w', 'reserve_m3', 'days_unattended', 'keep_basis', 'existing_fan_id',
    'existing_count', 'existing_v', 'measured_rise_k', 'typed_flow_m3s', 'kept_flow_m3s', 'give_rise_k',
    'fit_depth_m', 'fit_width_m', 'inlet_clear_m', 'outlet_clear_m', 'opening_gap_m', 'baffled',
    'hot_part_in_path', 'must_not_fail', 'workings', 'shaft', 'stack_extra_m', 'existing_holes_m', 'hole_m',
    'screw_hole_m', 'mount_kind', 'mount_capacity_kg', 'mount_isolated', 'thin_panel', 'panel_hz',
    'upstream_gap_m'
  ])),
  (SELECT coalesce(jsonb_agg(as_document(to_jsonb(x)) ORDER BY x.position), '[]') FROM port x WHERE x.job_id = j.id),
  (SELECT coalesce(jsonb_agg(as_document(to_jsonb(x)) ORDER BY x.position), '[]') FROM uncertainty x WHERE x.job_id = j.id),
  (SELECT coalesce(jsonb_agg(as_document(to_jsonb(x)) ORDER BY x.position), '[]') FROM sink_point x WHERE x.job_id = j.id),
  (SELECT coalesce(jsonb_agg(as_document(to_jsonb(x)) || jsonb_build_object('points',
      (SELECT coalesce(jsonb_agg(as_document(to_jsonb(p)) ORDER BY p.position), '[]')
        FROM loss_point p WHERE p.job_id = j.id AND p.element_id = x.id)) ORDER BY x.position), '[]')
    FROM path_element x WHERE x.job_id = j.id),
  (SELECT coalesce(jsonb_agg(as_document(to_jsonb(x)) ORDER BY x.position), '[]') FROM path_branch x WHERE x.job_id = j.id),
  (SELECT as_document(to_jsonb(x)) || jsonb_build_object('points',
      (SELECT coalesce(jsonb_agg(as_document(to_jsonb(p)) ORDER BY p.position), '[]')
        FROM calibration_point p WHERE p.job_id = j.id))
    FROM calibration x WHERE x.job_id = j.id),
  (SELECT as_document(to_jsonb(x)) FROM fan_selection x WHERE x.job_id = j.id),
  (SELECT as_document(to_jsonb(x)) FROM fan_fit x WHERE x.job_id = j.id),
  (SELECT as_document(to_jsonb(x)) FROM second_place x WHERE x.job_id = j.id)
FROM job j;
DROP FUNCTION as_document;

-- what named no stream was of that one; a target of the whole machine names none
UPDATE target SET stream_id = 'main' WHERE stream_id IS NULL AND kind IN ('temperature', 'rise', 'flow', 'airchanges',
  'airspeed', 'distance', 'pressure', 'time', 'humidity', 'evaporation', 'rotation');
UPDATE run_fan SET stream_id = 'main' WHERE stream_id IS NULL;
ALTER TABLE run_fan ALTER COLUMN stream_id SET NOT NULL;
UPDATE plan_day SET parts = (
  SELECT jsonb_agg(part || jsonb_build_object('streamId', coalesce(part ->> 'streamId', 'main')) ORDER BY i)
    FROM jsonb_array_elements(parts) WITH ORDINALITY AS x (part, i))
  WHERE jsonb_array_length(parts) > 0;
-- a reason that named no stream stands for the whole, and for the first one where there are several
UPDATE job SET known = known || (
  SELECT coalesce(jsonb_agg(k || '{"subject": "main"}'), '[]') FROM jsonb_array_elements(known) k WHERE k ->> 'subject' = '')
  WHERE (SELECT count(*) FROM air_stream s WHERE s.job_id = job.id) > 1;

DROP TABLE loss_point, path_element, path_branch, port, uncertainty, sink_point, calibration_point, calibration,
  fan_selection, fan_fit, second_place;
ALTER TABLE job
  DROP COLUMN stream_name,
  DROP COLUMN goal,
  DROP COLUMN as_is,
  DROP COLUMN heard_db_a,
  DROP COLUMN breathes_in,
  DROP COLUMN breathes_out,
  DROP COLUMN direction,
  DROP COLUMN mounted_direction,
  DROP COLUMN intake_side,
  DROP COLUMN outlet_side,
  DROP COLUMN intake_height_m,
  DROP COLUMN outlet_height_m,
  DROP COLUMN air_outlet,
  DROP COLUMN outlet_to_opening_m,
  DROP COLUMN gasketed,
  DROP COLUMN backflow_flap,
  DROP COLUMN intake_air_c,
  DROP COLUMN margin,
  DROP COLUMN heat_w,
  DROP COLUMN heat_basis,
  DROP COLUMN inside_max_c,
  DROP COLUMN wall_loss_w_k,
  DROP COLUMN active_cooling,
  DROP COLUMN part_max_c,
  DROP COLUMN part_inner_k_per_w,
  DROP COLUMN volume_m3,
  DROP COLUMN air_changes_per_h,
  DROP COLUMN mixing,
  DROP COLUMN clear_s,
  DROP COLUMN clear_share,
  DROP COLUMN water_kg_s,
  DROP COLUMN inside_c,
  DROP COLUMN inside_rh_max,
  DROP COLUMN surface_c,
  DROP COLUMN co2_m3s,
  DROP COLUMN co2_max,
  DROP COLUMN co2_fresh,
  DROP COLUMN fume_way,
  DROP COLUMN capture_speed_ms,
  DROP COLUMN capture_distance_m,
  DROP COLUMN nozzle_area_m2,
  DROP COLUMN nozzle_opening,
  DROP COLUMN slot_length_m,
  DROP COLUMN slot_flanged,
  DROP COLUMN leak_area_m2,
  DROP COLUMN box_pressure_pa,
  DROP COLUMN work_opening_m2,
  DROP COLUMN face_speed_ms,
  DROP COLUMN room_volume_m3,
  DROP COLUMN room_mixing,
  DROP COLUMN room_changes_per_h,
  DROP COLUMN fume_rated,
  DROP COLUMN carbon_hours,
  DROP COLUMN carbon_life_h,
  DROP COLUMN turnovers_per_h,
  DROP COLUMN jet_reach_m,
  DROP COLUMN jet_speed_ms,
  DROP COLUMN cop,
  DROP COLUMN duty_share,
  DROP COLUMN box_power_w,
  DROP COLUMN contents_j_k,
  DROP COLUMN warmed_k,
  DROP COLUMN near_k,
  DROP COLUMN water_area_m2,
  DROP COLUMN water_c,
  DROP COLUMN lid,
  DROP COLUMN surface_speed_ms,
  DROP COLUMN cross_area_m2,
  DROP COLUMN cooling_w,
  DROP COLUMN reserve_m3,
  DROP COLUMN days_unattended,
  DROP COLUMN keep_basis,
  DROP COLUMN existing_fan_id,
  DROP COLUMN existing_count,
  DROP COLUMN existing_v,
  DROP COLUMN measured_rise_k,
  DROP COLUMN typed_flow_m3s,
  DROP COLUMN kept_flow_m3s,
  DROP COLUMN give_rise_k,
  DROP COLUMN fit_depth_m,
  DROP COLUMN fit_width_m,
  DROP COLUMN inlet_clear_m,
  DROP COLUMN outlet_clear_m,
  DROP COLUMN opening_gap_m,
  DROP COLUMN baffled,
  DROP COLUMN hot_part_in_path,
  DROP COLUMN must_not_fail,
  DROP COLUMN workings,
  DROP COLUMN shaft,
  DROP COLUMN stack_extra_m,
  DROP COLUMN existing_holes_m,
  DROP COLUMN hole_m,
  DROP COLUMN screw_hole_m,
  DROP COLUMN mount_kind,
  DROP COLUMN mount_capacity_kg,
  DROP COLUMN mount_isolated,
  DROP COLUMN thin_panel,
  DROP COLUMN panel_hz,
  DROP COLUMN upstream_gap_m;
