-- Every step of a jar on the bench, what jars did in the canner, several canners, and jars of several batches in one load.

ALTER TABLE jar ADD COLUMN salt_at INTEGER;
ALTER TABLE jar ADD COLUMN bubbles_at INTEGER;
ALTER TABLE jar ADD COLUMN rim_at INTEGER;
ALTER TABLE jar ADD COLUMN lid_at INTEGER;
-- "Filled" used to mean wiped and capped too.
UPDATE jar SET salt_at = filled_at, bubbles_at = filled_at, rim_at = filled_at, lid_at = filled_at;

-- Acid stirred into the pot for the whole batch, in teaspoons.
ALTER TABLE batch ADD COLUMN pot_dose_tsp REAL CHECK (pot_dose_tsp > 0);

-- Which jar an event is about.
ALTER TABLE load_event ADD COLUMN jar_id INTEGER REFERENCES jar (id) ON DELETE SET NULL;

-- How warm the empty jars are on the bench, in degrees Celsius.
ALTER TABLE canner_load ADD COLUMN jars_c REAL;

-- What heats a canner, and which one is planned for.
ALTER TABLE canner ADD COLUMN power_w REAL CHECK (power_w > 0);
ALTER TABLE canner ADD COLUMN burner_mm REAL CHECK (burner_mm > 0);
ALTER TABLE kitchen ADD COLUMN canner_id INTEGER REFERENCES canner (id);

-- What a probe in the canner read.
CREATE TABLE canner_reading (
    id        INTEGER PRIMARY KEY,
    load_id   INTEGER NOT NULL REFERENCES canner_load (id) ON DELETE CASCADE,
    at        INTEGER NOT NULL,
    temp_c    REAL    NOT NULL,
    simulated INTEGER NOT NULL CHECK (simulated IN (0, 1))
) STRICT;

CREATE INDEX canner_reading_by_load ON canner_reading (load_id, id);

-- Outer sizes of the household's own jars; sizes without a row are the usual ones.
CREATE TABLE jar_outside (
    jar         TEXT PRIMARY KEY,
    diameter_mm REAL NOT NULL CHECK (diameter_mm > 0),
    height_mm   REAL NOT NULL CHECK (height_mm > 0)
) STRICT, WITHOUT ROWID;
