-- where tach and PWM wires lead: a hub fed by its own supply is steered by a host's header or a controller
ALTER TABLE wiring
  ADD COLUMN tach_to text CHECK (tach_to IN ('open', 'host', 'controller', 'alarm', 'input')),
  ADD COLUMN pwm_from text CHECK (pwm_from IN ('open', 'host', 'controller', 'tied')),
  ADD COLUMN pwm_tie_ohm double precision CHECK (pwm_tie_ohm > 0),
  ADD COLUMN grounds_joined boolean;
UPDATE wiring SET tach_to = CASE WHEN tach_used THEN 'input' ELSE 'open' END WHERE tach_used IS NOT NULL;
ALTER TABLE wiring DROP COLUMN tach_used;

-- load and soak of every stage of a run, and what the fans of every air stream did in it
CREATE TABLE run_stage (
  job_id text NOT NULL,
  run_id text NOT NULL,
  id text NOT NULL,
  position integer NOT NULL,
  stage text NOT NULL,
  heat_w double precision CHECK (heat_w >= 0),
  soak_s double precision CHECK (soak_s >= 0),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, run_id, id),
  FOREIGN KEY (job_id, run_id) REFERENCES run (job_id, id) ON DELETE CASCADE
);
CREATE TABLE run_fan (
  job_id text NOT NULL,
  run_id text NOT NULL,
  id text NOT NULL,
  position integer NOT NULL,
  stage text NOT NULL,
  stream_id text,
  "off" boolean,
  volts double precision CHECK (volts >= 0),
  duty double precision CHECK (duty BETWEEN 0 AND 1),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1,
  PRIMARY KEY (job_id, run_id, id),
  FOREIGN KEY (job_id, run_id) REFERENCES run (job_id, id) ON DELETE CASCADE
);
