-- Kettles and what cooks down in them, and the canner from inside. A cook-down is its start and its log; level, mark and finish are derived.

CREATE TABLE kettle (
    id                INTEGER PRIMARY KEY,
    name              TEXT NOT NULL UNIQUE CHECK (length(name) BETWEEN 1 AND 80),
    inner_diameter_mm REAL NOT NULL CHECK (inner_diameter_mm > 0),
    depth_mm          REAL NOT NULL CHECK (depth_mm > 0),
    heat              TEXT NOT NULL CHECK (heat IN ('burner', 'oven')),
    -- Depths in millimetres at 1, 2, 3 ... poured measures of so many litres each; NULL for straight walls.
    pour_l            REAL CHECK (pour_l > 0),
    pour_depths_mm    TEXT
) STRICT;

CREATE TABLE cook (
    id              INTEGER PRIMARY KEY,
    kettle_id       INTEGER NOT NULL REFERENCES kettle (id),
    batch_id        INTEGER REFERENCES batch (id),
    started_at      INTEGER NOT NULL,
    volume_l        REAL    NOT NULL CHECK (volume_l > 0),
    brix            REAL    NOT NULL CHECK (brix > 0),
    target          TEXT    NOT NULL CHECK (target IN ('fraction_left', 'brix', 'volume_l')),
    target_value    REAL    NOT NULL CHECK (target_value > 0),
    litres_per_hour REAL    NOT NULL CHECK (litres_per_hour > 0),
    ended_at        INTEGER,
    removed_at      INTEGER
) STRICT;

CREATE TABLE cook_event (
    id        INTEGER PRIMARY KEY,
    cook_id   INTEGER NOT NULL REFERENCES cook (id) ON DELETE CASCADE,
    at        INTEGER NOT NULL,
    what      TEXT    NOT NULL CHECK (what IN ('volume_l', 'depth_mm', 'mass_kg', 'brix', 'drain_l', 'temp_c', 'lid_on', 'lid_off')),
    value     REAL    NOT NULL CHECK (value > 0),
    simulated INTEGER NOT NULL CHECK (simulated IN (0, 1)),
    undone_at INTEGER
) STRICT;

CREATE INDEX cook_event_by_cook ON cook_event (cook_id);

-- The canner from inside; without it the water is not worked out.
ALTER TABLE canner ADD COLUMN inner_diameter_mm REAL CHECK (inner_diameter_mm > 0);
ALTER TABLE canner ADD COLUMN inner_height_mm REAL CHECK (inner_height_mm > 0);
ALTER TABLE canner ADD COLUMN rack_height_mm REAL CHECK (rack_height_mm >= 0);
