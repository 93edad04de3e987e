-- How much water stood over the lids is a fact of a load by itself and no part of its card: it is said when the jars go in and
-- looked at again. Loads from before are not asked.
ALTER TABLE canner_load ADD COLUMN water_over TEXT CHECK (water_over IN ('well', 'some', 'low', 'unknown'));
ALTER TABLE canner_load ADD COLUMN water_at INTEGER;
ALTER TABLE canner_load ADD COLUMN water_asked INTEGER NOT NULL DEFAULT 1 CHECK (water_asked IN (0, 1));
UPDATE canner_load SET water_asked = 0;
ALTER TABLE canner_load ADD COLUMN under_jars TEXT CHECK (under_jars IN ('rack', 'towel', 'nothing'));
UPDATE canner_load SET water_over = CASE
        WHEN json_extract(claims, '$.water_over_in') >= 2 THEN 'well'
        WHEN json_extract(claims, '$.water_over_in') >= 1 THEN 'some'
        ELSE 'low' END
    WHERE json_valid(claims) AND json_extract(claims, '$.water_over_in') IS NOT NULL;
UPDATE canner_load SET claims = json_remove(claims, '$.water_over_in') WHERE json_valid(claims);

-- What a canner is, beside how it heats.
ALTER TABLE canner ADD COLUMN multi_cooker INTEGER NOT NULL DEFAULT 0 CHECK (multi_cooker IN (0, 1));
ALTER TABLE canner ADD COLUMN gauge_tested_in INTEGER CHECK (gauge_tested_in BETWEEN 1900 AND 9999);

-- Liquid that siphoned out of a jar, seen on the towel.
ALTER TABLE jar ADD COLUMN liquid_lost TEXT CHECK (liquid_lost IN ('some', 'half'));
ALTER TABLE jar ADD COLUMN liquid_lost_at INTEGER;
ALTER TABLE jar_past ADD COLUMN liquid_lost TEXT CHECK (liquid_lost IN ('some', 'half'));
ALTER TABLE jar_past ADD COLUMN liquid_lost_at INTEGER;
