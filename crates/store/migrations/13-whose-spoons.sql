-- Whose spoons a household measures with. The smallest are taken until it says so: a dose that is read in them is never
-- short in larger ones, and what was stirred in is never counted for more than it was.
ALTER TABLE kitchen ADD COLUMN spoons TEXT NOT NULL DEFAULT 'us' CHECK (spoons IN ('us', 'metric', 'australian'));

-- Acid in a pot as it was measured out, as JSON: what stands in pot_dose_tsp line by line. Doses from before were US
-- teaspoons.
ALTER TABLE batch ADD COLUMN pot_said TEXT;
UPDATE batch SET pot_said = json_array(json_object('amount', pot_dose_tsp * 4.92892159375, 'measure', 'ml'))
WHERE pot_dose_tsp > 0;
