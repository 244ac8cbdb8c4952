-- Log, instruments and verdict: richer runs and readings, pictures of set-ups, logs in blocks, instruments with their tokens.

ALTER TABLE run DROP CONSTRAINT run_kind_check;
ALTER TABLE run ADD CONSTRAINT run_kind_check CHECK (kind IN ('baseline', 'after', 'bench'));
ALTER TABLE run
  ADD COLUMN change_no integer CHECK (change_no BETWEEN 1 AND 99),
  ADD COLUMN changed text CHECK (changed IN ('fan', 'voltage', 'path', 'mount', 'other')),
  ADD COLUMN stage text NOT NULL DEFAULT '',
  ADD COLUMN who text NOT NULL DEFAULT '',
  ADD COLUMN stood_at text NOT NULL DEFAULT '',
  ADD COLUMN other_openings boolean,
  ADD COLUMN calibrated boolean,
  ADD COLUMN photo_id text,
  ADD COLUMN log_id text,
  ADD COLUMN slope_k_s double precision,
  ADD COLUMN tau_s double precision CHECK (tau_s >= 0);
UPDATE run SET change_no = 1 WHERE kind = 'after';

ALTER TABLE reading
  ADD COLUMN repeats double precision[] NOT NULL DEFAULT '{}' CHECK (cardinality(repeats) <= 60),
  ADD COLUMN stage text NOT NULL DEFAULT '',
  ADD COLUMN source text NOT NULL DEFAULT '',
  ADD COLUMN method text CHECK (method IN ('traverse', 'hood', 'jet', 'vane-centre')),
  ADD COLUMN points integer CHECK (points BETWEEN 1 AND 400);
ALTER TABLE job
  ADD COLUMN stated_change double precision CHECK (stated_change >= -1),
  ADD COLUMN stated_of text CHECK (stated_of IN ('temperature', 'level', 'flow', 'pressure', 'rotation', 'voltage', 'current', 'power', 'duration')),
  ADD COLUMN ranked_by text CHECK (ranked_by IN ('flow-per-loudness', 'flow-per-money', 'flow-per-decibel')),
  ADD COLUMN care_from text CHECK (care_from ~ '^\d{4}-\d{2}-\d{2}$'),
  ADD COLUMN blades_days integer CHECK (blades_days > 0),
  ADD COLUMN filter_days integer CHECK (filter_days > 0),
  ADD COLUMN tariff double precision CHECK (tariff >= 0);

-- pictures belong to a fan or to a job's set-up
ALTER TABLE fan_attachment RENAME TO attachment;
ALTER TABLE attachment ALTER COLUMN fan_id DROP NOT NULL;
ALTER TABLE attachment
  ADD COLUMN job_id text REFERENCES job ON DELETE CASCADE,
  ADD CONSTRAINT attachment_one_owner CHECK (num_nonnulls(fan_id, job_id) = 1);
CREATE INDEX attachment_job ON attachment (job_id);

-- a board, a serial port or the stand-in; of its token only a fingerprint is kept
CREATE TABLE instrument (
  id text PRIMARY KEY,
  name text NOT NULL CHECK (name <> ''),
  kind text NOT NULL CHECK (kind IN ('board', 'serial', 'stand-in')),
  token_hash text NOT NULL UNIQUE,
  deleted_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);

CREATE TABLE log (
  id text PRIMARY KEY,
  job_id text NOT NULL REFERENCES job ON DELETE CASCADE,
  instrument_id text REFERENCES instrument,
  name text NOT NULL,
  origin text NOT NULL CHECK (origin IN ('recorded', 'imported')),
  started_at timestamptz NOT NULL,
  -- while it is open its instrument writes to it
  open boolean NOT NULL DEFAULT false,
  -- what was wrong in an imported file, in words
  remarks text NOT NULL DEFAULT '',
  deleted_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
CREATE INDEX log_job ON log (job_id);
CREATE UNIQUE INDEX log_one_open ON log (instrument_id) WHERE open AND deleted_at IS NULL;

CREATE TABLE log_channel (
  log_id text NOT NULL REFERENCES log ON DELETE CASCADE,
  position integer NOT NULL,
  name text NOT NULL CHECK (name <> ''),
  quantity text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (log_id, position),
  UNIQUE (log_id, name, quantity)
);

-- samples in blocks of rows: times (s from the start), then each channel, little-endian doubles; NaN is a gap.
-- an older block has fewer channels than its log where a channel joined later
CREATE TABLE log_block (
  log_id text NOT NULL REFERENCES log ON DELETE CASCADE,
  seq bigint NOT NULL,
  rows integer NOT NULL CHECK (rows > 0),
  channels integer NOT NULL CHECK (channels >= 0),
  data bytea NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (log_id, seq),
  CHECK (octet_length(data) = rows * (channels + 1) * 8)
);

-- doubles with noise in them do not compress: trying costs more than writing
ALTER TABLE log_block ALTER COLUMN data SET STORAGE EXTERNAL;

-- how far each start of a board has been written, so that a row sent again is known
CREATE TABLE log_boot (
  log_id text NOT NULL REFERENCES log ON DELETE CASCADE,
  boot text NOT NULL,
  last_seq bigint NOT NULL,
  last_ms double precision NOT NULL,
  -- seconds of the log at the board's zero
  offset_s double precision NOT NULL,
  lost bigint NOT NULL DEFAULT 0,
  repeated bigint NOT NULL DEFAULT 0,
  clock_jumps integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (log_id, boot)
);
