//! The lists of what is open, held against the whole history: whatever is written in whatever order, and by whom.

use bodega_store::{FILE_NAME, Store};
use rusqlite::Connection;

use crate::common::Chance;

/// Each list, and what it must hold.
const LISTS: [(&str, &str); 3] = [
    (
        "SELECT load_id FROM open_load ORDER BY 1",
        "SELECT id FROM canner_load WHERE id NOT IN
             (SELECT load_id FROM load_event WHERE event = 'lifted' AND undone_at IS NULL) ORDER BY 1",
    ),
    (
        "SELECT lot_id FROM open_lot ORDER BY 1",
        "SELECT lot.id FROM lot LEFT JOIN (
             SELECT lot_id, sum(weight_g) AS gone FROM (
                 SELECT lot_id, weight_g FROM batch_lot JOIN batch ON batch.id = batch_id WHERE removed_at IS NULL
                 UNION ALL SELECT lot_id, weight_g FROM food_move WHERE undone_at IS NULL AND lot_id IS NOT NULL)
             GROUP BY lot_id) AS drawn ON drawn.lot_id = lot.id
         WHERE removed_at IS NULL AND weight_g - coalesce(gone, 0) > 0 ORDER BY 1",
    ),
    (
        "SELECT move_id FROM open_cold ORDER BY 1",
        "SELECT one.id FROM food_move AS one LEFT JOIN food_move AS gone
             ON gone.cold_id = one.id AND gone.undone_at IS NULL
         WHERE one.place IN ('refrigerator', 'freezer') AND one.to_lot IS NULL AND one.undone_at IS NULL
         GROUP BY one.id HAVING one.weight_g > coalesce(sum(gone.weight_g), 0) ORDER BY 1",
    ),
];

fn ids(connection: &Connection, sql: &str) -> Vec<i64> {
    let mut statement = connection.prepare(sql).unwrap();
    statement.query_map([], |row| row.get(0)).unwrap().collect::<Result<_, _>>().unwrap()
}

/// Things that are written to the tables of history, with `?` for a number from 1 to 4 and `#` for one from 1 to 900. What
/// the schema refuses is refused.
const WRITES: [&str; 20] = [
    "INSERT INTO lot (picked_on, kind, condition, frozen, weight_g, added_at) VALUES ('2026-09-01', 'paste', 'firm_ripe', 0, #, 1)",
    "UPDATE lot SET weight_g = # WHERE id = ?",
    "UPDATE lot SET removed_at = 5 WHERE id = ?",
    "UPDATE lot SET removed_at = NULL WHERE id = ?",
    "INSERT INTO batch_lot (batch_id, lot_id, weight_g) VALUES (?, ?, #)",
    "UPDATE batch_lot SET weight_g = # WHERE lot_id = ?",
    "DELETE FROM batch_lot WHERE lot_id = ?",
    "UPDATE batch SET removed_at = 5 WHERE id = ?",
    "UPDATE batch SET removed_at = NULL WHERE id = ?",
    "INSERT INTO canner_load (canner_id, batch_id, position, minutes) VALUES (1, ?, #, 40)",
    "DELETE FROM canner_load WHERE id = ?",
    "INSERT INTO load_event (load_id, event, at) VALUES (?, 'lifted', #)",
    "INSERT INTO load_event (load_id, event, at) VALUES (?, 'boils', #)",
    "UPDATE load_event SET undone_at = 9 WHERE load_id = ?",
    "UPDATE load_event SET event = 'lifted', undone_at = NULL WHERE id = ?",
    "DELETE FROM load_event WHERE id = ?",
    "INSERT INTO food_move (lot_id, at, food, place, amount, measure, weight_g) VALUES (?, 1, 'juice', 'freezer', 1, 'kg', #)",
    "INSERT INTO food_move (cold_id, at, food, place, amount, measure, weight_g) VALUES (?, 1, 'juice', 'table', 1, 'kg', #)",
    "UPDATE food_move SET undone_at = iif(# > 400, 5, NULL) WHERE id = ?",
    "DELETE FROM food_move WHERE id = ?",
];

#[test]
fn what_is_open_is_what_the_history_leaves_open() {
    let mut seen = [0; 3];
    for seed in 1..=30 {
        let directory = tempfile::tempdir().unwrap();
        drop(Store::open(directory.path()).unwrap());
        let connection = Connection::open(directory.path().join(FILE_NAME)).unwrap();
        connection.pragma_update(None, "synchronous", false).unwrap();
        for code in ["260901-1", "260901-2", "260901-3", "260901-4"] {
            let sql = "INSERT INTO batch (code, product, pack, method, agent, salt, altitude_ft, planned_at)
                VALUES (?1, 'crushed', 'hot', 'boiling_water', 'citric_acid', 0, 0, 1)";
            connection.execute(sql, [code]).unwrap();
        }
        let mut chance = Chance(seed);
        for step in 0..120 {
            let write = WRITES[usize::try_from(chance.below(WRITES.len() as u64)).unwrap()];
            let said: String = write
                .chars()
                .map(|letter| match letter {
                    '?' => (chance.below(4) + 1).to_string(),
                    '#' => (chance.below(900) + 1).to_string(),
                    other => other.to_string(),
                })
                .collect();
            let _ = connection.execute(&said, []);
            for ((kept, meant), seen) in LISTS.iter().zip(&mut seen) {
                let kept = ids(&connection, kept);
                assert_eq!(kept, ids(&connection, meant), "walk {seed}, step {step}: {said}");
                *seen += kept.len();
            }
        }
    }
    assert!(seen.iter().all(|seen| *seen > 1000), "{seen:?}: lists that are empty check nothing");
}
