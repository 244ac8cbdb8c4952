-- The fans of an air stream stand at places, one list: what was told of the first place in the stream itself and of a
-- second one beside it is told of each. The duty of the PWM wire stands at the lead of the fans. Plan files are brought up
-- to date in the same way (core/document/older-places.ts).

ALTER TABLE air_stream ADD COLUMN places jsonb;

-- which fans stood where, and at which elements of the path
CREATE TEMPORARY TABLE standing ON COMMIT DROP AS
WITH told AS (
  SELECT job_id, id, position,
    CASE WHEN jsonb_typeof(selection) = 'object' THEN selection END AS picked,
    CASE WHEN jsonb_typeof(second_place) = 'object' THEN second_place END AS second,
    selection ->> 'fanId' AS fan, selection ->> 'secondFanId' AS other,
    (selection ->> 'secondCount')::integer AS other_count, selection ->> 'arrangement' AS arrangement,
    -- of a pair without further word there was one of each
    CASE WHEN selection ->> 'secondFanId' IS NOT NULL AND selection ->> 'secondCount' IS NULL THEN 2
      ELSE coalesce((selection ->> 'count')::integer, 1) END AS n
  FROM air_stream
), counted AS (
  SELECT *, picked IS NOT NULL AND n > 1 AND arrangement = 'places' AS apart,
    CASE WHEN n > 1 AND (other IS NOT NULL OR arrangement = 'places')
      THEN least(coalesce(other_count, CASE WHEN other IS NULL THEN n / 2 ELSE 1 END), n - 1) ELSE 0 END AS rest
  FROM told
), drawn AS (
  SELECT a.job_id, a.id, array_agg(f.e ->> 'id' ORDER BY o.ordinality, w.ordinality NULLS FIRST, f.ordinality) AS at
  FROM air_stream a,
    LATERAL jsonb_array_elements(a.path) WITH ORDINALITY AS f (e, ordinality)
    LEFT JOIN LATERAL jsonb_array_elements(a.branches) WITH ORDINALITY AS w (b, ordinality)
      ON w.b ->> 'id' = f.e ->> 'branchId'
    JOIN LATERAL jsonb_array_elements(a.path) WITH ORDINALITY AS o (e, ordinality)
      ON o.e ->> 'id' = coalesce(w.b ->> 'splitId', f.e ->> 'id')
  WHERE f.e ->> 'kind' = 'fan'
  GROUP BY a.job_id, a.id
)
SELECT c.job_id, c.id, c.second, c.apart,
  CASE WHEN c.picked IS NOT NULL AND row_number() OVER (PARTITION BY c.job_id, c.picked ->> 'id' ORDER BY c.position) = 1
    THEN c.picked ->> 'id' ELSE left('place-' || c.id, 64) END AS first_id,
  left('place-2-' || c.id, 64) AS second_id,
  d.at[1] AS first_at, d.at[2] AS second_at,
  CASE WHEN c.picked IS NULL THEN '[]'::jsonb
    WHEN c.apart THEN jsonb_build_array(jsonb_build_object('fanId', c.fan, 'count', c.n - c.rest))
    WHEN c.rest > 0 AND c.other <> c.fan THEN jsonb_build_array(
      jsonb_build_object('fanId', c.fan, 'count', c.n - c.rest), jsonb_build_object('fanId', c.other, 'count', c.rest))
    ELSE jsonb_build_array(jsonb_build_object('fanId', c.fan, 'count', c.n)) END AS here,
  CASE WHEN c.apart THEN jsonb_build_array(jsonb_build_object('fanId', coalesce(c.other, c.fan), 'count', c.rest))
    ELSE '[]'::jsonb END AS there,
  CASE WHEN c.picked IS NOT NULL AND c.arrangement = 'series' AND c.n > 1 THEN 'series' ELSE 'parallel' END AS arrangement
FROM counted c LEFT JOIN drawn d ON d.job_id = c.job_id AND d.id = c.id;

