-- Why a lot is out, when held fruit is looked at again, what stands empty in the cupboard, and what the shelf asks for.

ALTER TABLE lot ADD COLUMN fault TEXT;
ALTER TABLE lot ADD COLUMN back_on TEXT
    CHECK (back_on GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]');

-- Where the part of a last jar goes that fills no jar.
ALTER TABLE batch ADD COLUMN rest TEXT;

-- A count is a moment's truth; what batches took since then is derived from their jars, never stored.
CREATE TABLE stock (
    item       TEXT    PRIMARY KEY,
    amount     REAL    NOT NULL CHECK (amount >= 0),
    mouth      TEXT,
    opened_on  TEXT,
    counted_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE goal (
    position   INTEGER PRIMARY KEY,
    product    TEXT    NOT NULL,
    medium     TEXT,
    pack       TEXT    NOT NULL,
    thickness  TEXT,
    jar        TEXT    NOT NULL,
    count      INTEGER NOT NULL CHECK (count BETWEEN 0 AND 1000),
    preference INTEGER NOT NULL CHECK (preference BETWEEN 1 AND 3)
) STRICT;
