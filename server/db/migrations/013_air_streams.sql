-- A machine has several air streams: the first stands in the job itself, each further one in a row of its own.
ALTER TABLE job
  ADD COLUMN stream_name text NOT NULL DEFAULT '',
  ADD COLUMN as_is boolean NOT NULL DEFAULT false,
  ADD COLUMN heard_db_a double precision CHECK (heard_db_a BETWEEN 0 AND 130);

CREATE TABLE air_stream (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  id text NOT NULL CHECK (id <> 'main'),
  position integer NOT NULL CHECK (position BETWEEN 0 AND 6),
  job jsonb NOT NULL CHECK (jsonb_typeof(job) = 'object'),
  ports jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(ports) = 'array'),
  uncertainties jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(uncertainties) = 'array'),
  sink jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(sink) = 'array'),
  path jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(path) = 'array' AND jsonb_array_length(path) <= 80),
  branches jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(branches) = 'array'),
  calibration jsonb,
  selection jsonb,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, id)
);

-- the lead of a further stream's fans
ALTER TABLE feed_part ADD COLUMN stream_id text;

-- a target may be about one of the further streams
ALTER TABLE target ADD COLUMN stream_id text;

-- further sources, each with all that the first one has
CREATE TABLE further_source (LIKE power_source INCLUDING DEFAULTS INCLUDING CONSTRAINTS);
ALTER TABLE further_source
  ADD COLUMN position integer NOT NULL CHECK (position BETWEEN 0 AND 6),
  ADD PRIMARY KEY (job_id, id),
  ADD FOREIGN KEY (job_id) REFERENCES job ON DELETE CASCADE;

-- up to sixteen fans in a group
ALTER TABLE fan_selection DROP CONSTRAINT pick_count_check;
ALTER TABLE fan_selection ADD CONSTRAINT fan_selection_count_check CHECK (count BETWEEN 1 AND 16);
ALTER TABLE calibration DROP CONSTRAINT calibration_count_check;
ALTER TABLE calibration ADD CONSTRAINT calibration_count_check CHECK (count BETWEEN 1 AND 16);

-- targets of further kinds, each in its own sense and stage
ALTER TABLE target DROP CONSTRAINT target_kind_check;
ALTER TABLE target ADD CONSTRAINT target_kind_check CHECK (kind IN ('temperature', 'level', 'flow', 'pressure', 'runtime',
  'time', 'rotation', 'current', 'power', 'money', 'thickness'));
ALTER TABLE target
  ADD COLUMN sense text CHECK (sense IN ('least', 'most')),
  ADD COLUMN stage text NOT NULL DEFAULT '';
