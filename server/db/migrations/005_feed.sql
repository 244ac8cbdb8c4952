-- The feed as a tree, how it is wired, batteries and sun.

ALTER TABLE power_source
  ADD COLUMN open_v double precision CHECK (open_v >= 0),
  ADD COLUMN fuse_distance_m double precision CHECK (fuse_distance_m >= 0),
  ADD COLUMN usb_kind text CHECK (usb_kind IN ('usb2-unconfigured', 'usb2-configured', 'usb3-unconfigured', 'usb3-configured', 'bc12', 'typec-1A5', 'typec-3A')),
  ADD COLUMN type_c_pull_down boolean,
  ADD COLUMN tap text CHECK (tap IN ('12V', '5V', '7V')),
  ADD COLUMN five_load_a double precision CHECK (five_load_a >= 0),
  ADD COLUMN transient_protected boolean,
  ADD COLUMN reversible boolean;
UPDATE power_source SET usb_kind = 'usb2-configured' WHERE kind = 'usb';
-- a wire without length is a wire that is not known yet
UPDATE power_source SET wire_length_m = NULL WHERE wire_length_m = 0;

ALTER TABLE power_converter DROP CONSTRAINT power_converter_kind_check;
ALTER TABLE power_converter
  ADD CONSTRAINT power_converter_kind_check CHECK (kind IN ('buck', 'boost', 'linear', 'resistor', 'divider', 'diode', 'pwm')),
  ADD COLUMN ohm double precision CHECK (ohm > 0),
  ADD COLUMN ohm2 double precision CHECK (ohm2 > 0),
  ADD COLUMN rating_w double precision CHECK (rating_w > 0),
  ADD COLUMN diodes integer CHECK (diodes > 0),
  ADD COLUMN duty double precision CHECK (duty > 0 AND duty <= 1),
  ADD COLUMN pwm_hz double precision CHECK (pwm_hz > 0),
  ADD COLUMN switch_side text CHECK (switch_side IN ('high', 'low')),
  ADD COLUMN flyback boolean,
  ADD COLUMN theta_k_w double precision CHECK (theta_k_w > 0),
  ADD COLUMN caps_fitted boolean,
  ADD COLUMN cap_v double precision CHECK (cap_v > 0);

CREATE TABLE feed_part (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  parent_id text CHECK (parent_id <> id),
  kind text NOT NULL CHECK (kind IN ('converter', 'branch', 'load')),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  wire_awg integer CHECK (wire_awg BETWEEN 10 AND 30),
  wire_length_m double precision CHECK (wire_length_m > 0),
  fuse_a double precision CHECK (fuse_a > 0),
  converter_kind text CHECK (converter_kind IN ('buck', 'boost', 'linear', 'resistor')),
  out_v double precision CHECK (out_v > 0),
  i_max_a double precision CHECK (i_max_a > 0),
  efficiency double precision CHECK (efficiency > 0 AND efficiency <= 1),
  ohm double precision CHECK (ohm > 0),
  set_first boolean,
  load_kind text CHECK (load_kind IN ('fan', 'led', 'module', 'board', 'pump', 'other')),
  count integer NOT NULL CHECK (count > 0),
  current_a double precision CHECK (current_a >= 0),
  start_a double precision CHECK (start_a >= 0),
  rated_v double precision CHECK (rated_v >= 0),
  fan_id text REFERENCES fan,
  led_string integer CHECK (led_string > 0),
  led_v double precision CHECK (led_v > 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, id)
);
-- the loads there were hang on the converter or on the source
INSERT INTO feed_part (job_id, id, position, parent_id, kind, name, load_kind, count, current_a, start_a)
  SELECT l.job_id, l.id, l.position, CASE WHEN l.after_converter THEN c.id END, 'load', CASE WHEN l.name = '' THEN 'Load' ELSE l.name END, 'other', l.count, l.current_a, l.start_a
  FROM power_load l LEFT JOIN power_converter c ON c.job_id = l.job_id;
DROP TABLE power_load;

CREATE TABLE wiring (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  plus_colour text NOT NULL,
  minus_colour text NOT NULL,
  identified_by text CHECK (identified_by IN ('position', 'measurement', 'colour')),
  connector text,
  "join" text CHECK ("join" IN ('adapter', 'cut')),
  strain_relief boolean,
  reverse_protected boolean,
  route_m double precision CHECK (route_m > 0),
  bundle integer CHECK (bundle > 0),
  insulation_c double precision,
  wire_air_c double precision,
  tach_used boolean,
  tach_joined integer CHECK (tach_joined >= 0),
  hub text CHECK (hub IN ('none', 'passive', 'powered')),
  header_mode text CHECK (header_mode IN ('pwm', 'voltage')),
  pwm_sink_a double precision CHECK (pwm_sink_a >= 0),
  pwm_pin_v double precision CHECK (pwm_pin_v >= 0),
  electrical_series boolean,
  barrel_plug_m double precision CHECK (barrel_plug_m > 0),
  barrel_jack_m double precision CHECK (barrel_jack_m > 0),
  crimp_pull_n double precision CHECK (crimp_pull_n >= 0),
  shrink_bore_m double precision CHECK (shrink_bore_m > 0),
  shrink_ratio double precision CHECK (shrink_ratio > 1),
  switch_dc_v double precision CHECK (switch_dc_v >= 0),
  switch_dc_a double precision CHECK (switch_dc_a >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);

CREATE TABLE battery (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  chemistry text NOT NULL CHECK (chemistry IN ('li-ion', 'lifepo4', 'lead-acid', 'nimh', 'alkaline')),
  cells integer CHECK (cells > 0),
  charge_c double precision CHECK (charge_c > 0),
  cell_v double precision CHECK (cell_v > 0),
  depth double precision CHECK (depth > 0 AND depth <= 1),
  max_a double precision CHECK (max_a > 0),
  auto_off_a double precision CHECK (auto_off_a >= 0),
  idle_w double precision CHECK (idle_w >= 0),
  protected_pack boolean,
  cold_c double precision,
  charged_cold boolean,
  air_travel boolean,
  energy_basis text NOT NULL CHECK (energy_basis IN ('cell-voltage', 'output-voltage')),
  wished_s double precision CHECK (wished_s > 0),
  duty_share double precision CHECK (duty_share > 0 AND duty_share <= 1),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);

CREATE TABLE sun (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  panel_w double precision CHECK (panel_w > 0),
  panel_voc double precision CHECK (panel_voc > 0),
  panel_vmp double precision CHECK (panel_vmp > 0),
  controller text NOT NULL CHECK (controller IN ('tracking', 'series', 'none')),
  sun_hours double precision[] NOT NULL CHECK (array_length(sun_hours, 1) = 12),
  wished_days double precision CHECK (wished_days >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);

ALTER TABLE job
  ADD COLUMN opens_supply boolean,
  ADD COLUMN stored_v double precision CHECK (stored_v >= 0),
  ADD COLUMN discharged boolean,
  ADD COLUMN earth_refitted boolean,
  ADD COLUMN supply_opening boolean,
  ADD COLUMN laser boolean,
  ADD COLUMN light_baffle boolean,
  ADD COLUMN thermal_cutout boolean,
  ADD COLUMN adapter_in_wet boolean,
  ADD COLUMN touch_c double precision;
