-- an import that was cut short is marked; of a board: what came late, which running numbers are still missing, and a row
-- whose number leaps until the next one confirms it
ALTER TABLE log ADD COLUMN whole boolean NOT NULL DEFAULT true;
ALTER TABLE log_boot
  ADD COLUMN late bigint NOT NULL DEFAULT 0,
  ADD COLUMN gaps jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(gaps) = 'array'),
  ADD COLUMN held jsonb;
