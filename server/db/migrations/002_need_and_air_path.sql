-- All seven goals, where it breathes, doubts, branches, calibration. All values SI, temperatures in degC.

ALTER TABLE job DROP CONSTRAINT job_goal_check;
ALTER TABLE job ADD CONSTRAINT job_goal_check CHECK (goal IN ('cool', 'part', 'ventilate', 'fume', 'stir', 'chill', 'quieten'));

ALTER TABLE job
  ADD COLUMN mounted_direction text CHECK (mounted_direction IN ('in', 'out')),
  ADD COLUMN intake_side text CHECK (intake_side IN ('front', 'back', 'left', 'right', 'top', 'bottom')),
  ADD COLUMN outlet_side text CHECK (outlet_side IN ('front', 'back', 'left', 'right', 'top', 'bottom')),
  ADD COLUMN intake_height_m double precision CHECK (intake_height_m >= 0),
  ADD COLUMN outlet_height_m double precision CHECK (outlet_height_m >= 0),
  ADD COLUMN air_outlet text CHECK (air_outlet IN ('outdoors', 'same-room', 'other-room')),
  ADD COLUMN outlet_to_opening_m double precision CHECK (outlet_to_opening_m >= 0),
  ADD COLUMN gasketed boolean,
  ADD COLUMN backflow_flap boolean,
  ADD COLUMN intake_air_c double precision,
  ADD COLUMN active_cooling boolean,
  ADD COLUMN part_max_c double precision,
  ADD COLUMN part_inner_k_w double precision CHECK (part_inner_k_w >= 0),
  ADD COLUMN mixing double precision CHECK (mixing >= 1),
  ADD COLUMN clear_s double precision CHECK (clear_s > 0),
  ADD COLUMN clear_share double precision CHECK (clear_share > 0 AND clear_share < 1),
  ADD COLUMN water_kg_s double precision CHECK (water_kg_s >= 0),
  ADD COLUMN inside_c double precision,
  ADD COLUMN inside_rh_max double precision CHECK (inside_rh_max BETWEEN 0 AND 1),
  ADD COLUMN surface_c double precision,
  ADD COLUMN co2_m3s double precision CHECK (co2_m3s >= 0),
  ADD COLUMN co2_max double precision CHECK (co2_max BETWEEN 0 AND 1),
  ADD COLUMN co2_fresh double precision CHECK (co2_fresh BETWEEN 0 AND 1),
  ADD COLUMN fume_way text NOT NULL DEFAULT 'capture' CHECK (fume_way IN ('capture', 'slot', 'enclosure')),
  ADD COLUMN capture_speed_ms double precision CHECK (capture_speed_ms > 0),
  ADD COLUMN capture_distance_m double precision CHECK (capture_distance_m > 0),
  ADD COLUMN nozzle_area_m2 double precision CHECK (nozzle_area_m2 > 0),
  ADD COLUMN nozzle_opening text NOT NULL DEFAULT 'plain' CHECK (nozzle_opening IN ('plain', 'flanged', 'bench')),
  ADD COLUMN slot_length_m double precision CHECK (slot_length_m > 0),
  ADD COLUMN slot_flanged boolean NOT NULL DEFAULT false,
  ADD COLUMN leak_area_m2 double precision CHECK (leak_area_m2 > 0),
  ADD COLUMN box_pressure_pa double precision CHECK (box_pressure_pa > 0),
  ADD COLUMN work_opening_m2 double precision CHECK (work_opening_m2 > 0),
  ADD COLUMN face_speed_ms double precision CHECK (face_speed_ms > 0),
  ADD COLUMN room_volume_m3 double precision CHECK (room_volume_m3 > 0),
  ADD COLUMN room_changes_per_h double precision CHECK (room_changes_per_h > 0),
  ADD COLUMN fume_rated boolean,
  ADD COLUMN carbon_hours double precision CHECK (carbon_hours >= 0),
  ADD COLUMN carbon_life_h double precision CHECK (carbon_life_h > 0),
  ADD COLUMN turnovers_per_h double precision CHECK (turnovers_per_h > 0),
  ADD COLUMN jet_reach_m double precision CHECK (jet_reach_m > 0),
  ADD COLUMN jet_speed_ms double precision CHECK (jet_speed_ms > 0),
  ADD COLUMN cop double precision CHECK (cop > 0),
  ADD COLUMN duty_share double precision CHECK (duty_share BETWEEN 0 AND 1),
  ADD COLUMN box_power_w double precision CHECK (box_power_w >= 0),
  ADD COLUMN contents_j_k double precision CHECK (contents_j_k > 0),
  ADD COLUMN warmed_k double precision CHECK (warmed_k > 0),
  ADD COLUMN near_k double precision CHECK (near_k > 0),
  ADD COLUMN water_area_m2 double precision CHECK (water_area_m2 > 0),
  ADD COLUMN water_c double precision,
  ADD COLUMN lid text NOT NULL DEFAULT 'open' CHECK (lid IN ('open', 'mesh', 'still')),
  ADD COLUMN surface_speed_ms double precision CHECK (surface_speed_ms > 0),
  ADD COLUMN cross_area_m2 double precision CHECK (cross_area_m2 > 0),
  ADD COLUMN cooling_w double precision CHECK (cooling_w >= 0),
  ADD COLUMN reserve_m3 double precision CHECK (reserve_m3 > 0),
  ADD COLUMN days_unattended double precision CHECK (days_unattended >= 0);

