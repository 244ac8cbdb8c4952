-- What nobody said may be assumed, with its range; findings may stand for a reason.
ALTER TABLE path_element DROP CONSTRAINT IF EXISTS path_element_basis_check;
ALTER TABLE path_element ADD CONSTRAINT path_element_basis_check
  CHECK (basis IN ('measured', 'sheet', 'good-guess', 'rough-guess', 'assumed'));
ALTER TABLE uncertainty DROP CONSTRAINT IF EXISTS uncertainty_grade_check;
ALTER TABLE uncertainty DROP CONSTRAINT IF EXISTS doubt_grade_check;
ALTER TABLE uncertainty ADD CONSTRAINT uncertainty_grade_check
  CHECK (grade IN ('measured', 'good-guess', 'rough-guess', 'range', 'assumed'));
ALTER TABLE job ADD COLUMN known jsonb NOT NULL DEFAULT '[]'
  CHECK (jsonb_typeof(known) = 'array' AND jsonb_array_length(known) <= 100);
