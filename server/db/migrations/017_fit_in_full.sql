-- what is in the way, openings that are there, fans placed by hand, guard and filter in the air path, blowers, cables
ALTER TABLE fan_fit
  ADD COLUMN opening text,
  ADD COLUMN opening_width_m double precision,
  ADD COLUMN opening_height_m double precision,
  ADD COLUMN sits_in text,
  ADD COLUMN positions jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(positions) = 'array'),
  ADD COLUMN things jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(things) = 'array'),
  ADD COLUMN cut_way text,
  ADD COLUMN drill_m double precision,
  ADD COLUMN guard_bar_m double precision,
  ADD COLUMN filter_medium text,
  ADD COLUMN filter_area_m2 double precision,
  ADD COLUMN filter_held text,
  ADD COLUMN filter_reach boolean,
  ADD COLUMN adapter_from text,
  ADD COLUMN adapter_to text,
  ADD COLUMN adapter_height_m double precision,
  ADD COLUMN sink_m double precision,
  ADD COLUMN cable_m double precision,
  ADD COLUMN lead_m double precision,
  ADD COLUMN route_m double precision,
  ADD COLUMN slack_m double precision,
  ADD COLUMN blower_face text,
  ADD COLUMN intakes integer,
  ADD COLUMN intake_m double precision,
  ADD COLUMN outlet_width_m double precision,
  ADD COLUMN outlet_height_m double precision,
  ADD COLUMN outlet_from_m double precision,
  ADD COLUMN lugs jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(lugs) = 'array');
ALTER TABLE stock_part DROP CONSTRAINT stock_part_kind_check;
ALTER TABLE stock_part ADD CONSTRAINT stock_part_kind_check CHECK (kind IN ('supply', 'converter', 'battery', 'fuse', 'wire',
  'connector', 'guard', 'filter', 'saw', 'screw', 'gasket', 'grommet', 'other'));
-- the second place of a stream's fans: what of the job is told of it, and how they are cut in and held there
CREATE TABLE second_place (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  job jsonb NOT NULL CHECK (jsonb_typeof(job) = 'object'),
  fit jsonb CHECK (jsonb_typeof(fit) = 'object'),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
ALTER TABLE air_stream ADD COLUMN second_place jsonb;
