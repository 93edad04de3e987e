-- What the kitchen's clock showed when this machine was last seen running, by which run of the machine: after a restart of
-- the program alone it runs on from there; after one of the machine nobody knows what happened in between.
CREATE TABLE kept_clock (
    id     INTEGER PRIMARY KEY CHECK (id = 1),
    run    TEXT    NOT NULL,
    offset INTEGER NOT NULL,
    seen   INTEGER NOT NULL
) STRICT;