-- what a job told of a place
CREATE FUNCTION of_place(job jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT coalesce(jsonb_object_agg(key, value), '{}') FROM jsonb_each(job) WHERE key = ANY (ARRAY[
    'direction', 'mountedDirection', 'fitDepthM', 'fitWidthM', 'inletClearM', 'outletClearM', 'upstreamGapM', 'shaft',
    'stackExtraM', 'existingHolesM', 'holeM', 'screwHoleM', 'mountKind', 'mountCapacityKg', 'mountIsolated', 'thinPanel',
    'panelHz'])
$$;
UPDATE air_stream a SET
  places = jsonb_build_array(of_place(a.job) || jsonb_build_object('id', s.first_id, 'elementId', s.first_at,
      'fans', s.here, 'arrangement', s.arrangement, 'fit', a.fit))
    || CASE WHEN s.second_at IS NOT NULL OR s.apart OR s.second IS NOT NULL
      THEN jsonb_build_array(
        jsonb_build_object('direction', CASE a.job ->> 'direction' WHEN 'in' THEN 'out' WHEN 'out' THEN 'in' END)
        || CASE WHEN s.second IS NULL THEN '{}' ELSE of_place(s.second -> 'job') END
        || jsonb_build_object('id', s.second_id, 'elementId', s.second_at, 'fans', s.there,
          'fit', CASE WHEN s.second IS NULL THEN 'null' ELSE coalesce(s.second -> 'fit', 'null') END))
      ELSE '[]' END,
  -- what a place put into the path is named after it
  path = (SELECT coalesce(jsonb_agg(CASE WHEN e ->> 'id' ~ '^fit2?-(gap|hole|guard|filter|adapter)$'
      THEN e || jsonb_build_object('id', left('fit-' || split_part(e ->> 'id', '-', 2) || '-' ||
        CASE WHEN e ->> 'id' LIKE 'fit2-%' THEN s.second_id ELSE s.first_id END, 64))
      ELSE e END ORDER BY n), '[]')
    FROM jsonb_array_elements(a.path) WITH ORDINALITY AS x (e, n)),
  job = a.job - ARRAY(SELECT jsonb_object_keys(of_place(a.job)))
FROM standing s WHERE s.job_id = a.job_id AND s.id = a.id;

UPDATE feed_part p SET duty = greatest(0.01, (a.selection ->> 'duty')::double precision)
  FROM air_stream a WHERE a.job_id = p.job_id AND a.id = p.stream_id AND a.selection ->> 'duty' IS NOT NULL;

-- reasons that were given for a place
UPDATE job j SET known = (
    SELECT jsonb_agg(CASE WHEN p.place IS NULL THEN k ELSE k || jsonb_build_object('subject', p.place) END ORDER BY n)
    FROM jsonb_array_elements(j.known) WITH ORDINALITY AS x (k, n)
      LEFT JOIN LATERAL (
        SELECT CASE WHEN s.first_at = k ->> 'subject' THEN s.first_id ELSE s.second_id END AS place
          FROM standing s WHERE s.job_id = j.id AND k ->> 'subject' IN (s.first_at, s.second_at) LIMIT 1) p ON true)
  WHERE jsonb_typeof(j.known) = 'array' AND EXISTS (
    SELECT FROM jsonb_array_elements(j.known) k, standing s
      WHERE s.job_id = j.id AND k ->> 'subject' IN (s.first_at, s.second_at));
-- steps of the build at one of two places
UPDATE plan_build b SET ticks = (
    SELECT jsonb_agg(CASE WHEN s.id IS NULL THEN t ELSE t || jsonb_build_object('id',
        left(t ->> 'id', -1) || CASE right(t ->> 'id', 1) WHEN '1' THEN s.first_id ELSE s.second_id END) END ORDER BY n)
    FROM jsonb_array_elements(b.ticks) WITH ORDINALITY AS x (t, n)
      LEFT JOIN standing s ON s.job_id = b.job_id AND s.apart AND right(t ->> 'id', 1) IN ('1', '2')
        AND right(left(t ->> 'id', -2), length(s.id) + 1) = '-' || s.id)
  WHERE jsonb_array_length(b.ticks) > 0
    AND EXISTS (SELECT FROM standing s WHERE s.job_id = b.job_id AND s.apart);

DROP FUNCTION of_place;
ALTER TABLE air_stream ALTER COLUMN places SET NOT NULL,
  DROP COLUMN selection, DROP COLUMN fit, DROP COLUMN second_place;
