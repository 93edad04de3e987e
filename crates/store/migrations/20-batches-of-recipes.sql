-- Batches that are made by a recipe: the recipe as it stood when the batch was begun, as JSON, and its bowls. Names and notes of
-- batches and lots. Readings of a pH meter of parts and of a mix, before there is a batch.
ALTER TABLE batch ADD COLUMN name TEXT CHECK (length(name) BETWEEN 1 AND 80);
ALTER TABLE batch ADD COLUMN note TEXT CHECK (length(note) BETWEEN 1 AND 1000);
ALTER TABLE batch ADD COLUMN recipe TEXT CHECK (json_valid(recipe));
ALTER TABLE batch ADD COLUMN bowls_id INTEGER REFERENCES bowls (id);
CREATE INDEX batch_by_bowls ON batch (bowls_id) WHERE bowls_id IS NOT NULL;

ALTER TABLE lot ADD COLUMN name TEXT CHECK (length(name) BETWEEN 1 AND 80);
ALTER TABLE lot ADD COLUMN note TEXT CHECK (length(note) BETWEEN 1 AND 1000);

CREATE TABLE bench_ph (
    id               INTEGER PRIMARY KEY,
    at               INTEGER NOT NULL,
    bowls_id         INTEGER REFERENCES bowls (id) ON DELETE SET NULL,
    part             TEXT    CHECK (length(part) BETWEEN 1 AND 80),
    ph               REAL    NOT NULL,
    sample_c         REAL,
    compensated      INTEGER CHECK (compensated IN (0, 1)),
    calibrated_today INTEGER CHECK (calibrated_today IN (0, 1)),
    simulated        INTEGER NOT NULL CHECK (simulated IN (0, 1)),
    removed_at       INTEGER
) STRICT;