ALTER TABLE target DROP CONSTRAINT target_kind_check;
ALTER TABLE target ADD CONSTRAINT target_kind_check CHECK (kind IN ('temperature', 'level', 'flow', 'runtime', 'money', 'thickness'));
ALTER TABLE target ADD COLUMN set_by text NOT NULL DEFAULT '';

ALTER TABLE reading DROP CONSTRAINT reading_quantity_check;
ALTER TABLE reading ADD CONSTRAINT reading_quantity_check CHECK (quantity IN ('temperature', 'level', 'flow', 'pressure', 'rotation', 'voltage', 'current', 'power', 'duration'));

CREATE TABLE port (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  role text NOT NULL CHECK (role IN ('in', 'out')),
  name text NOT NULL,
  side text NOT NULL CHECK (side IN ('front', 'back', 'left', 'right', 'top', 'bottom')),
  area_m2 double precision CHECK (area_m2 > 0),
  flow_m3s double precision CHECK (flow_m3s >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, id)
);

CREATE TABLE doubt (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  grade text NOT NULL CHECK (grade IN ('measured', 'good-guess', 'rough-guess', 'range')),
  low double precision,
  high double precision CHECK (high >= low),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, id)
);

CREATE TABLE sink_point (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  position integer NOT NULL CHECK (position >= 0),
  flow_m3s double precision NOT NULL CHECK (flow_m3s > 0),
  k_per_w double precision NOT NULL CHECK (k_per_w > 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, position)
);

ALTER TABLE path_element DROP CONSTRAINT path_element_kind_check;
ALTER TABLE path_element ADD CONSTRAINT path_element_kind_check CHECK (kind IN (
  'opening', 'slot', 'grille', 'hood', 'filter', 'duct', 'bend', 'reducer', 'wye', 'damper', 'flap', 'fins', 'adapter', 'chamber', 'outlet', 'custom', 'split', 'fan'));
ALTER TABLE path_element
  ADD COLUMN branch_id text,
  ADD COLUMN style text,
  ADD COLUMN pattern text CHECK (pattern IN ('staggered', 'square', 'mesh', 'slots')),
  ADD COLUMN hole_m double precision CHECK (hole_m > 0),
  ADD COLUMN pitch_m double precision CHECK (pitch_m > 0),
  ADD COLUMN diameter2_m double precision CHECK (diameter2_m > 0),
  ADD COLUMN width_m double precision CHECK (width_m > 0),
  ADD COLUMN height_m double precision CHECK (height_m > 0),
  ADD COLUMN gap_m double precision CHECK (gap_m > 0),
  ADD COLUMN fin_m double precision CHECK (fin_m > 0),
  ADD COLUMN grain_m double precision CHECK (grain_m > 0);

-- A way of a split; an element may stand in one. Checked at the end of a save, as the two speak of each other.
CREATE TABLE path_branch (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  split_id text NOT NULL,
  name text NOT NULL,
  leak boolean NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, id),
  FOREIGN KEY (job_id, split_id) REFERENCES path_element (job_id, id) DEFERRABLE INITIALLY DEFERRED
);
ALTER TABLE path_element ADD FOREIGN KEY (job_id, branch_id) REFERENCES path_branch (job_id, id) DEFERRABLE INITIALLY DEFERRED;

CREATE TABLE loss_point (
  job_id text NOT NULL,
  element_id text NOT NULL,
  position integer NOT NULL CHECK (position >= 0),
  flow_m3s double precision NOT NULL CHECK (flow_m3s > 0),
  pressure_pa double precision NOT NULL CHECK (pressure_pa >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, element_id, position),
  FOREIGN KEY (job_id, element_id) REFERENCES path_element (job_id, id) ON DELETE CASCADE
);

CREATE TABLE calibration (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  kind text NOT NULL CHECK (kind IN ('flow', 'pairs', 'rise')),
  used boolean NOT NULL,
  fan_id text REFERENCES fan,
  count integer NOT NULL CHECK (count BETWEEN 1 AND 12),
  volts double precision CHECK (volts >= 0),
  flow_m3s double precision CHECK (flow_m3s > 0),
  heat_w double precision CHECK (heat_w >= 0),
  rise_k double precision CHECK (rise_k > 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);

CREATE TABLE calibration_point (
  job_id text NOT NULL REFERENCES calibration ON DELETE CASCADE,
  position integer NOT NULL CHECK (position >= 0),
  flow_m3s double precision NOT NULL CHECK (flow_m3s > 0),
  pressure_pa double precision NOT NULL CHECK (pressure_pa >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, position)
);
