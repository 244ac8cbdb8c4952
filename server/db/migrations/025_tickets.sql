-- Browsers that gave the workshop's password: of their tickets only the fingerprint is kept.
CREATE TABLE ticket (
  hash text PRIMARY KEY,
  id text NOT NULL UNIQUE,
  agent text NOT NULL CHECK (length(agent) <= 400),
  door text NOT NULL,
  ends_at timestamptz NOT NULL,
  seen_at timestamptz NOT NULL DEFAULT now(),
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
