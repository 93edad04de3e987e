//! What every address has in common: its description, its bounds, its problems, and 201 with a place for what is made.

use std::collections::BTreeSet;

use actix_web::http::Method;
use actix_web::{App, test as call, web};
use bodega::routes::{description_json, routes};
use bodega::state::Shared;
use serde_json::{Map, Value, json};

use crate::common::{empty, lot, patch, post, put, send};

fn description() -> Value {
    serde_json::from_str(&description_json().unwrap()).unwrap()
}

fn schemas(description: &Value) -> &Map<String, Value> {
    description["components"]["schemas"].as_object().unwrap()
}

/// Names of the schemas that a value refers to.
fn references(value: &Value, found: &mut BTreeSet<String>) {
    match value {
        Value::Object(fields) => {
            if let Some(name) = fields.get("$ref").and_then(Value::as_str) {
                found.insert(name.trim_start_matches("#/components/schemas/").to_owned());
            }
            fields.values().for_each(|inner| references(inner, found));
        }
        Value::Array(items) => items.iter().for_each(|inner| references(inner, found)),
        _ => {}
    }
}

/// Schemas of everything that is sent to the server.
fn asked(description: &Value) -> BTreeSet<String> {
    let mut open = BTreeSet::new();
    for operations in description["paths"].as_object().unwrap().values() {
        for operation in operations.as_object().unwrap().values() {
            references(&operation["requestBody"], &mut open);
        }
    }
    let mut all = BTreeSet::new();
    while let Some(name) = open.pop_first() {
        if all.insert(name.clone()) {
            references(&schemas(description)[&name], &mut open);
        }
    }
    all
}

fn is_number(schema: &Value) -> bool {
    let is = |kind: &Value| matches!(kind.as_str(), Some("number" | "integer"));
    is(&schema["type"]) || schema["type"].as_array().is_some_and(|kinds| kinds.iter().any(is))
}

#[test]
fn every_number_that_is_asked_for_has_its_bounds_in_the_description() {
    let description = description();
    let mut without = Vec::new();
    for name in asked(&description) {
        let Some(fields) = schemas(&description)[&name]["properties"].as_object() else { continue };
        for (field, schema) in fields {
            let is_id = field == "id" || field.ends_with("_id") || schema["format"] == "int64";
            let bounded = schema.get("minimum").is_some() && schema.get("maximum").is_some();
            if is_number(schema) && !is_id && !bounded {
                without.push(format!("{name}.{field}"));
            }
        }
    }
    assert_eq!(without, Vec::<String>::new());
}

#[test]
fn what_the_description_bounds_is_refused_beyond() {
    // Drawn from the description, so that the two cannot part.
    let description = description();
    let bounds = |schema: &str, field: &str| {
        let found = &schemas(&description)[schema]["properties"][field];
        (found["minimum"].as_f64().unwrap(), found["maximum"].as_f64().unwrap())
    };
    assert_eq!(bounds("AuditPh", "value"), (0.0, 14.0));
    assert_eq!(bounds("AcidRequest", "bottle_ml"), (50.0, 20_000.0));
    assert_eq!(bounds("DayTask", "minutes"), (0.0, 10_080.0));
}

#[actix_web::test]
async fn the_bounds_of_the_kitchen_are_held_at_their_edges() {
    let shared = empty();
    let description = description();
    let fields = schemas(&description)["KitchenRequest"]["properties"].as_object().unwrap();
    let mut tried = 0;
    for (field, schema) in fields {
        let (Some(min), Some(max)) = (schema["minimum"].as_f64(), schema["maximum"].as_f64()) else {
            continue;
        };
        let whole = schema["type"].to_string().contains("integer");
        let number = |value: f64| {
            #[expect(clippy::cast_possible_truncation, reason = "bounds of a kitchen")]
            if whole { json!(value as i64) } else { json!(value) }
        };
        for (value, fits) in [(min, true), (max, true), (min - 1.0, false), (max + 1.0, false)] {
            let (status, answer) = patch(&shared, "/api/kitchen", json!({ field: number(value) })).await;
            assert_eq!(status == 200, fits, "{field} {value}: {status} {answer}");
            if !fits {
                assert_eq!((status, answer["field"].as_str()), (422, Some(field.as_str())), "{answer}");
            }
        }
        tried += 1;
    }
    assert!(tried >= 5, "{tried} fields were tried");
}

/// Status, place and body of a request.
async fn made(shared: &web::Data<Shared>, path: &str, body: Value) -> (u16, Option<String>, Value) {
    let app = call::init_service(App::new().app_data(shared.clone()).configure(routes)).await;
    let request = call::TestRequest::post().uri(path).set_payload(body.to_string()).to_request();
    let response = call::call_service(&app, request).await;
    let place = response.headers().get("Location").map(|place| place.to_str().unwrap().to_owned());
    let status = response.status().as_u16();
    let body = serde_json::from_slice(&call::read_body(response).await).unwrap_or(Value::Null);
    (status, place, body)
}

