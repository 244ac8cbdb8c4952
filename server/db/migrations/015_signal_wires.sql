-- where tach and PWM wires lead: a hub fed by its own supply is steered by a host's header or a controller
ALTER TABLE wiring
  ADD COLUMN tach_to text CHECK (tach_to IN ('open', 'host', 'controller', 'alarm', 'input')),
  ADD COLUMN pwm_from text CHECK (pwm_from IN ('open', 'host', 'controller', 'tied')),
  ADD COLUMN pwm_tie_ohm double precision CHECK (pwm_tie_ohm > 0),
  ADD COLUMN grounds_joined boolean;
UPDATE wiring SET tach_to = CASE WHEN tach_used THEN 'input' ELSE 'open' END WHERE tach_used IS NOT NULL;
ALTER TABLE wiring DROP COLUMN tach_used;
