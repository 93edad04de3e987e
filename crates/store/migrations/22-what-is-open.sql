-- What is open is a small list beside a long history. Triggers keep it, whoever writes: nothing else may.

CREATE TABLE open_load (load_id INTEGER PRIMARY KEY) STRICT;
INSERT INTO open_load SELECT id FROM canner_load WHERE NOT EXISTS (
    SELECT 1 FROM load_event WHERE load_id = canner_load.id AND event = 'lifted' AND undone_at IS NULL);

CREATE TRIGGER open_load_by_load AFTER INSERT ON canner_load
BEGIN
    INSERT OR REPLACE INTO open_load SELECT NEW.id WHERE NOT EXISTS (
        SELECT 1 FROM load_event WHERE load_id = NEW.id AND event = 'lifted' AND undone_at IS NULL);
END;
CREATE TRIGGER open_load_gone AFTER DELETE ON canner_load
BEGIN DELETE FROM open_load WHERE load_id = OLD.id; END;
CREATE TRIGGER open_load_by_lifting AFTER INSERT ON load_event WHEN NEW.event = 'lifted' AND NEW.undone_at IS NULL
BEGIN DELETE FROM open_load WHERE load_id = NEW.load_id; END;
CREATE TRIGGER open_load_by_change AFTER UPDATE OF event, undone_at ON load_event
BEGIN
    DELETE FROM open_load WHERE load_id = NEW.load_id;
    INSERT INTO open_load SELECT id FROM canner_load WHERE id = NEW.load_id AND NOT EXISTS (
        SELECT 1 FROM load_event WHERE load_id = NEW.load_id AND event = 'lifted' AND undone_at IS NULL);
END;
CREATE TRIGGER open_load_by_forgetting AFTER DELETE ON load_event
BEGIN
    DELETE FROM open_load WHERE load_id = OLD.load_id;
    INSERT INTO open_load SELECT id FROM canner_load WHERE id = OLD.load_id AND NOT EXISTS (
        SELECT 1 FROM load_event WHERE load_id = OLD.load_id AND event = 'lifted' AND undone_at IS NULL);
END;

-- Lots with something left.
CREATE TABLE open_lot (lot_id INTEGER PRIMARY KEY) STRICT;
CREATE VIEW lot_to_open AS
SELECT lot.id AS lot_id FROM lot JOIN lot_left ON lot_left.lot_id = lot.id WHERE lot.removed_at IS NULL AND left_g > 0;
INSERT INTO open_lot SELECT lot_id FROM lot_to_open;

CREATE TRIGGER open_lot_by_lot AFTER INSERT ON lot
BEGIN INSERT OR REPLACE INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = NEW.id; END;
CREATE TRIGGER open_lot_by_change AFTER UPDATE OF weight_g, removed_at ON lot
BEGIN
    DELETE FROM open_lot WHERE lot_id = NEW.id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = NEW.id;
END;
CREATE TRIGGER open_lot_gone AFTER DELETE ON lot
BEGIN DELETE FROM open_lot WHERE lot_id = OLD.id; END;
CREATE TRIGGER open_lot_by_draw AFTER INSERT ON batch_lot
BEGIN
    DELETE FROM open_lot WHERE lot_id = NEW.lot_id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = NEW.lot_id;
END;
CREATE TRIGGER open_lot_by_more AFTER UPDATE OF weight_g ON batch_lot
BEGIN
    DELETE FROM open_lot WHERE lot_id = NEW.lot_id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = NEW.lot_id;
END;
CREATE TRIGGER open_lot_by_no_draw AFTER DELETE ON batch_lot
BEGIN
    DELETE FROM open_lot WHERE lot_id = OLD.lot_id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = OLD.lot_id;
END;
CREATE TRIGGER open_lot_by_batch AFTER UPDATE OF removed_at ON batch
BEGIN
    DELETE FROM open_lot WHERE lot_id IN (SELECT lot_id FROM batch_lot WHERE batch_id = NEW.id);
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open
        WHERE lot_id IN (SELECT lot_id FROM batch_lot WHERE batch_id = NEW.id);
END;
CREATE TRIGGER open_lot_by_move AFTER INSERT ON food_move WHEN NEW.lot_id IS NOT NULL
BEGIN
    DELETE FROM open_lot WHERE lot_id = NEW.lot_id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = NEW.lot_id;
