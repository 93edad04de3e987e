-- What somebody saw of a load's jars, said once, as JSON: NULL while nobody looked. Loads set out before it was asked keep
-- the mark 0.
ALTER TABLE canner_load ADD COLUMN claims TEXT;
ALTER TABLE canner_load ADD COLUMN claims_asked INTEGER NOT NULL DEFAULT 1 CHECK (claims_asked IN (0, 1));
UPDATE canner_load SET claims_asked = 0;
