-- Food in every form: a lot may be juice or cooked food, told by volume, thawed, chilled, or what another batch gave.
ALTER TABLE lot ADD COLUMN food TEXT NOT NULL DEFAULT 'fruit';
ALTER TABLE lot ADD COLUMN amount REAL CHECK (amount > 0);
ALTER TABLE lot ADD COLUMN measure TEXT;
ALTER TABLE lot ADD COLUMN from_batch INTEGER REFERENCES batch (id) ON DELETE SET NULL;
ALTER TABLE lot ADD COLUMN chilled_at INTEGER;
ALTER TABLE lot ADD COLUMN thawed_at INTEGER;

-- A move leaves a lot, a batch, or what an earlier move brought into the cold; it may become a lot of its own. What was told
-- before carries the weight that its measure says: quarts and the like at the density of juice.
CREATE TABLE food_move_of_all (
    id            INTEGER PRIMARY KEY,
    batch_id      INTEGER REFERENCES batch (id) ON DELETE CASCADE,
    lot_id        INTEGER REFERENCES lot (id),
    cold_id       INTEGER REFERENCES food_move_of_all (id),
    at            INTEGER NOT NULL,
    food          TEXT    NOT NULL,
    place         TEXT    NOT NULL,
    amount        REAL    NOT NULL CHECK (amount > 0),
    measure       TEXT    NOT NULL,
    weight_g      INTEGER NOT NULL CHECK (weight_g > 0),
    packs         INTEGER CHECK (packs BETWEEN 1 AND 1000),
    to_lot        INTEGER REFERENCES lot (id),
    cook_event_id INTEGER REFERENCES cook_event (id) ON DELETE SET NULL,
    undone_at     INTEGER,
    CHECK ((batch_id IS NOT NULL) + (lot_id IS NOT NULL) + (cold_id IS NOT NULL) = 1)
) STRICT;
INSERT INTO food_move_of_all (id, batch_id, at, food, place, amount, measure, weight_g, undone_at)
SELECT id, batch_id, at, food, place, amount, measure,
       max(1, CAST(round(amount * CASE measure
           WHEN 'lb' THEN 453.59237 WHEN 'kg' THEN 1000.0 WHEN 'cup' THEN 241.0 WHEN 'pint' THEN 482.0
           WHEN 'quart' THEN 964.0 WHEN 'gallon' THEN 3856.0 ELSE 1018.0 END) AS INTEGER)),
       undone_at
FROM food_move;
DROP TABLE food_move;
ALTER TABLE food_move_of_all RENAME TO food_move;
CREATE INDEX food_move_batch ON food_move (batch_id);
CREATE INDEX food_move_lot ON food_move (lot_id);
CREATE INDEX food_move_cold ON food_move (cold_id);
CREATE INDEX food_move_event ON food_move (cook_event_id);
CREATE INDEX food_move_to ON food_move (to_lot);

-- A cook-down ends at a mark, after so many minutes, or is not boiled down at all; the program owns the list of goals.
CREATE TABLE cook_with_goals (
    id              INTEGER PRIMARY KEY,
    kettle_id       INTEGER NOT NULL REFERENCES kettle (id),
    batch_id        INTEGER REFERENCES batch (id),
    started_at      INTEGER NOT NULL,
    volume_l        REAL    NOT NULL CHECK (volume_l > 0),
    brix            REAL    NOT NULL CHECK (brix > 0),
    target          TEXT    NOT NULL,
    target_value    REAL    NOT NULL CHECK (target_value > 0),
    litres_per_hour REAL    NOT NULL CHECK (litres_per_hour > 0),
    ended_at        INTEGER,
    removed_at      INTEGER,
    setting         TEXT    NOT NULL DEFAULT 'high' CHECK (setting IN ('low', 'medium', 'high'))
) STRICT;
INSERT INTO cook_with_goals (id, kettle_id, batch_id, started_at, volume_l, brix, target, target_value, litres_per_hour,
    ended_at, removed_at, setting)
SELECT id, kettle_id, batch_id, started_at, volume_l, brix, target, target_value, litres_per_hour, ended_at, removed_at,
    setting FROM cook;
DROP TABLE cook;
ALTER TABLE cook_with_goals RENAME TO cook;

-- What went in while it cooked was drawn from a lot.
ALTER TABLE cook_event ADD COLUMN lot_id INTEGER REFERENCES lot (id);
ALTER TABLE cook_event ADD COLUMN lot_g INTEGER CHECK (lot_g > 0);

DROP VIEW lot_left;
CREATE VIEW lot_left AS
SELECT lot.id AS lot_id,
       lot.weight_g
       - coalesce((SELECT sum(batch_lot.weight_g) FROM batch_lot JOIN batch ON batch.id = batch_lot.batch_id
                   WHERE batch_lot.lot_id = lot.id AND batch.removed_at IS NULL), 0)
       - coalesce((SELECT sum(food_move.weight_g) FROM food_move WHERE food_move.lot_id = lot.id AND undone_at IS NULL), 0)
       AS left_g
FROM lot;

CREATE TRIGGER lot_not_below_zero_by_move AFTER INSERT ON food_move
WHEN NEW.lot_id IS NOT NULL AND (SELECT left_g FROM lot_left WHERE lot_id = NEW.lot_id) < 0
BEGIN SELECT raise(ABORT, 'lot overdrawn'); END;

CREATE TRIGGER lot_not_below_zero_by_more AFTER UPDATE OF weight_g ON batch_lot
WHEN (SELECT left_g FROM lot_left WHERE lot_id = NEW.lot_id) < 0
BEGIN SELECT raise(ABORT, 'lot overdrawn'); END;
