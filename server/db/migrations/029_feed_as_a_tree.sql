-- Sources are one list; what hangs on them is another: the converter of the first stream's fans is a part like any other,
-- and the fans of every stream have a lead. The voltage that fans are driven at follows from what makes it. Plan files are
-- brought up to date in the same way (core/document/older-feed.ts).

ALTER TABLE feed_part
  DROP CONSTRAINT IF EXISTS feed_part_converter_kind_check,
  DROP CONSTRAINT IF EXISTS limit_converter_kind,
  ADD COLUMN dropout_v double precision,
  ADD COLUMN adjustable boolean NOT NULL DEFAULT true,
  ADD COLUMN measured_v double precision,
  ADD COLUMN ohm2 double precision,
  ADD COLUMN rating_w double precision,
  ADD COLUMN duty double precision,
  ADD COLUMN pwm_hz double precision,
  ADD COLUMN switch_side text,
  ADD COLUMN flyback boolean,
  ADD COLUMN junction_to_air_k_per_w double precision,
  ADD COLUMN caps_fitted boolean,
  ADD COLUMN cap_v double precision,
  ADD COLUMN wish_v double precision;

UPDATE feed_part SET converter_kind = 'buck' WHERE kind = 'converter' AND converter_kind IS NULL;
-- diodes and resistors make their voltage of their parts
UPDATE feed_part p SET out_v = NULL
  WHERE kind = 'converter' AND (converter_kind = 'diode' OR converter_kind = 'resistor' AND NOT EXISTS (
    SELECT FROM feed_part l WHERE l.job_id = p.job_id AND l.parent_id = p.id AND l.stream_id IS NOT NULL));
-- what named nothing hung on the first source
UPDATE feed_part p SET parent_id = s.id
  FROM power_source s WHERE s.job_id = p.job_id AND p.parent_id IS NULL AND p.id <> s.id;

-- what stood in the lead of the first stream's fans, from its beginning on
CREATE TEMPORARY TABLE trunk ON COMMIT DROP AS
WITH RECURSIVE chain AS (
  SELECT j.id AS job_id, coalesce(c.id, s.id) AS at, 0 AS depth
    FROM job j
    LEFT JOIN power_source s ON s.job_id = j.id
    LEFT JOIN power_converter c ON c.job_id = j.id
  UNION ALL
  SELECT chain.job_id, next.id, chain.depth + 1
    FROM chain, LATERAL (
      SELECT p.id FROM feed_part p
        WHERE p.job_id = chain.job_id AND p.carries_fans AND p.kind <> 'load'
          AND p.parent_id IS NOT DISTINCT FROM chain.at
        ORDER BY p.position LIMIT 1) next
    WHERE chain.depth < 120
)
SELECT * FROM chain;

-- first the converter, what stands in the lead, the lead itself; then the others as they stood
UPDATE feed_part SET position = position + 1000;
UPDATE feed_part p SET position = t.depth FROM trunk t WHERE t.job_id = p.job_id AND t.at = p.id AND t.depth > 0;
INSERT INTO feed_part
  (job_id, id, position, parent_id, kind, name, converter_kind, out_v, i_max_a, efficiency, dropout_v, adjustable,
    set_first, measured_v, ohm, ohm2, rating_w, diodes, diode_kind, duty, pwm_hz, switch_side, flyback,
    junction_to_air_k_per_w, caps_fitted, cap_v, count)
SELECT c.job_id, c.id, 0, s.id, 'converter',
  CASE c.kind WHEN 'buck' THEN 'Step-down converter' WHEN 'boost' THEN 'Step-up converter'
    WHEN 'linear' THEN 'Linear regulator' WHEN 'resistor' THEN 'Series resistor' WHEN 'divider' THEN 'Voltage divider'
    WHEN 'diode' THEN 'Series diodes' WHEN 'pwm' THEN 'Switched supply (PWM)' ELSE 'Converter' END,
  c.kind, c.out_v, c.i_max_a, c.efficiency, c.dropout_v, c.adjustable, c.set_first, c.measured_v, c.ohm, c.ohm2,
  c.rating_w, c.diodes, c.diode_kind, c.duty, c.pwm_hz, c.switch_side, c.flyback, c.junction_to_air_k_per_w,
  c.caps_fitted, c.cap_v, 1
FROM power_converter c LEFT JOIN power_source s ON s.job_id = c.job_id;

