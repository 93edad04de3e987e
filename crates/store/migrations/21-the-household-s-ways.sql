-- How a household writes, apart from its units: NULL goes with the units. And what it reached for last: acid and salt.
ALTER TABLE kitchen ADD COLUMN hours TEXT NOT NULL DEFAULT '24' CHECK (hours IN ('24', '12'));
ALTER TABLE kitchen ADD COLUMN days TEXT NOT NULL DEFAULT 'day_first'
    CHECK (days IN ('day_first', 'month_first', 'year_first'));
ALTER TABLE kitchen ADD COLUMN decimal TEXT NOT NULL DEFAULT 'point' CHECK (decimal IN ('point', 'comma'));
ALTER TABLE kitchen ADD COLUMN heat TEXT CHECK (heat IN ('fahrenheit', 'celsius'));
ALTER TABLE kitchen ADD COLUMN height TEXT CHECK (height IN ('feet', 'metres'));
ALTER TABLE kitchen ADD COLUMN agent TEXT NOT NULL DEFAULT 'bottled_lemon_juice'
    CHECK (agent IN ('bottled_lemon_juice', 'citric_acid', 'vinegar_5pct'));
ALTER TABLE kitchen ADD COLUMN salt INTEGER NOT NULL DEFAULT FALSE CHECK (salt IN (FALSE, TRUE));
UPDATE kitchen SET agent = (SELECT agent FROM batch WHERE product <> 'recipe' ORDER BY id DESC LIMIT 1)
WHERE EXISTS (SELECT 1 FROM batch WHERE product <> 'recipe');

-- Lines of a batch's checklist that are ticked, as a JSON list of their words.
ALTER TABLE batch ADD COLUMN ticks TEXT;
