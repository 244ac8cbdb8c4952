-- fans measured on a carton: rig and readings; and what a measured curve is worth
ALTER TABLE fan
  ADD COLUMN curve_share double precision CHECK (curve_share > 0 AND curve_share <= 1),
  ADD COLUMN sheet_points jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(sheet_points) = 'array');
CREATE TABLE fan_carton (
  fan_id text NOT NULL REFERENCES fan ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  specimen text NOT NULL,
  taken_at timestamptz NOT NULL,
  way text NOT NULL CHECK (way IN ('into', 'out')),
  width_m double precision NOT NULL CHECK (width_m > 0),
  height_m double precision NOT NULL CHECK (height_m > 0),
  depth_m double precision NOT NULL CHECK (depth_m > 0),
  holes_m double precision[] NOT NULL DEFAULT '{}' CHECK (cardinality(holes_m) <= 20),
  cut_m double precision NOT NULL CHECK (cut_m >= 0),
  gauge_pa double precision NOT NULL CHECK (gauge_pa > 0),
  gauge_share double precision NOT NULL CHECK (gauge_share >= 0),
  leak_hole_m double precision CHECK (leak_hole_m > 0),
  leak_pressure_pa double precision CHECK (leak_pressure_pa >= 0),
  ambient_c double precision NOT NULL,
  altitude_m double precision NOT NULL,
  notes text NOT NULL DEFAULT '',
  readings jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(readings) = 'array'),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (fan_id, id)
);
