-- What was said of the kitchen's altitude, and why it changed: whoever moves leaves the jars behind as they were put up; an
-- altitude that was wrong was wrong for them too. Kitchens from before have none of these rows, and a batch's own altitude
-- stands for them.
CREATE TABLE altitude_said (
    id          INTEGER PRIMARY KEY,
    at          INTEGER NOT NULL,
    was_ft      REAL    NOT NULL,
    altitude_ft REAL    NOT NULL,
    reason      TEXT    NOT NULL CHECK (reason IN ('moved', 'corrected')),
    who         TEXT
) STRICT;

-- What was said of jars that are out of the canner and turned out to be wrong: it stays in sight, in the words of its day.
CREATE TABLE correction (
    id       INTEGER PRIMARY KEY,
    at       INTEGER NOT NULL,
    who      TEXT,
    batch_id INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    about    TEXT    NOT NULL,
    was      TEXT    NOT NULL,
    says     TEXT    NOT NULL
) STRICT;
CREATE INDEX correction_by_batch ON correction (batch_id, at);
