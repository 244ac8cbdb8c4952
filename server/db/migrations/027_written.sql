-- What a request wrote, by the id that it came with: sent again because its answer was lost, it is answered as the first
-- time. Kept for a day.
CREATE TABLE written (
  id text PRIMARY KEY,
  result jsonb,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  revision integer NOT NULL DEFAULT 1
);
CREATE INDEX written_created_at ON written (created_at);
-- What changed on the shelf is told by the order of transactions: a clock may be set back.
ALTER TABLE fan ADD COLUMN changed_in xid8 NOT NULL DEFAULT pg_current_xact_id();
CREATE INDEX fan_changed_in ON fan (changed_in);
DROP INDEX fan_updated_at;
CREATE FUNCTION fan_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  NEW.changed_in := pg_current_xact_id();
  RETURN NEW;
END $$;
CREATE TRIGGER fan_changed BEFORE UPDATE ON fan FOR EACH ROW EXECUTE FUNCTION fan_changed();
