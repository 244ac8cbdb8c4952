-- Fans at two places, each with its own; openings that stand several times.
ALTER TABLE path_branch ADD COLUMN times integer NOT NULL DEFAULT 1 CHECK (times BETWEEN 1 AND 16);
ALTER TABLE fan_selection ADD COLUMN second_count integer CHECK (second_count BETWEEN 1 AND 15);

-- targets of any kind, with a name and unit of their own, between two limits too
ALTER TABLE target DROP CONSTRAINT target_kind_check;
ALTER TABLE target ADD CONSTRAINT target_kind_check CHECK (kind IN ('temperature', 'rise', 'level', 'flow', 'airchanges',
  'airspeed', 'distance', 'pressure', 'runtime', 'time', 'humidity', 'evaporation', 'rotation', 'current', 'power', 'money',
  'thickness', 'weight', 'other'));
ALTER TABLE target DROP CONSTRAINT target_sense_check;
ALTER TABLE target ADD CONSTRAINT target_sense_check CHECK (sense IN ('least', 'most', 'between'));
ALTER TABLE target
  ADD COLUMN name text NOT NULL DEFAULT '',
  ADD COLUMN unit text NOT NULL DEFAULT '',
  ADD COLUMN upper double precision;

-- readings for each of them
ALTER TABLE reading DROP CONSTRAINT reading_quantity_check;
ALTER TABLE reading ADD CONSTRAINT reading_quantity_check CHECK (quantity IN ('temperature', 'level', 'flow', 'pressure',
  'rotation', 'voltage', 'current', 'power', 'duration', 'speed', 'distance', 'ratio', 'waterPerDay', 'number'));
