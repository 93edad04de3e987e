//! No everyday screen reads all of the history: every statement that it has the records asked is planned by SQLite here.

use std::sync::{Mutex, PoisonError};

use actix_web::http::Method;
use bodega::clock::Clock;
use bodega::demo;
use bodega::routes::description_json;
use bodega_store::{FILE_NAME, Store};
use rusqlite::Connection;
use rusqlite::trace::TraceEvent;
use serde_json::{Value, json};

use crate::common::{fetch, kitchen, post, send};

/// Tables that grow with every year.
const HISTORY: [&str; 14] = [
    "batch",
    "batch_lot",
    "bench_ph",
    "bowls",
    "canner_load",
    "canner_reading",
    "cook",
    "cook_event",
    "food_move",
    "jar",
    "jar_past",
    "load_event",
    "lot",
    "ph_reading",
];

/// Indexes of the few rows that something is still to be done with, or that stand on the shelf.
const SHORT: [&str; 6] =
    ["bowls_by_recipe", "cook_on_stove", "food_move_at", "jar_on_shelf", "jar_rescued", "jar_unsettled"];

/// What is asked for by hand, now and then, and reads everything: it is streamed or says how long it takes.
const OF_ALL: [&str; 6] = [
    "/api/batches.csv",
    "/api/broken",
    "/api/export.json",
    "/api/harvest.csv",
    "/api/jars.csv",
    // Never ends.
    "/api/live",
];

static ASKED: Mutex<Vec<String>> = Mutex::new(Vec::new());

fn note(event: TraceEvent<'_>) {
    if let TraceEvent::Profile(statement, _) = event {
        let sql = statement.sql().into_owned();
        let mut asked = ASKED.lock().unwrap_or_else(PoisonError::into_inner);
        if !asked.contains(&sql) {
            asked.push(sql);
        }
    }
}

/// Whether a line of a plan reads a table of history from its beginning.
fn reads_all(line: &str, sql: &str, sorts: bool) -> bool {
    let Some(scan) = line.strip_prefix("SCAN ") else { return false };
    // A statement calls a table what it likes.
    let called = scan.split(' ').next().unwrap_or_default();
    let is_history = HISTORY.iter().any(|table| {
        called == *table
            || sql.contains(&format!("{table} AS {called}")) && !sql.contains(&format!(") AS {called}"))
    });
    let is_short = SHORT.iter().any(|index| scan.contains(index));
    // The newest of a list in the order of its numbers is found after a few of them.
    let stops_early = sql.contains("LIMIT") && !sorts;
    is_history && !is_short && !stops_early
}

fn faults(connection: &Connection, sql: &str) -> Vec<String> {
    let Ok(mut statement) = connection.prepare(&format!("EXPLAIN QUERY PLAN {sql}")) else {
        return Vec::new();
    };
    let lines = statement.raw_query().mapped(|row| row.get::<_, String>(3)).collect::<Result<Vec<_>, _>>();
    let lines = lines.unwrap_or_default();
    let sorts = lines.iter().any(|line| line == "USE TEMP B-TREE FOR ORDER BY");
    lines.into_iter().filter(|line| reads_all(line, sql, sorts)).collect()
}

#[actix_web::test]
async fn no_everyday_screen_scans_the_history() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    let clock = Clock::starting_at(demo::opening_moment().unwrap(), 1);
    demo::fill(&store, clock.now()).unwrap();
    store.watch(note);
    let shared = kitchen(store, clock);

    let description: Value = serde_json::from_str(&description_json().unwrap()).unwrap();
    let asked =
        description["paths"].as_object().unwrap().iter().filter(|(_, item)| item.get("get").is_some());
    for (path, _) in asked.filter(|(path, _)| !OF_ALL.contains(&path.as_str())) {
        for id in ["1", "4", "6"] {
            let path = path.replace("{id}", id).replace("{day}", "2026-09-12");
            let (status, _) = fetch(&shared, Method::GET, &path, String::new()).await;
            assert!([200, 404, 409, 422].contains(&status), "{path}: {status}");
            if !path.contains(id) {
                break;
            }
        }
    }
    let (_, lots) = send(&shared, Method::GET, "/api/lots", String::new()).await;
    let fruit = lots
        .as_array()
        .unwrap()
        .iter()
        .filter(|lot| lot["food"] == "fruit" && lot["condition"] == "firm_ripe");
    let lots: Vec<&Value> = fruit.map(|lot| &lot["id"]).collect();
    let wish = json!({"product": "crushed", "medium": null, "pack": "hot", "thickness": null, "jar": "quart", "jars": null,
        "agent": "citric_acid", "lots": lots});
    for (path, body) in [
        ("/api/plan", wish),
        ("/api/plan/compare", json!({"lots": lots, "agent": "citric_acid"})),
        ("/api/plan/first", json!({"altitude_ft": 2640, "weight_kg": 9.0, "agent": "citric_acid"})),
    ] {
        let (status, answer) = post(&shared, path, body).await;
        assert!(status == 200, "{path}: {status} {answer}");
    }

    let asked = ASKED.lock().unwrap_or_else(PoisonError::into_inner).clone();
    assert!(asked.len() > 60, "only {} statements were seen", asked.len());
    let connection = Connection::open(directory.path().join(FILE_NAME)).unwrap();
    let found: Vec<String> = asked
        .iter()
        .flat_map(|sql| faults(&connection, sql).into_iter().map(move |line| format!("{line}\n    of {sql}")))
        .collect();
    assert!(found.is_empty(), "{}", found.join("\n"));
}

#[test]
fn a_scan_is_seen() {
    let directory = tempfile::tempdir().unwrap();
    drop(Store::open(directory.path()).unwrap());
    let connection = Connection::open(directory.path().join(FILE_NAME)).unwrap();
    for sql in [
        "SELECT count(*) FROM batch WHERE product = 'whole'",
        "SELECT 1 FROM lot JOIN jar AS other ON other.size = lot.kind",
        "SELECT id FROM load_event WHERE event = 'lifted' ORDER BY at LIMIT 1",
    ] {
        assert!(!faults(&connection, sql).is_empty(), "{sql}");
    }
    for sql in ["SELECT * FROM jar WHERE id = 1", "SELECT * FROM batch ORDER BY id DESC LIMIT 5"] {
        assert!(faults(&connection, sql).is_empty(), "{sql}");
    }
}
