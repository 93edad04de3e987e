-- A history of :batches batches, one a day, that ends the day before :now; four loads of seven jars each, nearly all eaten.
CREATE TEMP TABLE day AS
WITH RECURSIVE count (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM count WHERE n < :batches)
SELECT n, :now - (:batches - n + 1) * 86400000 AS at, (SELECT coalesce(max(id), 0) FROM lot) + n AS lot,
       (SELECT coalesce(max(id), 0) FROM batch) + n AS batch, n % 4 AS kind
FROM count;

INSERT INTO lot (id, picked_on, kind, condition, frozen, weight_g, added_at)
SELECT lot, date(at / 1000 - 86400, 'unixepoch'), iif(n % 3, 'paste', 'slicer'), 'firm_ripe', 0, 40000, at - 7200000
FROM day;

INSERT INTO batch (id, code, product, medium, pack, thickness, method, agent, salt, altitude_ft, planned_at, rest,
    additions, additions_asked)
SELECT batch, substr(strftime('%Y%m%d', at / 1000, 'unixepoch'), 3) || '-' || (100 + n),
       CASE kind WHEN 0 THEN 'whole' WHEN 1 THEN 'crushed' WHEN 2 THEN 'sauce' ELSE 'juice' END,
       iif(kind = 0, 'water', NULL), 'hot', iif(kind = 2, 'thick', NULL), 'boiling_water', 'bottled_lemon_juice',
       1, 2640.0, at - 3600000, NULL, '[]', 1
FROM day;

INSERT INTO batch_lot (batch_id, lot_id, weight_g) SELECT batch, lot, 40000 FROM day;

INSERT INTO canner_load (id, canner_id, batch_id, position, minutes, claims_asked, water_asked)
SELECT batch * 4 + load.value, (SELECT min(id) FROM canner), batch, load.value + 1, 50, 0, 0
FROM day, json_each('[0, 1, 2, 3]') AS load ORDER BY 1;

INSERT INTO load_event (load_id, event, at)
SELECT batch * 4 + load.value, said.value ->> 0, at + load.value * 5400000 + (said.value ->> 1) * 60000
FROM day, json_each('[0, 1, 2, 3]') AS load,
     json_each('[["boils", 25], ["heat_off", 75], ["lifted", 81]]') AS said
ORDER BY 1, 3;

INSERT INTO jar (batch_id, load_id, number, size, acid_at, filled_at, bubbles_at, rim_at, lid_at, seal, seal_at, tidy_at,
    gone_at, gone_how, gone_why)
SELECT batch, batch * 4 + load.value, load.value * 7 + place.value, iif(load.value = 3, 'pint', 'quart'),
       at + load.value * 5400000, at + load.value * 5400000 + 60000, at + load.value * 5400000 + 70000,
       at + load.value * 5400000 + 80000, at + load.value * 5400000 + 90000,
       iif(n * 7 % 97 = place.value, 'failed', 'holds'), at + 72000000,
       iif(n * 7 % 97 = place.value, NULL, at + 72000000),
       CASE WHEN n * 7 % 97 = place.value THEN at + 73000000
            WHEN at + 86400000 * 300 < :now THEN at + 86400000 * (280 + place.value) END,
       CASE WHEN n * 7 % 97 = place.value THEN 'discarded' WHEN at + 86400000 * 300 < :now THEN 'eaten' END,
       iif(n * 7 % 97 = place.value, 'unsealed', NULL)
FROM day, json_each('[0, 1, 2, 3]') AS load, json_each('[1, 2, 3, 4, 5, 6, 7]') AS place
ORDER BY 1, 3;

INSERT INTO cook (kettle_id, batch_id, started_at, volume_l, brix, target, target_value, litres_per_hour, ended_at, setting)
SELECT (SELECT min(id) FROM kettle), batch, at - 14400000, 30.0, 4.8, 'fraction_left', 0.5, 4.0, at, 'high'
FROM day WHERE kind = 2;

INSERT INTO cook_event (cook_id, at, what, value, simulated)
SELECT cook.id, started_at + step.value * 2400000, 'volume_l', 30.0 - step.value * 2.5, 0
FROM cook, json_each('[1, 2, 3, 4, 5, 6]') AS step WHERE batch_id IN (SELECT batch FROM day) ORDER BY 1, 2;

INSERT INTO food_move (batch_id, at, food, place, amount, measure, weight_g, packs)
SELECT batch, at, 'product', iif(n % 5, 'table', 'freezer'), 1.0, 'quart', 1018, iif(n % 5, NULL, 1)
FROM day WHERE kind = 2;

INSERT INTO food_move (cold_id, at, food, place, amount, measure, weight_g, packs)
SELECT food_move.id, day.at + 86400000 * 200, food, 'table', amount, measure, weight_g, packs
FROM food_move JOIN day ON day.batch = batch_id WHERE place = 'freezer' AND day.at + 86400000 * 200 < :now;

DROP TABLE day;
