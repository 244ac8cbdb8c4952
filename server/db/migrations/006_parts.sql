-- Supplies, converters, batteries, filters, guards and small parts that one owns or could buy.

CREATE TABLE stock_part (
  id text PRIMARY KEY,
  kind text NOT NULL CHECK (kind IN ('supply', 'converter', 'battery', 'fuse', 'wire', 'connector', 'guard', 'filter', 'other')),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  volts double precision CHECK (volts > 0),
  amps double precision CHECK (amps > 0),
  price double precision CHECK (price >= 0),
  owned boolean NOT NULL DEFAULT false,
  notes text NOT NULL DEFAULT '',
  deleted_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
