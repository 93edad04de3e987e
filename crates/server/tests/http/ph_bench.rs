//! The pH bench over HTTP: a reading forbids and never allows, and the simulated meter drifts until it is set.

use actix_web::http::Method;
use serde_json::{Value, json};

use crate::common::{empty, patch, post, put, send};

fn line(name: &str, amount: f64, unit: &str, role: &str) -> Value {
    json!({"part": {"name": name, "amount": amount, "unit": unit, "role": role}, "ticked": true})
}

fn checked() -> Value {
    json!({"name": "Salsa", "kind": "maker", "title": "Leaflet", "edition": "2014", "page": "12",
        "lines": [line("tomatoes", 5.0, "lb", "tomato"), line("onions", 1.0, "lb", "low_acid"),
            line("vinegar 5 %", 1.0, "cup", "acid")],
        "makes": {"jar": "pint", "low": 6, "high": 6},
        "process": {"pack": "hot", "headspace_in": 0.5,
            "times": [{"jar": "pint", "method": "boiling_water", "minutes": 20}]},
        "process_ticked": true})
}

#[actix_web::test]
async fn a_reading_of_the_mix_forbids_and_never_allows() {
    let shared = empty();
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 500})).await;
    // Without a recipe no reading allows anything.
    let (status, alone) = post(&shared, "/api/ph_bench", json!({"ph": 3.9})).await;
    assert_eq!((status, &alone["may_water_bath"]["ruling"]), (201, &json!("not_fine")));
    assert!(alone["may_water_bath"]["says"].as_str().unwrap().contains("Not by a reading"));
    post(&shared, "/api/recipes", json!({"text": checked()})).await;
    post(&shared, "/api/recipes/1/batches", json!({"factor": 1})).await;
    let read = async |body: Value| post(&shared, "/api/ph_bench", body).await.1;
    let low = read(json!({"bowls": 1, "ph": 4.0})).await;
    assert_eq!(low["may_water_bath"]["ruling"], "cannot_tell", "the bowls were not told yet");
    for (place, amount) in [5.0, 1.0, 1.0].into_iter().enumerate() {
        patch(&shared, "/api/bowls/1", json!({"amounts": [{"place": place, "amount": amount}]})).await;
    }
    // An onion may well lie above the line; the mix may not.
    let onion = read(json!({"bowls": 1, "part": "onions", "ph": 5.6, "calibrated_today": false})).await;
    assert_eq!(onion["may_water_bath"]["ruling"], "fine");
    let found: Vec<&Value> =
        onion["readings"][0]["findings"].as_array().unwrap().iter().map(|finding| &finding["code"]).collect();
    assert_eq!(found, ["ph_uncalibrated"]);
    let high = read(json!({"bowls": 1, "ph": 4.8})).await;
    assert_eq!(high["may_water_bath"]["ruling"], "not_fine");
    let (_, load) = send(&shared, Method::GET, "/api/loads/1", String::new()).await;
    let codes: Vec<&Value> =
        load["judged"]["findings"].as_array().unwrap().iter().map(|finding| &finding["code"]).collect();
    assert_eq!(codes, ["ph_high"], "it is a reading of the batch");
    let id = high["readings"][0]["id"].as_i64().unwrap();
    let (status, _) = patch(&shared, &format!("/api/ph_bench/{id}"), json!({"removed": true})).await;
    assert_eq!(status, 204);
    let (_, bench) = send(&shared, Method::GET, "/api/ph_bench?bowls=1", String::new()).await;
    assert_eq!(bench["may_water_bath"]["ruling"], "fine");
    assert_eq!(bench["readings"].as_array().unwrap().len(), 2, "its history stays");
    for (body, field) in [
        (json!({"ph": 15}), "ph"),
        (json!({"ph": 4, "sample_c": 500}), "sample_c"),
        (json!({"ph": 4, "part": " "}), "part"),
    ] {
        let (status, problem) = post(&shared, "/api/ph_bench", body).await;
        assert_eq!((status, &problem["field"]), (422, &json!(field)));
    }
    assert_eq!(post(&shared, "/api/ph_bench", json!({"ph": 4, "bowls": 9})).await.0, 404);
    assert_eq!(patch(&shared, "/api/ph_bench/99", json!({"removed": true})).await.0, 404);
}

#[actix_web::test]
async fn the_simulated_meter_drifts_until_it_is_set_and_says_that_it_is_simulated() {
    let shared = empty();
    let read = async |degrees: f64| {
        let (status, bench) =
            post(&shared, "/api/ph_bench/meter", json!({"part": "tomatoes", "sample_c": degrees})).await;
        assert_eq!((status, &bench["readings"][0]["simulated"]), (201, &json!(true)));
        (bench["readings"][0]["ph"].as_f64().unwrap(), bench["readings"][0]["findings"].clone())
    };
    let (drifted, findings) = read(25.0).await;
    assert_eq!(findings[0]["code"], "ph_uncalibrated");
    let (_, half) = put(&shared, "/api/ph_bench/meter", json!({"buffer": "7.00"})).await;
    assert_eq!(half["calibrated_today"], false);
    let (_, whole) = put(&shared, "/api/ph_bench/meter", json!({"buffer": "4.01"})).await;
    assert_eq!((&whole["calibrated_today"], &whole["name"]), (&json!(true), &json!("simulated pH meter")));
    let (right, findings) = read(25.0).await;
    assert!((right - 4.4).abs() < 1e-9 && (drifted - right) > 0.3 && findings == json!([]));
    let (hot, findings) = read(80.0).await;
    assert!(hot < right - 0.2, "a warm sample reads lower: {hot}");
    assert_eq!(findings[0]["code"], "ph_uncompensated");
    let (status, problem) = put(&shared, "/api/ph_bench/meter", json!({"buffer": "9.00"})).await;
    assert_eq!((status, problem["code"].is_string()), (422, true));
}
