//! The day over HTTP: the calculator's contract, and the strip that is laid out from the batches.

mod common;

use std::sync::Arc;

use actix_web::http::Method;
use actix_web::web;
use bodega::app::Shared;
use bodega::clock::Clock;
use bodega::demo::opening_moment;
use bodega_store::Store;
use common::{empty, lot, post, send};
use serde_json::{Value, json};

/// Wash 50, heat 40, fill 14, process 85, lift 5: one pair of hands, one canner.
fn one_load() -> Value {
    let after = |id: &str, least: i64, most: Value| json!({"id": id, "min_lag_minutes": least, "max_lag_minutes": most});
    json!({
        "resources": {"people": 1, "burners": 3, "kettles": 1, "canners": 1}, "horizon_minutes": 600,
        "time_limit_ms": 2000,
        "tasks": [
            {"id": "wash", "minutes": 50, "uses": {"people": 1, "burners": 0, "kettles": 0, "canners": 0}, "after": []},
            {"id": "heat", "minutes": 40, "uses": {"people": 0, "burners": 1, "kettles": 0, "canners": 1}, "after": []},
            {"id": "fill", "minutes": 14, "uses": {"people": 1}, "after": [after("wash", 0, Value::Null)]},
            {"id": "load", "minutes": 85, "uses": {"burners": 1, "canners": 1},
                "after": [after("fill", 0, json!(10)), after("heat", 0, json!(30))]},
            {"id": "lift", "minutes": 5, "uses": {"people": 1}, "after": [after("load", 0, json!(0))]},
        ],
    })
}

#[actix_web::test]
async fn the_day_is_laid_out_as_the_contract_says() {
    let shared = empty();
    let (status, answer) = post(&shared, "/api/compute/day", one_load()).await;
    // 50 + 14 + 85 + 5, the heating beside the washing.
    assert_eq!(
        (status, &answer["status"], &answer["makespan_minutes"]),
        (200, &json!("optimal"), &json!(154))
    );
    assert_eq!((&answer["bound_minutes"], &answer["why"]), (&json!(154), &Value::Null));
    assert_eq!((&answer["starts"]["fill"], &answer["starts"]["load"]), (&json!(50), &json!(64)));
    let heat = answer["starts"]["heat"].as_u64().unwrap();
    assert!((0..=24).contains(&heat), "it ends 0 to 30 min before the load goes in: {heat}");

    let mut short = one_load();
    short["horizon_minutes"] = json!(120);
    let (_, answer) = post(&shared, "/api/compute/day", short).await;
    assert_eq!((&answer["status"], &answer["makespan_minutes"]), (&json!("infeasible"), &Value::Null));
    assert_eq!(answer["why"], "one thing after another takes at least 2 h 34 min, and the day has 2 h");
    assert_eq!(answer["starts"], json!({}));
}

#[actix_web::test]
async fn bad_days_name_the_field() {
    let shared = empty();
    for (path, value, field) in [
        ("/tasks/1/id", json!("wash"), "tasks[1].id"),
        ("/tasks/2/after/0/id", json!("rinse"), "tasks[2].after[0].id"),
        ("/tasks/3/after/0/max_lag_minutes", json!(-5), "tasks[3].after[0].max_lag_minutes"),
        ("/tasks/0/minutes", json!(1_000_000), "tasks[0].minutes"),
        ("/tasks/0/minutes", json!(-1), "tasks[0].minutes"),
        ("/resources/people", json!(5000), "resources.people"),
        ("/time_limit_ms", json!(0), "time_limit_ms"),
    ] {
        let mut day = one_load();
        *day.pointer_mut(path).unwrap() = value;
        let (status, problem) = post(&shared, "/api/compute/day", day).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some(field)), "{problem}");
    }
}

#[actix_web::test]
async fn the_strip_is_proven_moves_with_a_slip_and_offers_ways_out() {
    // An afternoon that begins at 14:33, whatever the hour the test runs at.
    let clock = Clock::starting_at(opening_moment().unwrap(), 1);
    let shared = web::Data::from(Arc::new(Shared::new(Store::in_memory().unwrap(), clock)));
    let kitchen = json!({"altitude_ft": 500, "people": 1, "burners": 4, "day_ends": 1260}).to_string();
    send(&shared, Method::PATCH, "/api/kitchen", kitchen).await;
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [1]});
    post(&shared, "/api/batches", plan).await;
    let (_, day) = send(&shared, Method::GET, "/api/day", String::new()).await;
    assert_eq!(day["status"], "optimal", "{day}");
    let block = |day: &Value, work: &str| {
        day["blocks"].as_array().unwrap().iter().find(|block| block["work"] == work).unwrap().clone()
    };
    let wash = block(&day, "wash");
    let slip = json!({"block": wash["key"], "minutes": 40});
    let (_, moved) = post(&shared, "/api/day/slips", slip).await;
    let at =
        |day: &Value, work: &str| block(day, work)["starts"].as_i64().unwrap() - day["now"].as_i64().unwrap();
    let later = (at(&moved, "load") - at(&day, "load")) / 60_000;
    assert!((39..=41).contains(&later), "forty minutes later: {later}");
    assert_eq!(block(&moved, "wash")["slip_minutes"], 40);
    let (status, problem) = post(&shared, "/api/day/slips", json!({"block": "x", "minutes": 5000})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("minutes")));

    let early = json!({"day_ends": 15 * 60}).to_string();
    send(&shared, Method::PATCH, "/api/kitchen", early).await;
    let (_, full) = send(&shared, Method::GET, "/api/day", String::new()).await;
    assert_eq!(
        (&full["status"], &full["finish"], &full["blocks"]),
        (&json!("infeasible"), &Value::Null, &json!([]))
    );
    assert!(full["why"].as_str().unwrap().contains("at least"), "{full}");
    let ways = full["ways_out"].as_array().unwrap();
    assert!(ways.iter().any(|way| way["text"].as_str().unwrap().contains("for tomorrow")), "{full}");
}
