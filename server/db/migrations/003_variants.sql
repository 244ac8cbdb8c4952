-- Variants of a job, kept side by side with the one they came from.

ALTER TABLE job ADD COLUMN variant_of text REFERENCES job ON DELETE SET NULL;
CREATE INDEX job_variant_of ON job (variant_of);
