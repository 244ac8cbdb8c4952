-- what was built so far, step by step, and cautions that somebody answered for
CREATE TABLE plan_build (
  job_id text PRIMARY KEY REFERENCES job ON DELETE CASCADE,
  id text NOT NULL,
  ticks jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(ticks) = 'array'),
  releases jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(releases) = 'array'),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
-- cellar, dust that can burn, audio and drives
ALTER TABLE job DROP CONSTRAINT IF EXISTS job_cautions_check;
ALTER TABLE job ADD CONSTRAINT job_cautions_check CHECK (cardinality(cautions) <= 10);
