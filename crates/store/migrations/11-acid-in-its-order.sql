-- A jar may get its acid after its food, as long as its lid is off: the table no longer forbids what the bench may hear.
-- What is left is that a lid is on only over acid. The foreign keys of others name the table, not its contents, and are
-- not looked at while it is rebuilt.
CREATE TABLE jar_new (
    id            INTEGER PRIMARY KEY,
    batch_id      INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    load_id       INTEGER NOT NULL REFERENCES canner_load (id) ON DELETE CASCADE,
    number        INTEGER NOT NULL CHECK (number >= 1),
    size          TEXT    NOT NULL,
    acid_at       INTEGER,
    -- The jar has no dose of its own: its acid was stirred into the pot, and is in it from the moment it was filled.
    acid_from_pot INTEGER NOT NULL DEFAULT 0 CHECK (acid_from_pot IN (0, 1)),
    -- When it was found that its dose is not in it, or that the pot had too little for it.
    undosed_at    INTEGER,
    salt_at       INTEGER,
    filled_at     INTEGER,
    bubbles_at    INTEGER,
    rim_at        INTEGER,
    lid_at        INTEGER,
    seal          TEXT CHECK (seal IN ('holds', 'failed')),
    seal_detail   TEXT CHECK (seal_detail IN ('broken', 'doubtful')),
    seal_at       INTEGER,
    provisional   INTEGER NOT NULL DEFAULT 0 CHECK (provisional IN (0, 1)),
    rescue        TEXT CHECK (rescue IN ('reprocess', 'refrigerator', 'freezer')),
    rescue_at     INTEGER,
    tidy_at       INTEGER,
    gone_at       INTEGER,
    gone_how      TEXT CHECK (gone_how IN ('eaten', 'given', 'discarded')),
    gone_why      TEXT,
    UNIQUE (batch_id, number),
    CHECK (lid_at IS NULL OR acid_at IS NOT NULL),
    CHECK ((seal IS NULL) = (seal_at IS NULL))
) STRICT;

INSERT INTO jar_new (id, batch_id, load_id, number, size, acid_at, acid_from_pot, salt_at, filled_at, bubbles_at, rim_at,
    lid_at, seal, seal_detail, seal_at, provisional, rescue, rescue_at, tidy_at, gone_at, gone_how, gone_why)
SELECT id, batch_id, load_id, number, size, acid_at, acid_from_pot, salt_at, filled_at, bubbles_at, rim_at,
    lid_at, seal, seal_detail, seal_at, provisional, rescue, rescue_at, tidy_at, gone_at, gone_how, gone_why FROM jar;
DROP TABLE jar;
ALTER TABLE jar_new RENAME TO jar;

CREATE INDEX jar_by_load ON jar (load_id);
CREATE INDEX jar_on_shelf ON jar (batch_id, size, number) WHERE seal = 'holds' AND gone_at IS NULL;

-- A jar that goes back for its dose keeps in its history that it had none.
ALTER TABLE jar_past ADD COLUMN undosed_at INTEGER;
