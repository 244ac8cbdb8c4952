-- where the fans are cut in and held
CREATE TABLE fan_fit (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  material text,
  panel_m double precision,
  panel_width_m double precision,
  panel_height_m double precision,
  keep_clear jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(keep_clear) = 'array'),
  guard text,
  guard_m double precision,
  guard_opening_m double precision,
  guard_shape text,
  guard_gap_m double precision,
  reach boolean,
  child_reach boolean,
  gasket_m double precision,
  spacer_m double precision,
  pad_m double precision,
  filter_m double precision,
  adapter_m double precision,
  adapter_length_m double precision,
  thread double precision,
  washers integer,
  screw_m double precision,
  behind_m double precision,
  cable_gap_m double precision,
  surface_c double precision,
  soften_c double precision,
  side_measured_m double precision,
  spacing_measured_m double precision,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
ALTER TABLE air_stream ADD COLUMN fit jsonb;
ALTER TABLE job DROP CONSTRAINT job_mount_kind_check;
ALTER TABLE job ADD CONSTRAINT job_mount_kind_check CHECK (mount_kind IN ('screws', 'near-flange', 'self-tapping', 'inserts',
  'push-pins', 'clips', 'strips', 'adhesive', 'magnets', 'bracket', 'rubber', 'ties'));
ALTER TABLE stock_part DROP CONSTRAINT stock_part_kind_check;
ALTER TABLE stock_part ADD CONSTRAINT stock_part_kind_check CHECK (kind IN ('supply', 'converter', 'battery', 'fuse', 'wire',
  'connector', 'guard', 'filter', 'saw', 'screw', 'other'));
