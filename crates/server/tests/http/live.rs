//! What an event calls stale is all that a change made different: everything is asked before and after each kind of change.

use std::collections::BTreeMap;

use actix_web::http::Method;
use actix_web::web;
use bodega::clock::Clock;
use bodega::demo;
use bodega::live::Topic;
use bodega::routes::description_json;
use bodega::state::Shared;
use bodega_store::Store;
use serde_json::{Value, json};

use crate::common::{fetch, kitchen, send};

/// Addresses that are not asked by a key of their own, or never the same twice.
const LEFT_OUT: [&str; 4] = ["/api/live", "/api/health", "/api/openapi.json", "/api/calendar.ics"];

/// Every answer of the kitchen, by its address.
async fn answers(shared: &web::Data<Shared>, paths: &[String]) -> BTreeMap<String, Vec<u8>> {
    let mut all = BTreeMap::new();
    for path in paths {
        let (_, body) = fetch(shared, Method::GET, path, String::new()).await;
        all.insert(path.clone(), body);
    }
    all
}

fn paths() -> Vec<String> {
    let description: Value = serde_json::from_str(&description_json().unwrap()).unwrap();
    let asked = description["paths"].as_object().unwrap().iter().filter(|(path, item)| {
        item.get("get").is_some() && !LEFT_OUT.contains(&path.as_str()) && !path.contains('.')
    });
    let with_ids = asked.flat_map(|(path, _)| {
        let ids: &[&str] = if path.contains("{id}") { &["1", "4", "6", "7"] } else { &[""] };
        ids.iter().map(|id| path.replace("{id}", id).replace("{day}", "2026-09-12")).collect::<Vec<_>>()
    });
    with_ids.collect()
}

/// Whether an answer is asked again for a change.
fn is_stale(topic: Topic, path: &str) -> bool {
    let first = path.trim_start_matches("/api/").split('/').next().unwrap_or_default();
    topic.stale().is_none_or(|stale| stale.contains(&first))
}

#[actix_web::test]
async fn what_is_called_stale_is_all_that_changed() {
    // Its clock stands still: nothing is different but what was changed.
    let clock = Clock::starting_at(demo::opening_moment().unwrap(), 0);
    let store = Store::in_memory().unwrap();
    demo::fill(&store, clock.now()).unwrap();
    let shared = kitchen(store, clock);
    let paths = paths();
    let loads = shared.store.open_loads().unwrap();
    let bench =
        loads.iter().find(|load| !load.clock.has_begun() && load.jars.iter().any(|jar| !jar.acid)).unwrap();
    let inside = loads.iter().find(|load| load.clock.has_begun()).unwrap();
    let cook = shared.store.cooks().unwrap()[0].id;
    let cooled = shared.store.towel().unwrap();
    let lid = cooled.iter().flat_map(|load| &load.jars).find(|jar| jar.verdict.is_none()).unwrap().id;
    let group = shared.store.shelf(&Default::default()).unwrap().remove(0);
    let (_, sheet) =
        send(&shared, Method::GET, &format!("/api/batches/{}/checklist", bench.batch.id), String::new())
            .await;
    let line = sheet["steps"][0]["text"].clone();
    let jar = bench.jars[0].id;
    let changes: Vec<(Topic, Method, String, Value)> = vec![
        (Topic::Probe, Method::POST, format!("/api/loads/{}/readings", inside.id), json!({"temp_c": 88.0})),
        (Topic::Reading, Method::POST, format!("/api/cooks/{cook}/events"), json!({"depth_mm": 112})),
        (Topic::Reading, Method::POST, format!("/api/cooks/{cook}/events"), json!({"setting": "low"})),
        (Topic::Bench, Method::POST, format!("/api/loads/{}/steps", bench.id), json!({"step": "acid"})),
        (
            Topic::Bench,
            Method::POST,
            format!("/api/jars/{jar}/steps"),
            json!({"step": "filled", "done": true}),
        ),
        (
            Topic::Bench,
            Method::PUT,
            format!("/api/batches/{}/pot_dose", bench.batch.id),
            json!({"said": [{"amount": 6, "measure": "tbsp"}]}),
        ),
        (
            Topic::Canner,
            Method::POST,
            format!("/api/loads/{}/events", inside.id),
            json!({"event": "boil_lost"}),
        ),
        (Topic::Canner, Method::POST, format!("/api/loads/{}/events", inside.id), json!({"event": "boils"})),
        (Topic::Towel, Method::PUT, "/api/seals".to_owned(), json!({"jars": [lid], "verdict": "failed"})),
        (
            Topic::Shelf,
            Method::POST,
            "/api/departures".to_owned(),
            json!({"batch": group.batch, "size": group.size, "how": "eaten"}),
        ),
        (
            Topic::Checklist,
            Method::PUT,
            format!("/api/batches/{}/checklist", bench.batch.id),
            json!({"line": line, "done": true}),
        ),
        (
            Topic::Stock,
            Method::PUT,
            "/api/stock".to_owned(),
            json!({"item": "jar", "jar": "quart", "count": 3}),
        ),
        (
            Topic::Everything,
            Method::PUT,
            format!("/api/loads/{}/jars", bench.id),
            json!({"jar": bench.jars[0].size, "count": bench.jars.len() + 1}),
        ),
        (Topic::Bench, Method::PUT, format!("/api/loads/{}/warmth", bench.id), json!({"jars_c": 5.0})),
        (
            Topic::Canner,
            Method::PUT,
            format!("/api/loads/{}/also", inside.id),
            json!({"also": [{"size": "half_pint", "count": 1, "minutes": 20}], "how": "said_wrongly"}),
        ),
        (
            Topic::Everything,
            Method::POST,
            format!("/api/loads/{}/events", inside.id),
            json!({"event": "jar_broken", "jar": inside.jars[0].id}),
        ),
        (
            Topic::Everything,
            Method::PUT,
            "/api/undosed".to_owned(),
            json!({"jars": [inside.jars[1].id], "undosed": true}),
        ),
        (
            Topic::Towel,
            Method::PUT,
            "/api/rescues".to_owned(),
            json!({"jars": [lid], "rescue": "refrigerator"}),
        ),
        (Topic::Towel, Method::PUT, "/api/rescues".to_owned(), json!({"jars": [lid], "rescue": "reprocess"})),
        (Topic::Goals, Method::PUT, "/api/goals".to_owned(), json!([])),
        (Topic::Ph, Method::POST, "/api/ph_bench".to_owned(), json!({"ph": 4.1})),
    ];
    let mut silent = Vec::new();
    let mut before = answers(&shared, &paths).await;
    for (topic, method, path, body) in changes {
        let mut heard = shared.live.listen();
        let (status, answer) = send(&shared, method, &path, body.to_string()).await;
        if !(200..300).contains(&status) {
            silent.push(format!("{path}: {status} {answer}"));
            continue;
        }
        assert_eq!(heard.try_recv().ok(), Some(topic), "{path}");
        let after = answers(&shared, &paths).await;
        let changed: Vec<&String> = paths.iter().filter(|path| before[*path] != after[*path]).collect();
        let unheard: Vec<&&String> = changed.iter().filter(|path| !is_stale(topic, path)).collect();
        if !unheard.is_empty() {
            silent.push(format!("{topic:?} by {path} {body}: nobody is told to ask {unheard:?} again"));
        }
        if changed.is_empty() {
            silent.push(format!("{path} changed nothing"));
        }
        before = after;
    }
    assert!(silent.is_empty(), "{silent:#?}");
}
