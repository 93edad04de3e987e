-- How far the heat is turned up, so that each kettle's rate is learned at each setting.

ALTER TABLE cook ADD COLUMN setting TEXT NOT NULL DEFAULT 'high' CHECK (setting IN ('low', 'medium', 'high'));

-- The log takes new words; the program owns the list.
CREATE TABLE cook_event_with_heat (
    id        INTEGER PRIMARY KEY,
    cook_id   INTEGER NOT NULL REFERENCES cook (id) ON DELETE CASCADE,
    at        INTEGER NOT NULL,
    what      TEXT    NOT NULL,
    value     REAL    NOT NULL CHECK (value > 0),
    simulated INTEGER NOT NULL CHECK (simulated IN (0, 1)),
    undone_at INTEGER
) STRICT;
INSERT INTO cook_event_with_heat SELECT id, cook_id, at, what, value, simulated, undone_at FROM cook_event;
DROP TABLE cook_event;
ALTER TABLE cook_event_with_heat RENAME TO cook_event;
CREATE INDEX cook_event_by_cook ON cook_event (cook_id);
