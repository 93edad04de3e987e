-- What becomes of a jar after the canner: its lid, what is done when it fails, washing, and how it leaves the shelf.

-- Beside seal: a failed lid may be broken glass, or only doubtful.
ALTER TABLE jar ADD COLUMN seal_detail TEXT CHECK (seal_detail IN ('broken', 'doubtful'));
-- What was decided about a failed one.
ALTER TABLE jar ADD COLUMN rescue TEXT CHECK (rescue IN ('reprocess', 'refrigerator', 'freezer'));
ALTER TABLE jar ADD COLUMN rescue_at INTEGER;
-- Ring off, washed and dry.
ALTER TABLE jar ADD COLUMN tidy_at INTEGER;
UPDATE jar SET tidy_at = seal_at WHERE seal = 'holds';
ALTER TABLE jar ADD COLUMN gone_at INTEGER;
ALTER TABLE jar ADD COLUMN gone_how TEXT CHECK (gone_how IN ('eaten', 'given', 'discarded'));
ALTER TABLE jar ADD COLUMN gone_why TEXT;

CREATE INDEX jar_on_shelf ON jar (batch_id, size, number) WHERE seal = 'holds' AND gone_at IS NULL;
CREATE INDEX load_event_by_jar ON load_event (jar_id) WHERE jar_id IS NOT NULL;
CREATE INDEX load_event_lifted ON load_event (load_id, at) WHERE event = 'lifted' AND undone_at IS NULL;

-- Loads a jar went through before the one it is counted with: a jar that is processed again keeps its history.
CREATE TABLE jar_past (
    id        INTEGER PRIMARY KEY,
    jar_id    INTEGER NOT NULL REFERENCES jar (id) ON DELETE CASCADE,
    load_id   INTEGER NOT NULL REFERENCES canner_load (id),
    judged_at INTEGER NOT NULL
) STRICT;

CREATE INDEX jar_past_by_jar ON jar_past (jar_id);

CREATE TABLE ph_reading (
    id               INTEGER PRIMARY KEY,
    batch_id         INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    at               INTEGER NOT NULL,
    ph               REAL    NOT NULL CHECK (ph BETWEEN 0 AND 14),
    sample_c         REAL,
    compensated      INTEGER CHECK (compensated IN (0, 1)),
    calibrated_today INTEGER CHECK (calibrated_today IN (0, 1))
) STRICT;

-- Pounds of fruit from one plant, for next year's garden.
ALTER TABLE kitchen ADD COLUMN pounds_per_plant REAL NOT NULL DEFAULT 10 CHECK (pounds_per_plant > 0);
