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

-- switches and diodes in a lead, and the lead of the first stream's fans behind them
ALTER TABLE feed_part DROP CONSTRAINT feed_part_kind_check;
ALTER TABLE feed_part ADD CONSTRAINT feed_part_kind_check CHECK (kind IN ('converter', 'branch', 'load', 'switch'));
ALTER TABLE feed_part DROP CONSTRAINT feed_part_converter_kind_check;
ALTER TABLE feed_part ADD CONSTRAINT feed_part_converter_kind_check CHECK (converter_kind IN ('buck', 'boost', 'linear',
  'resistor', 'diode'));
ALTER TABLE feed_part
  ADD COLUMN diodes integer CHECK (diodes BETWEEN 1 AND 20),
  ADD COLUMN diode_kind text CHECK (diode_kind IN ('silicon', 'schottky')),
  ADD COLUMN carries_fans boolean NOT NULL DEFAULT false,
  ADD COLUMN switch_kind text CHECK (switch_kind IN ('hand', 'relay', 'timer', 'thermal-no', 'thermal-nc', 'thermostat')),
  ADD COLUMN contact_v double precision CHECK (contact_v > 0),
  ADD COLUMN contact_a double precision CHECK (contact_a > 0),
  ADD COLUMN spark_diode boolean,
  ADD COLUMN on_c double precision,
  ADD COLUMN off_c double precision,
  ADD COLUMN sensor_at text NOT NULL DEFAULT '',
  ADD COLUMN coil_a double precision CHECK (coil_a >= 0);
