//! Addresses that no journey of the other tests passes: each answers what it is there for.

use actix_web::http::Method;
use actix_web::web;
use bodega::clock::Clock;
use bodega::state::Shared;
use bodega_store::Store;
use serde_json::{Value, json};

use crate::canner::with_load;
use crate::common::{empty, fetch, kitchen, post, put, send};

async fn get(shared: &web::Data<Shared>, path: &str) -> (u16, Value) {
    send(shared, Method::GET, path, String::new()).await
}

async fn delete(shared: &web::Data<Shared>, path: &str) -> (u16, Value) {
    send(shared, Method::DELETE, path, String::new()).await
}

/// The same kitchen as the canner's, with its acid in the pot and every jar closed.
async fn closed() -> web::Data<Shared> {
    let shared = with_load().await;
    let dose = json!({"said": [{"amount": 3.5, "measure": "tsp"}]});
    put(&shared, "/api/batches/1/pot_dose", dose).await;
    post(&shared, "/api/loads/1/steps", json!({"step": "lid"})).await;
    shared
}

#[actix_web::test]
async fn a_container_is_found_under_its_number_until_it_is_forgotten() {
    let shared = empty();
    let basket = json!({"name": "blue basket", "weight": {"value": 18, "unit": "lb"}});
    assert_eq!(post(&shared, "/api/containers", basket).await.0, 201);
    let (status, found) = get(&shared, "/api/containers/1").await;
    assert_eq!((status, &found["name"], &found["weight_g"]), (200, &json!("blue basket"), &json!(8165)));
    assert_eq!(delete(&shared, "/api/containers/1").await.0, 200);
    for gone in [get(&shared, "/api/containers/1").await, delete(&shared, "/api/containers/1").await] {
        assert_eq!(gone.0, 404, "{}", gone.1);
    }
    assert_eq!(get(&shared, "/api/containers").await.1["taught"], json!([]));
}

#[actix_web::test]
async fn a_kettle_is_found_under_its_number_and_a_simulated_scale_says_that_it_is_one() {
    let shared = empty();
    let pan = json!({"name": "pan", "inner_diameter_mm": 300, "depth_mm": 260, "heat": "burner"});
    assert_eq!(post(&shared, "/api/kettles", pan).await.0, 201);
    let (status, kettle) = get(&shared, "/api/kettles/1").await;
    assert_eq!((status, &kettle["name"], &kettle["depth_mm"]), (200, &json!("pan"), &json!(260.0)));
    assert_eq!(get(&shared, "/api/kettles/2").await.0, 404);

    let scale = json!({"instrument": "scale"});
    assert_eq!(post(&shared, "/api/cooks/1/simulations", scale.clone()).await.0, 404, "nothing cooks yet");
    let cook = json!({"kettle": 1, "volume_l": 11.4, "kind": "paste", "start": "boiling",
        "target": {"fraction_left": 0.5}});
    assert_eq!(post(&shared, "/api/cooks", cook).await.0, 201);
    let (status, begun) = post(&shared, "/api/cooks/1/simulations", scale.clone()).await;
    assert_eq!((status, &begun["simulated"]), (201, &json!(["scale"])), "{begun}");
    let (_, twice) = post(&shared, "/api/cooks/1/simulations", scale).await;
    assert_eq!(twice["simulated"], json!(["scale"]), "one stands there already");
    let (status, wrong) = post(&shared, "/api/cooks/1/simulations", json!({"instrument": "sundial"})).await;
    assert_eq!((status, &wrong["field"]), (422, &json!("instrument")), "{wrong}");
}

#[actix_web::test]
async fn an_event_is_taken_back_by_its_moment_once_and_only_while_it_is_the_last() {
    let shared = closed().await;
    let said = post(&shared, "/api/loads/1/events", json!({"event": "jars_in"})).await.1;
    let first = said["now"]["since"].as_i64().unwrap_or_else(|| panic!("{said}"));
    let (status, back) = delete(&shared, &format!("/api/loads/1/events/{first}")).await;
    assert_eq!((status, &back["now"]["phase"]), (200, &json!("waiting")), "{back}");
    let (status, again) = delete(&shared, &format!("/api/loads/1/events/{first}")).await;
    assert_eq!(status, 200, "{again}");
    assert_eq!(get(&shared, "/api/loads/1").await.1["now"]["phase"], "waiting");
    assert_eq!(delete(&shared, "/api/loads/9/events/1").await.0, 404);
}

#[actix_web::test]
async fn the_wash_up_list_fits_the_canner_and_shows_what_was_lifted() {
    let shared = closed().await;
    let (status, after) = get(&shared, "/api/wash_up").await;
    assert_eq!((status, &after["lifted"]), (200, &json!([])));
    assert!(after["wash_up"].as_array().unwrap().len() > 2, "{after}");
    for event in ["jars_in", "boils", "heat_off", "lifted"] {
        let (status, said) = post(&shared, "/api/loads/1/events", json!({"event": event})).await;
        assert!(status == 201 || status == 200, "{event}: {status} {said}");
    }
    assert_eq!(get(&shared, "/api/wash_up").await.1["lifted"][0]["id"], 1);
}

#[actix_web::test]
async fn the_day_goes_into_a_calendar() {
    let shared = closed().await;
    let (status, bytes) = fetch(&shared, Method::GET, "/api/day.ics", String::new()).await;
    let text = String::from_utf8(bytes).unwrap();
    assert_eq!(status, 200, "{text}");
    assert!(text.starts_with("BEGIN:VCALENDAR") && text.contains("BEGIN:VEVENT"), "{text}");
    assert!(text.contains("UID:day-"), "each block keeps its name: {text}");
    // RFC 5545 ends every line with CR LF.
    assert!(text.lines().count() > 4 && text.matches("\r\n").count() == text.matches('\n').count());
}

#[actix_web::test]
async fn backups_are_listed_newest_first() {
    let folder = tempfile::tempdir().unwrap();
    let shared = kitchen(Store::open(folder.path()).unwrap(), Clock::wall());
    assert_eq!(get(&shared, "/api/backups").await, (200, json!([])));
    shared.store.keep_backups("2026-09-12", "2026-w37").unwrap();
    let (_, listed) = get(&shared, "/api/backups").await;
    let names: Vec<&str> =
        listed.as_array().unwrap().iter().map(|one| one["name"].as_str().unwrap()).collect();
    assert!(names.iter().any(|name| name.contains("2026-09-12")), "{names:?}");
    assert!(listed[0]["bytes"].as_u64().unwrap() > 1000 && listed[0]["set_aside"] == false, "{listed}");
}