#[actix_web::test]
async fn what_is_made_is_answered_with_its_place_and_stands_there() {
    let shared = empty();
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 2640})).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [1]});
    let lot: Value = serde_json::from_str(&lot("20")).unwrap();
    for (path, body) in [
        ("/api/lots", lot),
        ("/api/canners", json!({"name": "tall pot", "method": "boiling_water"})),
        ("/api/containers", json!({"name": "green crate", "weight": {"value": 20, "unit": "lb"}})),
        (
            "/api/kettles",
            json!({"name": "wide pot", "heat": "burner", "inner_diameter_mm": 320, "depth_mm": 250}),
        ),
        ("/api/batches", plan),
        ("/api/cooks", json!({"kettle": 1, "kind": "paste", "target": {"volume_l": 3.0}, "volume_l": 6.0})),
    ] {
        let (status, place, answer) = made(&shared, path, body).await;
        assert_eq!(status, 201, "{path}: {answer}");
        let place = place.unwrap_or_else(|| panic!("{path} names no place"));
        assert!(place.starts_with(path), "{place}");
        let (status, found) = send(&shared, Method::GET, &place, String::new()).await;
        assert_eq!(status, 200, "{place}: {found}");
    }
}

#[actix_web::test]
async fn every_problem_has_a_stable_uri_a_status_and_words() {
    let shared = empty();
    for (method, path, body, status, code) in [
        (Method::POST, "/api/lots", "{".to_owned(), 400, "not_json"),
        (Method::POST, "/api/lots", lot("-1"), 422, "bad_field"),
        (Method::GET, "/api/lots/77", String::new(), 404, "not_found"),
        (Method::GET, "/api/nowhere", String::new(), 404, "no_such_route"),
        (Method::PUT, "/api/broken/lot/1/kind", json!({"value": "paste"}).to_string(), 404, "not_broken"),
    ] {
        let (answered, problem) = send(&shared, method, path, body).await;
        assert_eq!(answered, status, "{path}: {problem}");
        assert_eq!(problem["type"], format!("urn:bodega:problem:{code}"), "{path}");
        assert_eq!((&problem["status"], &problem["code"]), (&json!(status), &json!(code)));
        assert!(problem["detail"].as_str().is_some_and(|detail| detail.len() > 10), "{problem}");
        assert!(problem["title"].as_str().is_some_and(|title| !title.is_empty()), "{problem}");
    }
}

#[actix_web::test]
async fn a_change_leaves_alone_what_it_does_not_name() {
    let shared = empty();
    let before = send(&shared, Method::GET, "/api/canners/1", String::new()).await.1;
    let (status, after) = patch(&shared, "/api/canners/1", json!({"capacity": {"quart": 5}})).await;
    assert_eq!(status, 200, "{after}");
    let mut expected = before.clone();
    expected["capacity"]["quart"] = json!(5);
    assert_eq!(after, expected);
    let (_, after) = patch(&shared, "/api/canners/1", json!({"capacity": {"half_pint": null}})).await;
    expected["capacity"].as_object_mut().unwrap().remove("half_pint");
    assert_eq!(after, expected);
    let (_, kitchen) = patch(&shared, "/api/kitchen", json!({"name": "Lake kitchen"})).await;
    assert_eq!((&kitchen["name"], &kitchen["altitude_ft"]), (&json!("Lake kitchen"), &Value::Null));
    let (_, kitchen) = patch(&shared, "/api/kitchen", json!({"altitude_ft": 900})).await;
    assert_eq!((&kitchen["name"], &kitchen["altitude_ft"]), (&json!("Lake kitchen"), &json!(900.0)));
}

#[actix_web::test]
async fn batches_are_filtered_and_not_listed_twice() {
    let shared = empty();
    for (path, expected) in
        [("/api/batches", 200), ("/api/batches?state=open", 200), ("/api/batches?state=all", 200)]
    {
        let (status, list) = send(&shared, Method::GET, path, String::new()).await;
        assert_eq!((status, list), (expected, json!([])), "{path}");
    }
    let (status, problem) = send(&shared, Method::GET, "/api/batches?state=some", String::new()).await;
    assert_eq!(status, 422, "{problem}");
    let (status, _) = put(&shared, "/api/goals", json!([])).await;
    assert_eq!(status, 200);
    let (status, counter) = send(&shared, Method::GET, "/api/counter", String::new()).await;
    assert_eq!((status, &counter["calls"]), (200, &json!([])));
    let (status, _) = post(&shared, "/api/nowhere", json!({})).await;
    assert_eq!(status, 404);
}