INSERT INTO feed_part
  (job_id, id, position, parent_id, kind, name, load_kind, stream_id, wire_awg, wire_mm2, wire_length_m, count)
SELECT a.job_id,
  -- what spoke of the fans in the feed named them by their pick
  CASE WHEN a.position = 0 AND jsonb_typeof(a.selection) = 'object' AND NOT EXISTS (
      SELECT FROM feed_part p WHERE p.job_id = a.job_id AND p.id = a.selection ->> 'id')
    THEN a.selection ->> 'id' ELSE left('lead-' || a.id, 64) END,
  CASE WHEN a.position = 0 THEN 500 ELSE 5000 + a.position END,
  CASE WHEN a.position = 0
    THEN (SELECT t.at FROM trunk t WHERE t.job_id = a.job_id ORDER BY t.depth DESC LIMIT 1) ELSE s.id END,
  'load', coalesce(nullif(a.job ->> 'streamName', ''), 'Fans'), 'fan', a.id,
  CASE WHEN a.position = 0 THEN s.wire_awg END,
  CASE WHEN a.position = 0 THEN s.wire_mm2 END,
  CASE WHEN a.position = 0 THEN s.wire_length_m END,
  1
FROM air_stream a LEFT JOIN power_source s ON s.job_id = a.job_id
WHERE (jsonb_typeof(a.selection) = 'object'
    OR a.position = 0 AND (s.id IS NOT NULL OR EXISTS (SELECT FROM power_converter c WHERE c.job_id = a.job_id)))
  AND NOT EXISTS (SELECT FROM feed_part p WHERE p.job_id = a.job_id AND p.stream_id = a.id);

UPDATE feed_part p SET position = o.position FROM (
  SELECT job_id, id, row_number() OVER (PARTITION BY job_id ORDER BY position) - 1 AS position FROM feed_part
) o WHERE o.job_id = p.job_id AND o.id = p.id;

-- one list of sources
ALTER TABLE further_source DROP CONSTRAINT further_source_position_check;
UPDATE further_source f SET position = position + 1
  WHERE EXISTS (SELECT FROM power_source s WHERE s.job_id = f.job_id);
INSERT INTO further_source
  (job_id, id, position, kind, name, nominal_v, low_v, high_v, i_max_a, i_peak_a, regulated, output, fuse_a, fuse_fitted,
    polarity_checked, open_v, fuse_distance_m, usb_kind, type_c_pull_down, tap, five_load_a, transient_protected,
    reversible, fuse_family, created_at, updated_at, revision)
SELECT job_id, id, 0, kind, name, nominal_v, low_v, high_v, i_max_a, i_peak_a, regulated, output, fuse_a, fuse_fitted,
    polarity_checked, open_v, fuse_distance_m, usb_kind, type_c_pull_down, tap, five_load_a, transient_protected,
    reversible, fuse_family, created_at, updated_at, revision
  FROM power_source;
DROP TABLE power_source, power_converter;
ALTER TABLE further_source RENAME TO power_source;
ALTER TABLE power_source DROP COLUMN wire_awg, DROP COLUMN wire_mm2, DROP COLUMN wire_length_m;

-- what fans were to be driven at is kept where nothing makes it
WITH RECURSIVE up AS (
  SELECT l.job_id, l.id AS lead, l.parent_id AS at, NULL::double precision AS volts, 0 AS depth
    FROM feed_part l WHERE l.stream_id IS NOT NULL
  UNION ALL
  SELECT up.job_id, up.lead, p.parent_id, CASE WHEN p.kind = 'converter' THEN p.out_v END, up.depth + 1
    FROM up JOIN feed_part p ON p.job_id = up.job_id AND p.id = up.at
    WHERE up.volts IS NULL AND up.depth < 140
)
UPDATE feed_part l SET wish_v = (a.selection ->> 'driveV')::double precision
  FROM air_stream a
  WHERE a.job_id = l.job_id AND a.id = l.stream_id AND NOT EXISTS (
    SELECT FROM up LEFT JOIN power_source s ON s.job_id = up.job_id AND s.id = up.at
      WHERE up.job_id = l.job_id AND up.lead = l.id AND (up.volts IS NOT NULL OR s.nominal_v IS NOT NULL));

ALTER TABLE feed_part DROP COLUMN carries_fans;
UPDATE air_stream SET selection = selection - 'driveV' WHERE jsonb_typeof(selection) = 'object';
