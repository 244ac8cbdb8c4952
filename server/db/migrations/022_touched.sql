-- What was touched since a moment is asked for at every ranking: not by reading every fan.
CREATE INDEX fan_updated_at ON fan (updated_at);
