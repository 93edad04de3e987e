-- What left a batch beside its jars, as somebody told it. What jars hold, what was drained off a kettle and what boiled away
-- stand in their own records.
CREATE TABLE food_move (
    id        INTEGER PRIMARY KEY,
    batch_id  INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    at        INTEGER NOT NULL,
    food      TEXT    NOT NULL,
    place     TEXT    NOT NULL,
    amount    REAL    NOT NULL CHECK (amount > 0),
    measure   TEXT    NOT NULL,
    undone_at INTEGER
) STRICT;
CREATE INDEX food_move_batch ON food_move (batch_id);
