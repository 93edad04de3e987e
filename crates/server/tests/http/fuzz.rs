//! Every operation of the API with bodies made from its description, right and wrong: none fails inside, and every status
//! that comes is described.

use actix_web::http::Method;
use actix_web::test as call;
use actix_web::{App, web};
use bodega::clock::Clock;
use bodega::demo;
use bodega::routes::{description_json, routes};
use bodega_store::Store;
use proptest::prelude::*;
use proptest::strategy::ValueTree;
use proptest::test_runner::{Config, TestRng, TestRunner};
use serde_json::{Map, Value, json};

use crate::common::kitchen;

/// Requests of each operation.
const TRIES: usize = 24;
/// How deep a body goes.
const DEEPEST: u32 = 6;

/// Values of no kind that anybody asks for.
fn odd() -> BoxedStrategy<Value> {
    let odd = [
        Value::Null,
        json!(true),
        json!(-1),
        json!(i64::MAX),
        json!(1e308),
        json!(0.1),
        json!(""),
        json!("\u{202E}\u{0000}\n"),
        json!("x".repeat(500)),
        json!([]),
        json!([[[[1]]]]),
        json!({"": {"$ref": "#"}}),
    ];
    prop::sample::select(odd.to_vec()).boxed()
}

fn of_string(schema: &Value) -> BoxedStrategy<Value> {
    let words = match schema["format"].as_str() {
        Some("date") => ["2026-09-12", "1026-01-01", "9999-12-31", "2026-02-30"].to_vec(),
        _ => ["quart", "Blue bucket", "mouth", "1", "4 core", "ü"].to_vec(),
    };
    prop::sample::select(words).prop_map(|word| json!(word)).boxed()
}

#[expect(clippy::cast_possible_truncation, reason = "what is beyond is an edge of its own")]
fn whole(number: f64) -> Value {
    json!(number as i64)
}

fn of_number(schema: &Value, is_whole: bool) -> BoxedStrategy<Value> {
    let low = schema["minimum"].as_f64().unwrap_or(0.0);
    let high = schema["maximum"].as_f64().unwrap_or(60.0).max(low);
    let inside = (low..=high).prop_map(move |number| if is_whole { whole(number) } else { json!(number) });
    let edges = [whole(low), whole(high), json!(1), json!(2), json!(low - 1.0), json!(high + 1.0)];
    prop_oneof![4 => inside, 3 => prop::sample::select(edges.to_vec())].boxed()
}

fn of_object(schema: &Value, all: &Value, deep: u32) -> BoxedStrategy<Value> {
    let no_fields = Map::new();
    let fields = schema["properties"].as_object().unwrap_or(&no_fields);
    let required = schema["required"].as_array().cloned().unwrap_or_default();
    let parts: Vec<BoxedStrategy<Option<(String, Value)>>> = fields
        .iter()
        .map(|(name, inner)| {
            let (name, chance) = (name.clone(), if required.contains(&json!(name)) { 0.97 } else { 0.5 });
            prop::option::weighted(
                chance,
                made(inner, all, deep - 1).prop_map(move |value| (name.clone(), value)),
            )
            .boxed()
        })
        .collect();
    parts.prop_map(|fields| Value::Object(fields.into_iter().flatten().collect())).boxed()
}

/// What a schema describes, and now and then something else.
fn made(schema: &Value, all: &Value, deep: u32) -> BoxedStrategy<Value> {
    if deep == 0 {
        return Just(Value::Null).boxed();
    }
    if let Some(name) = schema["$ref"].as_str() {
        return made(&all[name.trim_start_matches("#/components/schemas/")], all, deep);
    }
    for choice in ["oneOf", "anyOf"] {
        if let Some(choices) = schema[choice].as_array() {
            return prop::strategy::Union::new(choices.iter().map(|one| made(one, all, deep))).boxed();
        }
    }
    if let Some(parts) = schema["allOf"].as_array() {
        let parts: Vec<_> = parts.iter().map(|part| made(part, all, deep)).collect();
        let merge = |values: Vec<Value>| {
            let objects = values.into_iter().filter_map(|value| value.as_object().cloned());
            Value::Object(objects.flatten().collect())
        };
        return parts.prop_map(merge).boxed();
    }
    if let Some(words) = schema["enum"].as_array() {
        return prop_oneof![9 => prop::sample::select(words.clone()), 1 => odd()].boxed();
    }
    let kinds: Vec<&str> = match &schema["type"] {
        Value::String(kind) => vec![kind],
        Value::Array(kinds) => kinds.iter().filter_map(Value::as_str).collect(),
        _ => vec!["object"],
    };
    let of_kind = |kind: &str| match kind {
        "object" => of_object(schema, all, deep),
        "array" => {
            prop::collection::vec(made(&schema["items"], all, deep - 1), 0..4).prop_map(Value::Array).boxed()
        }
        "integer" => of_number(schema, true),
        "number" => of_number(schema, false),
        "boolean" => any::<bool>().prop_map(|told| json!(told)).boxed(),
        "null" => Just(Value::Null).boxed(),
        _ => of_string(schema),
    };
    let right = prop::strategy::Union::new(kinds.into_iter().map(of_kind));
    prop_oneof![19 => right, 1 => odd()].boxed()
}

