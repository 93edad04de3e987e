//! Kitchens of an earlier build and kitchens with a broken record: every page of the API still answers.

use std::path::Path;

use actix_web::http::Method;
use actix_web::web;
use bodega::clock::Clock;
use bodega::routes::description_json;
use bodega::state::Shared;
use bodega_store::{FILE_NAME, Store};
use serde_json::{Value, json};

use crate::common::{fetch, kitchen, put, send};

/// A copy of the old kitchen, with something overwritten.
fn with(sql: &str) -> (tempfile::TempDir, web::Data<Shared>) {
    let directory = tempfile::tempdir().unwrap();
    let old = Path::new(env!("CARGO_MANIFEST_DIR")).join("../store/tests/data/kitchen-v9.db");
    let file = directory.path().join(FILE_NAME);
    std::fs::copy(old, &file).unwrap();
    let raw = rusqlite::Connection::open(&file).unwrap();
    raw.pragma_update(None, "ignore_check_constraints", true).unwrap();
    raw.execute_batch(sql).unwrap();
    drop(raw);
    let store = Store::open(directory.path()).unwrap();
    let shared = kitchen(store, Clock::wall());
    (directory, shared)
}

/// Every address that is only read and asks for nothing, out of the description.
fn pages() -> Vec<String> {
    let description: Value = serde_json::from_str(&description_json().unwrap()).unwrap();
    let mut pages: Vec<String> = Vec::new();
    for (path, operations) in description["paths"].as_object().unwrap() {
        let needs = |parameter: &Value| parameter["required"] == true;
        let asks = operations["get"]["parameters"].as_array().is_some_and(|all| all.iter().any(needs));
        if operations.get("get").is_some() && !asks && path != "/api/live" {
            pages.push(path.clone());
        }
    }
    pages
}

#[actix_web::test]
async fn every_page_of_an_old_kitchen_answers() {
    let (_directory, shared) = with("");
    let pages = pages();
    assert!(pages.len() > 25, "{pages:?}");
    for page in pages {
        let (status, body) = fetch(&shared, Method::GET, &page, String::new()).await;
        assert_eq!(status, 200, "{page}: {}", String::from_utf8_lossy(&body));
    }
}

#[actix_web::test]
async fn old_records_say_what_they_said() {
    let (_directory, shared) = with("");
    let get = async |path: &str| send(&shared, Method::GET, path, String::new()).await.1;
    let batches = get("/api/batches?state=all").await;
    let codes: Vec<&str> =
        batches.as_array().unwrap().iter().map(|batch| batch["code"].as_str().unwrap()).collect();
    assert_eq!(codes.len(), 8, "{codes:?}");
    assert_eq!(get("/api/batches").await.as_array().unwrap().len(), 4);
    let loads = get("/api/loads").await;
    let minutes: Vec<i64> =
        loads.as_array().unwrap().iter().map(|load| load["minutes"].as_i64().unwrap()).collect();
    assert_eq!(minutes, [40, 50, 50, 40, 40, 45]);
    assert_eq!(loads[0]["jars"][0]["number"], 10);
    let kitchen = get("/api/kitchen").await;
    assert_eq!((&kitchen["name"], &kitchen["altitude_ft"]), (&json!("Saltbrook Terrace"), &json!(2640.0)));
    for id in 1..=8 {
        let (status, record) =
            send(&shared, Method::GET, &format!("/api/batches/{id}/record"), String::new()).await;
        assert_eq!(status, 200, "{id}: {record}");
    }
    for id in 1..=17 {
        let (status, load) = send(&shared, Method::GET, &format!("/api/loads/{id}"), String::new()).await;
        assert_eq!(status, 200, "{id}: {load}");
    }
}

#[actix_web::test]
async fn a_broken_record_takes_no_page_with_it_and_is_put_right_over_http() {
    for (sql, table, field, word) in [
        ("UPDATE lot SET kind = 'plum' WHERE id = 1", "lot", "kind", "paste"),
        ("UPDATE batch SET agent = 'soda' WHERE id = 6", "batch", "agent", "citric_acid"),
        ("UPDATE batch SET product = 'jam' WHERE id = 6", "batch", "product", "whole"),
        ("UPDATE jar SET size = 'bucket' WHERE id = 1", "jar", "size", "pint"),
        ("UPDATE load_event SET event = 'sang' WHERE id = 40", "load_event", "event", "boils"),
        ("UPDATE cook SET setting = 'mad' WHERE id = 1", "cook", "setting", "high"),
        (
            "UPDATE goal SET product = 'jam' WHERE position = (SELECT min(position) FROM goal)",
            "goal",
            "product",
            "sauce",
        ),
    ] {
        let (_directory, shared) = with(sql);
        for page in pages() {
            let (status, body) = fetch(&shared, Method::GET, &page, String::new()).await;
            assert_eq!(status, 200, "{sql}: {page}: {}", String::from_utf8_lossy(&body));
        }
        let (_, broken) = send(&shared, Method::GET, "/api/broken", String::new()).await;
        assert_eq!(broken.as_array().unwrap().len(), 1, "{sql}: {broken}");
        assert_eq!((&broken[0]["table"], &broken[0]["field"]), (&json!(table), &json!(field)));
        let place = format!("/api/broken/{table}/{}/{field}", broken[0]["id"]);
        let (status, problem) = put(&shared, &place, json!({"value": "nonsense"})).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some("value")), "{problem}");
        let (status, left) = put(&shared, &place, json!({ "value": word })).await;
        assert!(status < 300, "{sql}: {status} {left}");
        let (_, broken) = send(&shared, Method::GET, "/api/broken", String::new()).await;
        assert_eq!(broken, json!([]), "{sql}");
    }
}

#[actix_web::test]
async fn a_history_that_makes_no_sense_leaves_every_page_open() {
    let (_directory, shared) = with(
        "UPDATE load_event SET event = 'lifted' WHERE load_id = 12;
         UPDATE load_event SET event = 'pressure_down', at = -5 WHERE load_id = 9;
         UPDATE load_event SET event = 'jar_out', jar_id = 1 WHERE load_id = 10;
         UPDATE canner_load SET minutes = 240, psi = 15 WHERE id = 13;",
    );
    for page in pages() {
        let (status, body) = fetch(&shared, Method::GET, &page, String::new()).await;
        assert_eq!(status, 200, "{page}: {}", String::from_utf8_lossy(&body));
    }
    for id in [9, 10, 12, 13] {
        let (status, load) = send(&shared, Method::GET, &format!("/api/loads/{id}"), String::new()).await;
        assert_eq!(status, 200, "{id}: {load}");
    }
}
