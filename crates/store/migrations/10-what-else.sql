-- What goes into a batch besides tomatoes, acid and salt, as JSON: [] for nothing, NULL while nobody said. Batches
-- recorded before it was asked keep the mark 0.
ALTER TABLE batch ADD COLUMN additions TEXT;
ALTER TABLE batch ADD COLUMN additions_asked INTEGER NOT NULL DEFAULT 0 CHECK (additions_asked IN (0, 1));

-- What a pH reading was taken of, and what was done about an earlier one above the line.
ALTER TABLE ph_reading ADD COLUMN sample TEXT CHECK (sample IN ('raw', 'dosed'));
ALTER TABLE ph_reading ADD COLUMN did TEXT;

-- A lid that was judged before it could settle: it is looked at a second time and is not on the shelf until then.
ALTER TABLE jar ADD COLUMN provisional INTEGER NOT NULL DEFAULT 0 CHECK (provisional IN (0, 1));

-- The jar has no dose of its own: its acid was stirred into the pot, and is in it from the moment it was filled.
ALTER TABLE jar ADD COLUMN acid_from_pot INTEGER NOT NULL DEFAULT 0 CHECK (acid_from_pot IN (0, 1));

-- A jar that was not processed goes back before anybody has looked at its lid.
CREATE TABLE jar_past_new (
    id          INTEGER PRIMARY KEY,
    jar_id      INTEGER NOT NULL REFERENCES jar (id) ON DELETE CASCADE,
    load_id     INTEGER NOT NULL REFERENCES canner_load (id),
    judged_at   INTEGER,
    seal_detail TEXT CHECK (seal_detail IN ('broken', 'doubtful'))
) STRICT;
INSERT INTO jar_past_new SELECT id, jar_id, load_id, judged_at, seal_detail FROM jar_past;
DROP TABLE jar_past;
ALTER TABLE jar_past_new RENAME TO jar_past;
CREATE INDEX jar_past_by_jar ON jar_past (jar_id);
