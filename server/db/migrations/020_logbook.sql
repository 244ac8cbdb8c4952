-- one line for each thing that happened to a job
CREATE TABLE plan_event (
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  position integer NOT NULL,
  at timestamptz NOT NULL,
  kind text NOT NULL CHECK (kind IN ('check', 'setting', 'fault', 'care', 'repair', 'note')),
  who text NOT NULL DEFAULT '',
  what text NOT NULL,
  before text NOT NULL DEFAULT '',
  after text NOT NULL DEFAULT '',
  parts text NOT NULL DEFAULT '',
  notes text NOT NULL DEFAULT '',
  care_key text NOT NULL DEFAULT '',
  next_due date,
  settings text NOT NULL DEFAULT '',
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, id)
);
-- how dusty the air is that is drawn in
ALTER TABLE job ADD COLUMN air_dust text CHECK (air_dust IN ('clean', 'usual', 'dusty'));