/// An address with its parameters filled in.
fn address(template: &str, operation: &Value, all: &Value) -> BoxedStrategy<String> {
    let parameters = operation["parameters"].as_array().cloned().unwrap_or_default();
    let value = |schema: &Value| {
        made(schema, all, DEEPEST).prop_map(|value| match value {
            Value::String(text) => text,
            other => other.to_string(),
        })
    };
    let encoded = |text: String| {
        text.bytes().fold(String::new(), |text, byte| {
            if byte.is_ascii_alphanumeric() || b"-_.".contains(&byte) {
                text + std::str::from_utf8(&[byte]).unwrap()
            } else {
                format!("{text}%{byte:02X}")
            }
        })
    };
    let named = parameters.into_iter().filter(|parameter| parameter["in"] != "header").map(|parameter| {
        let is_path = parameter["in"] == "path";
        let name = parameter["name"].as_str().unwrap().to_owned();
        // Most of what is asked for is there.
        let some = if is_path {
            prop_oneof![4 => (1..40_u32).prop_map(|id| id.to_string()), 1 => value(&parameter["schema"])]
                .boxed()
        } else {
            prop_oneof![2 => value(&parameter["schema"]), 1 => (1..40_u32).prop_map(|id| id.to_string())]
                .boxed()
        };
        prop::option::weighted(if is_path { 0.999 } else { 0.7 }, some)
            .prop_map(move |given| (is_path, name.clone(), given.map(encoded)))
            .boxed()
    });
    let template = template.to_owned();
    named
        .collect::<Vec<_>>()
        .prop_map(move |given| {
            let mut path = template.clone();
            let mut query = Vec::new();
            for (is_path, name, value) in given {
                match value {
                    Some(value) if is_path => path = path.replace(&format!("{{{name}}}"), &value),
                    Some(value) => query.push(format!("{name}={value}")),
                    None => {}
                }
            }
            if query.is_empty() { path } else { format!("{path}?{}", query.join("&")) }
        })
        .boxed()
}

#[actix_web::test]
async fn no_input_whatever_fails_inside_and_every_status_is_described() {
    let description: Value = serde_json::from_str(&description_json().unwrap()).unwrap();
    let all = &description["components"]["schemas"];
    let clock = Clock::starting_at(demo::opening_moment().unwrap(), 1);
    let store = Store::in_memory().unwrap();
    demo::fill(&store, clock.now()).unwrap();
    let shared: web::Data<_> = kitchen(store, clock);
    let app = call::init_service(App::new().app_data(shared).configure(routes)).await;
    // The same requests in every run.
    let algorithm = proptest::test_runner::RngAlgorithm::ChaCha;
    let mut runner = TestRunner::new_with_rng(Config::default(), TestRng::from_seed(algorithm, &[7; 32]));
    let mut seen = 0;
    for (template, operations) in description["paths"].as_object().unwrap() {
        for (method, operation) in operations.as_object().unwrap() {
            // It answers for as long as somebody listens.
            if template == "/api/live" {
                continue;
            }
            let method = Method::from_bytes(method.to_uppercase().as_bytes()).unwrap();
            let path = address(template, operation, all);
            let body = operation["requestBody"]["content"]["application/json"]["schema"].clone();
            let body = if body.is_null() { Just(Value::Null).boxed() } else { made(&body, all, DEEPEST) };
            for _ in 0..TRIES {
                let path = path.new_tree(&mut runner).unwrap().current();
                let body = body.new_tree(&mut runner).unwrap().current();
                let request = call::TestRequest::default().method(method.clone()).uri(&path);
                let request = request.insert_header(("Content-Type", "application/json"));
                let answer =
                    call::call_service(&app, request.set_payload(body.to_string()).to_request()).await;
                let status = answer.status().as_u16();
                let said = || format!("{method} {path} {body}: {status}");
                assert!(status < 500, "{}", said());
                assert!(operation["responses"][status.to_string()].is_object(), "{}", said());
                seen += 1;
            }
        }
    }
    assert!(seen > 2_000, "{seen} requests");
}
