-- an import that was cut short is marked; what came late and which running numbers are still missing
ALTER TABLE log ADD COLUMN whole boolean NOT NULL DEFAULT true;
ALTER TABLE log_boot
  ADD COLUMN late bigint NOT NULL DEFAULT 0,
  ADD COLUMN gaps jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(gaps) = 'array');
