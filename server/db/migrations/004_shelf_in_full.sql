-- The fan record in full, own bench tests, pictures of data sheets, unlike pairs and PWM drive.

ALTER TABLE fan
  ADD COLUMN thickness_measured_m double precision CHECK (thickness_measured_m > 0),
  ADD COLUMN hole_spacing_m double precision CHECK (hole_spacing_m > 0),
  ADD COLUMN rated_w double precision CHECK (rated_w > 0),
  ADD COLUMN also_flow_m3s double precision CHECK (also_flow_m3s > 0),
  ADD COLUMN also_pressure_pa double precision CHECK (also_pressure_pa > 0),
  ADD COLUMN noise_sone double precision CHECK (noise_sone > 0),
  ADD COLUMN connector text CHECK (connector IN ('bare', 'header-2', 'header-3', 'header-4', 'small-4', 'peripheral', 'barrel', 'usb', 'other')),
  ADD COLUMN pwm_min_duty double precision CHECK (pwm_min_duty BETWEEN 0 AND 1),
  ADD COLUMN pwm_start_duty double precision CHECK (pwm_start_duty BETWEEN 0 AND 1),
  ADD COLUMN pwm_min_speed double precision CHECK (pwm_min_speed BETWEEN 0 AND 1),
  ADD COLUMN blades integer CHECK (blades BETWEEN 2 AND 60),
  ADD COLUMN shaft_allowed text CHECK (shaft_allowed IN ('any', 'horizontal', 'vertical')),
  ADD COLUMN life_h double precision CHECK (life_h > 0),
  ADD COLUMN life_c double precision,
  ADD COLUMN ip_solid integer CHECK (ip_solid BETWEEN 0 AND 6),
  ADD COLUMN min_air_c double precision,
  ADD COLUMN price_on text CHECK (price_on ~ '^\d{4}-\d{2}-\d{2}$');

-- the list is opened by frame and name, and searched in words
CREATE INDEX fan_order ON fan (frame_m, maker, model, id) WHERE deleted_at IS NULL;

CREATE TABLE fan_curve (
  fan_id text NOT NULL REFERENCES fan ON DELETE CASCADE,
  position integer NOT NULL CHECK (position >= 0),
  volts double precision NOT NULL CHECK (volts > 0),
  basis text NOT NULL CHECK (basis IN ('curve', 'measured', 'claim')),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (fan_id, position)
);

CREATE TABLE fan_curve_point (
  fan_id text NOT NULL,
  curve integer NOT NULL,
  position integer NOT NULL CHECK (position >= 0),
  flow_m3s double precision NOT NULL CHECK (flow_m3s >= 0),
  pressure_pa double precision NOT NULL CHECK (pressure_pa >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (fan_id, curve, position),
  FOREIGN KEY (fan_id, curve) REFERENCES fan_curve ON DELETE CASCADE
);

CREATE TABLE fan_source (
  fan_id text NOT NULL REFERENCES fan ON DELETE CASCADE,
  figure text NOT NULL,
  basis text NOT NULL CHECK (basis IN ('curve', 'measured', 'claim', 'estimated')),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (fan_id, figure)
);

CREATE TABLE fan_test (
  fan_id text NOT NULL REFERENCES fan ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  specimen text NOT NULL,
  taken_at timestamptz NOT NULL,
  volts double precision NOT NULL CHECK (volts > 0),
  ambient_c double precision,
  current_a double precision CHECK (current_a >= 0),
  start_a double precision CHECK (start_a >= 0),
  start_v double precision CHECK (start_v >= 0),
  rpm double precision CHECK (rpm >= 0),
  flow_m3s double precision CHECK (flow_m3s >= 0),
  pressure_pa double precision CHECK (pressure_pa >= 0),
  air_speed_ms double precision CHECK (air_speed_ms >= 0),
  level_db_a double precision,
  level_distance_m double precision CHECK (level_distance_m > 0),
  background_db_a double precision,
  notes text NOT NULL DEFAULT '',
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (fan_id, id)
);

CREATE TABLE fan_attachment (
  id text PRIMARY KEY,
  fan_id text NOT NULL REFERENCES fan ON DELETE CASCADE,
  name text NOT NULL,
  media_type text NOT NULL CHECK (media_type IN ('image/png', 'image/jpeg', 'image/webp', 'application/pdf')),
  bytes bytea NOT NULL,
  deleted_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
CREATE INDEX fan_attachment_fan ON fan_attachment (fan_id);

ALTER TABLE pick
  ADD COLUMN second_fan_id text REFERENCES fan,
  ADD COLUMN duty double precision CHECK (duty > 0 AND duty <= 1);
ALTER TABLE pick DROP CONSTRAINT pick_arrangement_check;
ALTER TABLE pick ADD CONSTRAINT pick_arrangement_check CHECK (arrangement IN ('single', 'parallel', 'series', 'places'));

ALTER TABLE job
  ADD COLUMN trust text NOT NULL DEFAULT 'own' CHECK (trust IN ('claims', 'own', 'discounted')),
  ADD COLUMN shaft text CHECK (shaft IN ('horizontal', 'vertical')),
  ADD COLUMN stack_extra_m double precision CHECK (stack_extra_m >= 0),
  ADD COLUMN existing_holes_m double precision CHECK (existing_holes_m > 0),
  ADD COLUMN hole_m double precision CHECK (hole_m > 0),
  ADD COLUMN screw_hole_m double precision CHECK (screw_hole_m > 0),
  ADD COLUMN mount_kind text CHECK (mount_kind IN ('screws', 'clips', 'adhesive', 'ties')),
  ADD COLUMN mount_capacity_kg double precision CHECK (mount_capacity_kg > 0),
  ADD COLUMN mount_isolated boolean,
  ADD COLUMN thin_panel boolean,
  ADD COLUMN panel_hz double precision CHECK (panel_hz > 0),
  ADD COLUMN upstream_gap_m double precision CHECK (upstream_gap_m >= 0);
