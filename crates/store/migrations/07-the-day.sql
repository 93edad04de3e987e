-- What a day is laid out over, and what takes longer than it was thought.

ALTER TABLE kitchen ADD COLUMN people INTEGER NOT NULL DEFAULT 1 CHECK (people BETWEEN 1 AND 20);
ALTER TABLE kitchen ADD COLUMN burners INTEGER NOT NULL DEFAULT 4 CHECK (burners BETWEEN 1 AND 20);
-- Minutes after midnight at which the work is to be done.
ALTER TABLE kitchen ADD COLUMN day_ends INTEGER NOT NULL DEFAULT 1260 CHECK (day_ends BETWEEN 0 AND 1440);

CREATE TABLE day_slip (
    block   TEXT    PRIMARY KEY,
    minutes INTEGER NOT NULL,
    -- Minutes that were thought, so that the household's own pace can be learned.
    thought INTEGER NOT NULL CHECK (thought > 0)
) STRICT, WITHOUT ROWID;

-- When everybody sits down, in minutes after midnight, and for how long; no break without it.
ALTER TABLE kitchen ADD COLUMN break_at INTEGER CHECK (break_at BETWEEN 0 AND 1440);
ALTER TABLE kitchen ADD COLUMN break_minutes INTEGER NOT NULL DEFAULT 30 CHECK (break_minutes BETWEEN 5 AND 180);
