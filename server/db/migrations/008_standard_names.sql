-- The field's own names: what is chosen is a fan selection, what is not sure an uncertainty; units that could be misread are spelled out.
ALTER TABLE pick RENAME TO fan_selection;
ALTER TABLE doubt RENAME TO uncertainty;
ALTER TABLE job RENAME COLUMN care_from TO maintenance_from;
ALTER TABLE job RENAME COLUMN part_inner_k_w TO part_inner_k_per_w;
ALTER TABLE power_converter RENAME COLUMN theta_k_w TO junction_to_air_k_per_w;
ALTER TABLE battery RENAME COLUMN charge_c TO charge_coulomb;
-- doubted inputs are kept by name
UPDATE uncertainty SET id = 'partInnerKPerW' WHERE id = 'partInnerKW';
