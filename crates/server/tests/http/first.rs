//! The first answer, the household's ways, ticks that are kept, sources of figures: over HTTP.

use actix_web::http::Method;
use serde_json::{Value, json};

use crate::common::{empty, lot, patch, post, put, send};

#[actix_web::test]
async fn the_first_answer_needs_no_record_and_no_height() {
    let shared = empty();
    let ask = |altitude: Option<f64>| json!({"altitude_ft": altitude, "weight_kg": 13.6, "agent": "bottled_lemon_juice"});
    let (status, answer) = post(&shared, "/api/plan/first", ask(None)).await;
    assert_eq!(status, 200);
    let whole = &answer["lines"][0];
    assert_eq!((&whole["minutes_from"], &whole["minutes_to"]), (&json!(45), &json!(60)));
    assert_eq!(answer["altitude_ft"], Value::Null);
    let (_, answer) = post(&shared, "/api/plan/first", ask(Some(2640.0))).await;
    let whole = &answer["lines"][0];
    assert_eq!((&whole["minutes_from"], &whole["minutes_to"]), (&json!(50), &json!(50)));
    assert_eq!(
        (&whole["acid"], &whole["jars"]["expected"], &whole["loads"]),
        (&json!("2 Tbsp"), &json!(9), &json!(2))
    );
    // Nothing was recorded for it.
    let (_, counter) = send(&shared, Method::GET, "/api/counter", String::new()).await;
    assert_eq!((&counter["is_new"], &counter["kitchen"]["altitude_ft"]), (&json!(true), &Value::Null));
    let (status, problem) =
        post(&shared, "/api/plan/first", json!({"weight_kg": -1, "agent": "citric_acid"})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("weight_kg")));
}

#[actix_web::test]
async fn where_no_process_was_tested_the_first_answer_says_so() {
    let shared = empty();
    let ask = json!({"altitude_ft": 12_000.0, "weight_kg": 5, "product": "sauce", "agent": "citric_acid"});
    let (_, answer) = post(&shared, "/api/plan/first", ask).await;
    assert_eq!(answer["lines"][0]["minutes_from"], Value::Null);
    let why = answer["lines"][0]["refusal"].as_str().unwrap_or_default().to_owned();
    assert!(why.contains("10,000 ft (3,048 m)"), "{why}");
}

#[actix_web::test]
async fn heat_and_height_follow_the_units_until_somebody_says_otherwise() {
    let shared = empty();
    let (_, kitchen) = patch(&shared, "/api/kitchen", json!({"units": "metric"})).await;
    assert_eq!((&kitchen["ways"]["heat"], &kitchen["ways"]["height"]), (&json!("celsius"), &json!("metres")));
    let change = json!({"heat": "fahrenheit", "hours": "12", "days": "month_first", "decimal": "comma"});
    let (_, kitchen) = patch(&shared, "/api/kitchen", change).await;
    let ways = json!({"hours": "12", "days": "month_first", "decimal": "comma", "heat": "fahrenheit", "height": "metres"});
    assert_eq!(kitchen["ways"], ways);
    let (_, almanac) = send(&shared, Method::GET, "/api/almanac", String::new()).await;
    assert_eq!(almanac["bands"][1]["label"], "305 to 914 m");
    let jars: Vec<&Value> =
        almanac["acid"][0]["doses"].as_array().unwrap().iter().map(|dose| &dose["jar"]).collect();
    assert_eq!(jars, ["pint", "half_litre", "quart", "litre"]);
}

#[actix_web::test]
async fn what_was_reached_for_last_is_offered_first_and_ticks_are_kept() {
    let shared = empty();
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 500})).await;
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "salt": true, "lots": [1]});
    post(&shared, "/api/batches", plan).await;
    let (_, kitchen) = send(&shared, Method::GET, "/api/kitchen", String::new()).await;
    assert_eq!((&kitchen["agent"], &kitchen["salt"]), (&json!("citric_acid"), &json!(true)));

    let sheet = async || send(&shared, Method::GET, "/api/batches/1/checklist", String::new()).await.1;
    let line = sheet().await["steps"][0]["text"].clone();
    assert_eq!(put(&shared, "/api/batches/1/checklist", json!({"line": line, "done": true})).await.0, 200);
    assert_eq!(sheet().await["ticks"], json!([line]));
    put(&shared, "/api/batches/1/checklist", json!({"line": line, "done": false})).await;
    assert_eq!(sheet().await["ticks"], json!([]));
    let (status, problem) =
        put(&shared, "/api/batches/1/checklist", json!({"line": "sing", "done": true})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("line")));
}

#[actix_web::test]
async fn every_figure_has_a_source_and_says_how_sure_it_is() {
    let (_, figures) = send(&empty(), Method::GET, "/api/figures", String::new()).await;
    let figures = figures.as_array().unwrap();
    assert!(figures.len() >= 13);
    assert!(figures.iter().all(|one| one["source"]["title"].is_string() && one["sure"].is_string()));
}

#[actix_web::test]
async fn a_day_that_does_not_fit_is_laid_out_with_what_falls_off_its_end() {
    let shared = empty();
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 500, "day_ends": 0})).await;
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [1]});
    post(&shared, "/api/batches", plan).await;
    let (_, day) = send(&shared, Method::GET, "/api/day", String::new()).await;
    assert_eq!(day["finish"], Value::Null);
    let ends = day["would_finish"].as_i64().unwrap();
    assert!(ends > day["day_ends"].as_i64().unwrap());
    let last = day["blocks"].as_array().unwrap().iter().filter_map(|block| block["ends"].as_i64()).max();
    assert_eq!(last, Some(ends), "the blocks are those of the longer day");
}
