-- The line from crate to shelf. Weights are whole grams, times are milliseconds since 1970 UTC.
-- Words (kinds, products, jars) are checked by the program, which owns the lists; the schema checks what must never be
-- broken whatever program writes: references, weights above zero, acid before filling.

CREATE TABLE kitchen (
    id                 INTEGER PRIMARY KEY CHECK (id = 1),
    name               TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    altitude_ft        REAL,
    units              TEXT    NOT NULL CHECK (units IN ('us', 'metric')),
    turnaround_minutes INTEGER NOT NULL CHECK (turnaround_minutes BETWEEN 0 AND 240)
) STRICT;

CREATE TABLE canner (
    id     INTEGER PRIMARY KEY,
    name   TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    method TEXT NOT NULL
) STRICT;

CREATE TABLE canner_capacity (
    canner_id INTEGER NOT NULL REFERENCES canner (id) ON DELETE CASCADE,
    jar       TEXT    NOT NULL,
    count     INTEGER NOT NULL CHECK (count BETWEEN 1 AND 100),
    PRIMARY KEY (canner_id, jar)
) STRICT, WITHOUT ROWID;

CREATE TABLE container (
    id       INTEGER PRIMARY KEY,
    name     TEXT    NOT NULL UNIQUE CHECK (length(name) BETWEEN 1 AND 80),
    weight_g INTEGER NOT NULL CHECK (weight_g > 0)
) STRICT;

CREATE TABLE lot (
    id         INTEGER PRIMARY KEY,
    picked_on  TEXT    NOT NULL CHECK (picked_on GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]'),
    kind       TEXT    NOT NULL,
    condition  TEXT    NOT NULL,
    frozen     INTEGER NOT NULL CHECK (frozen IN (0, 1)),
    weight_g   INTEGER NOT NULL CHECK (weight_g > 0),
    added_at   INTEGER NOT NULL,
    removed_at INTEGER
) STRICT;

CREATE TABLE batch (
    id          INTEGER PRIMARY KEY,
    code        TEXT    NOT NULL UNIQUE,
    product     TEXT    NOT NULL,
    medium      TEXT,
    pack        TEXT    NOT NULL,
    thickness   TEXT,
    method      TEXT    NOT NULL,
    agent       TEXT    NOT NULL,
    salt        INTEGER NOT NULL CHECK (salt IN (0, 1)),
    altitude_ft REAL    NOT NULL,
    planned_at  INTEGER NOT NULL,
    removed_at  INTEGER,
    CHECK ((product = 'whole') = (medium IS NOT NULL)),
    CHECK ((product = 'sauce') = (thickness IS NOT NULL))
) STRICT;

CREATE TABLE batch_lot (
    batch_id INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    lot_id   INTEGER NOT NULL REFERENCES lot (id),
    weight_g INTEGER NOT NULL CHECK (weight_g > 0),
    PRIMARY KEY (batch_id, lot_id)
) STRICT, WITHOUT ROWID;

CREATE INDEX batch_lot_by_lot ON batch_lot (lot_id);

-- What is left of each lot; removed batches give their fruit back.
CREATE VIEW lot_left AS
SELECT lot.id AS lot_id,
       lot.weight_g - coalesce(sum(batch_lot.weight_g) FILTER (WHERE batch.removed_at IS NULL), 0) AS left_g
FROM lot
LEFT JOIN batch_lot ON batch_lot.lot_id = lot.id
LEFT JOIN batch ON batch.id = batch_lot.batch_id
GROUP BY lot.id;

CREATE TRIGGER lot_not_below_zero_by_draw AFTER INSERT ON batch_lot
WHEN (SELECT left_g FROM lot_left WHERE lot_id = NEW.lot_id) < 0
BEGIN SELECT raise(ABORT, 'lot overdrawn'); END;

CREATE TRIGGER lot_not_below_zero_by_correction AFTER UPDATE OF weight_g ON lot
WHEN (SELECT left_g FROM lot_left WHERE lot_id = NEW.id) < 0
BEGIN SELECT raise(ABORT, 'lot overdrawn'); END;

CREATE TRIGGER lot_not_below_zero_by_restore AFTER UPDATE OF removed_at ON batch
WHEN NEW.removed_at IS NULL AND EXISTS (
    SELECT 1 FROM batch_lot JOIN lot_left USING (lot_id) WHERE batch_id = NEW.id AND left_g < 0)
BEGIN SELECT raise(ABORT, 'lot overdrawn'); END;

CREATE TABLE canner_load (
    id        INTEGER PRIMARY KEY,
    canner_id INTEGER NOT NULL REFERENCES canner (id),
    batch_id  INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL CHECK (position >= 1),
    minutes   INTEGER NOT NULL CHECK (minutes BETWEEN 1 AND 240),
    psi       INTEGER,
    UNIQUE (batch_id, position)
) STRICT;

CREATE TABLE load_event (
    id        INTEGER PRIMARY KEY,
    load_id   INTEGER NOT NULL REFERENCES canner_load (id) ON DELETE CASCADE,
    event     TEXT    NOT NULL,
    at        INTEGER NOT NULL,
    undone_at INTEGER
) STRICT;

CREATE INDEX load_event_by_load ON load_event (load_id);

CREATE TABLE jar (
    id        INTEGER PRIMARY KEY,
    batch_id  INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    load_id   INTEGER NOT NULL REFERENCES canner_load (id) ON DELETE CASCADE,
    number    INTEGER NOT NULL CHECK (number >= 1),
    size      TEXT    NOT NULL,
    acid_at   INTEGER,
    filled_at INTEGER,
    seal      TEXT CHECK (seal IN ('holds', 'failed')),
    seal_at   INTEGER,
    UNIQUE (batch_id, number),
    CHECK (filled_at IS NULL OR acid_at IS NOT NULL),
    CHECK ((seal IS NULL) = (seal_at IS NULL))
) STRICT;

CREATE INDEX jar_by_load ON jar (load_id);
