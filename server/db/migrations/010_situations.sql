-- Situations to mind that no other field tells: a list of their keys.
ALTER TABLE job ADD COLUMN cautions text[] NOT NULL DEFAULT '{}' CHECK (cardinality(cautions) <= 7);