END;
CREATE TRIGGER open_lot_by_move_back AFTER UPDATE OF undone_at, weight_g ON food_move WHEN NEW.lot_id IS NOT NULL
BEGIN
    DELETE FROM open_lot WHERE lot_id = NEW.lot_id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = NEW.lot_id;
END;
CREATE TRIGGER open_lot_by_no_move AFTER DELETE ON food_move WHEN OLD.lot_id IS NOT NULL
BEGIN
    DELETE FROM open_lot WHERE lot_id = OLD.lot_id;
    INSERT INTO open_lot SELECT lot_id FROM lot_to_open WHERE lot_id = OLD.lot_id;
END;

-- Food in the refrigerator and the freezer of which something is left.
CREATE TABLE open_cold (move_id INTEGER PRIMARY KEY) STRICT;
CREATE VIEW cold_to_open AS
SELECT id AS move_id FROM food_move
WHERE place IN ('refrigerator', 'freezer') AND to_lot IS NULL AND undone_at IS NULL
  AND weight_g > coalesce((SELECT sum(weight_g) FROM food_move AS gone
                           WHERE gone.cold_id = food_move.id AND gone.undone_at IS NULL), 0);
INSERT INTO open_cold SELECT move_id FROM cold_to_open;

CREATE TRIGGER open_cold_by_move AFTER INSERT ON food_move
BEGIN
    DELETE FROM open_cold WHERE move_id IN (NEW.id, NEW.cold_id);
    INSERT INTO open_cold SELECT move_id FROM cold_to_open WHERE move_id IN (NEW.id, NEW.cold_id);
END;
CREATE TRIGGER open_cold_by_change AFTER UPDATE OF place, to_lot, weight_g, undone_at ON food_move
BEGIN
    DELETE FROM open_cold WHERE move_id IN (NEW.id, NEW.cold_id);
    INSERT INTO open_cold SELECT move_id FROM cold_to_open WHERE move_id IN (NEW.id, NEW.cold_id);
END;
CREATE TRIGGER open_cold_gone AFTER DELETE ON food_move
BEGIN
    DELETE FROM open_cold WHERE move_id IN (OLD.id, OLD.cold_id);
    INSERT INTO open_cold SELECT move_id FROM cold_to_open WHERE move_id IN (OLD.id, OLD.cold_id);
END;

-- Jars that somebody still has to look at, and those that stand on the shelf: a few of all that were ever filled.
CREATE INDEX jar_unsettled ON jar (load_id)
WHERE gone_at IS NULL AND rescue IS NULL
  AND (seal IS NULL OR (seal = 'failed' AND seal_detail IS NOT 'broken') OR tidy_at IS NULL OR undosed_at IS NOT NULL);
DROP INDEX jar_on_shelf;
CREATE INDEX jar_on_shelf ON jar (batch_id, size, load_id, number)
WHERE seal = 'holds' AND NOT provisional AND undosed_at IS NULL AND gone_at IS NULL;
CREATE INDEX jar_left ON jar (gone_at, batch_id, size, load_id, gone_how)
WHERE seal = 'holds' AND NOT provisional AND undosed_at IS NULL AND gone_at IS NOT NULL;
CREATE INDEX jar_rescued ON jar (rescue_at) WHERE rescue IS NOT NULL AND gone_at IS NULL;
CREATE INDEX jar_spoiled ON jar (batch_id, gone_why) WHERE gone_how = 'discarded';

CREATE INDEX load_event_lifted_at ON load_event (at, load_id) WHERE event = 'lifted' AND undone_at IS NULL;
CREATE INDEX batch_by_planned ON batch (planned_at) WHERE removed_at IS NULL;
CREATE INDEX cook_on_stove ON cook (started_at) WHERE removed_at IS NULL AND ended_at IS NULL;
CREATE INDEX cook_by_batch ON cook (batch_id) WHERE removed_at IS NULL;
CREATE INDEX lot_by_added ON lot (added_at) WHERE removed_at IS NULL;
CREATE INDEX food_move_at ON food_move (at) WHERE batch_id IS NULL AND undone_at IS NULL;
CREATE INDEX ph_reading_by_batch ON ph_reading (batch_id);
CREATE INDEX bench_ph_at ON bench_ph (at, id) WHERE removed_at IS NULL;
CREATE INDEX bench_ph_by_bowls ON bench_ph (bowls_id, at, id) WHERE removed_at IS NULL;
CREATE INDEX jar_past_by_load ON jar_past (load_id);
