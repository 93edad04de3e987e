//! A recipe that is made and not canned over HTTP: from the crates into the refrigerator and the freezer, and its history.

use actix_web::http::Method;
use actix_web::web;
use bodega::state::Shared;
use serde_json::{Value, json};

use crate::common::{empty, fetch, lot, patch, post, put, send};
use crate::recipe_batch::{get, line, with_batch, with_salsa};

async fn text(shared: &web::Data<Shared>, path: &str) -> String {
    String::from_utf8(fetch(shared, Method::GET, path, String::new()).await.1).unwrap()
}

fn quarts(amount: f64, place: &str) -> Value {
    json!({"food": "product", "place": place, "told": {"amount": amount, "measure": "quart"}, "packs": 3})
}

/// What a neighbour makes: no acid, no process, nobody printed it.
fn of_a_neighbour() -> Value {
    json!({"text": {"name": "Neighbour's salsa", "kind": "other", "title": "From next door",
        "lines": [line("tomatoes", 5.0, "lb", "tomato"), line("onion", 3.0, "cup", "low_acid")]}})
}

#[actix_web::test]
async fn a_recipe_that_nobody_tested_is_made_drawn_frozen_and_remembered() {
    // Without an altitude: nothing is looked up for it.
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("20")).await;
    post(&shared, "/api/recipes", of_a_neighbour()).await;
    let (status, batch) = post(&shared, "/api/recipes/1/cold", json!({"factor": 2, "lots": [1]})).await;
    assert_eq!(
        (status, &batch["jars"], &batch["recipe"]["process"]),
        (201, &json!(0), &json!(null)),
        "{batch}"
    );
    assert_eq!(batch["weight_g"], 4536, "ten pounds are drawn");
    assert_eq!(get(&shared, "/api/batches").await, json!([]), "nothing of it is to be processed");
    assert_eq!(get(&shared, "/api/loads").await, json!([]));

    let bowls = &get(&shared, "/api/recipes/1/bowls").await[0];
    assert!(bowls["cold"].as_str().unwrap().contains("within 4 days"), "{bowls}");
    let (status, taken) = patch(&shared, "/api/bowls/1", json!({"away": true})).await;
    assert_eq!((status, &taken["code"]), (409, &json!("bowls_taken")), "nobody knows where it is: {taken}");
    patch(&shared, "/api/bowls/1", json!({"as_planned": true})).await;
    patch(&shared, "/api/bowls/1", json!({"amounts": [{"place": 1, "amount": 4}]})).await;

    // It waits for no other jars, from the pot or out of the cold.
    let (status, refused) = post(&shared, "/api/batches/1/moves", quarts(1.0, "line")).await;
    assert_eq!((status, &refused["field"]), (422, &json!("place")), "{refused}");
    assert!(refused["detail"].as_str().unwrap().contains("more in it than tomatoes"), "{refused}");
    assert_eq!(post(&shared, "/api/batches/1/moves", quarts(3.0, "freezer")).await.0, 201);
    let cold = &get(&shared, "/api/cold_food").await[0];
    assert_eq!(
        (&cold["words"], &cold["may_wait"]),
        (&json!(format!("Neighbour's salsa of {}", batch["code"].as_str().unwrap())), &json!(false))
    );
    let back = json!({"place": "line", "packs": 1});
    assert_eq!(post(&shared, "/api/cold_food/1/moves", back).await.1["field"], "place");
    assert_eq!(post(&shared, "/api/cold_food/1/moves", json!({"place": "table", "packs": 1})).await.0, 201);
    // From one cold place into the other it is still the salsa.
    let (_, over) =
        post(&shared, "/api/cold_food/1/moves", json!({"place": "refrigerator", "packs": 1})).await;
    let id = over["id"].as_i64().unwrap();
    let moved = get(&shared, "/api/cold_food").await;
    let moved = moved.as_array().unwrap().iter().find(|food| food["id"] == id).unwrap();
    assert_eq!((&moved["product"], &moved["may_wait"]), (&json!("recipe"), &json!(false)), "{moved}");
    let back = post(&shared, &format!("/api/cold_food/{id}/moves"), json!({"place": "line"})).await;
    assert_eq!((back.0, &back.1["field"]), (422, &json!("place")), "{back:?}");

    let record = get(&shared, "/api/batches/1/record").await;
    assert_eq!(
        (&record["recipe_acid"], &record["bowls"]["went"][0]["words"]),
        (&json!(null), &json!("3 quarts, 3 packs: freezer"))
    );
    assert_eq!(record["balance"]["verdict"], "cannot_tell");
    assert!(!record["balance"]["text"].as_str().unwrap().contains("last jar"), "{record}");
    let list = get(&shared, "/api/batches/1/checklist").await;
    let stations: Vec<&str> =
        list["steps"].as_array().unwrap().iter().map(|step| step["station"].as_str().unwrap()).collect();
    assert!(stations.iter().all(|station| matches!(*station, "crates" | "kettle")), "{stations:?}");

    let csv = text(&shared, "/api/batches.csv").await;
    assert!(
        csv.contains(",recipe,,hot,,,,,4.536,0,0,Neighbour's salsa"),
        "no method, acid or altitude: {csv}"
    );
    let calendar = text(&shared, "/api/calendar.ics").await;
    assert!(calendar.contains("SUMMARY:Neighbour's salsa of"), "{calendar}");

    // Done: the bowls are put away, and the recipe remembers.
    assert_eq!(patch(&shared, "/api/bowls/1", json!({"away": true})).await.0, 200);
    assert_eq!(get(&shared, "/api/recipes/1/bowls").await, json!([]));
    put(&shared, "/api/batches/1/name", json!({"name": "Neighbour's salsa", "note": "too sweet"})).await;
    assert_eq!(put(&shared, "/api/batches/1/liked", json!({"liked": "not_again"})).await.0, 200);
    post(&shared, "/api/batches/1/ph", json!({"ph": 4.3})).await;
    let history = get(&shared, "/api/recipes/1/history").await;
    let made = &history["made"][0];
    assert_eq!((&history["times"], &made["factor"], &made["ph"]), (&json!(1), &json!(2.0), &json!(4.3)));
    assert_eq!((&made["batch"]["liked"], &made["batch"]["note"]), (&json!("not_again"), &json!("too sweet")));
    assert_eq!(made["changed"], json!(["4 cups onion, not 6 cups"]));
    assert_eq!(
        (&made["jars"], &made["went"][0]["words"]),
        (&json!([]), &json!("3 quarts, 3 packs: freezer"))
    );
    assert_eq!(made["from"].as_array().unwrap().len(), 1);
    assert_eq!(put(&shared, "/api/batches/1/liked", json!({"liked": null})).await.1["liked"], json!(null));
    assert_eq!(put(&shared, "/api/batches/1/liked", json!({"liked": "perhaps"})).await.0, 422);
    assert_eq!(put(&shared, "/api/batches/9/liked", json!({"liked": "liked"})).await.0, 404);
}

#[actix_web::test]
async fn bowls_that_stand_out_can_go_into_the_cold_and_a_batch_that_was_a_mistake_comes_back() {
    let shared = with_salsa().await;
    post(&shared, "/api/recipes", of_a_neighbour()).await;
    let (_, bowls) = post(&shared, "/api/recipes/1/bowls", json!({"factor": 2})).await;
    assert_eq!(bowls["cold"], json!(null));
    let other = json!({"factor": 1, "bowls": 1});
    assert_eq!(post(&shared, "/api/recipes/2/cold", other.clone()).await.1["field"], "bowls");
    assert_eq!(post(&shared, "/api/recipes/1/cold", json!({"factor": 0})).await.1["field"], "factor");
    let (status, batch) = post(&shared, "/api/recipes/1/cold", other.clone()).await;
    assert_eq!((status, &batch["bowls"]), (201, &json!(1)), "{batch}");
    // The same bowls are not made twice.
    assert_eq!(post(&shared, "/api/recipes/1/cold", other.clone()).await.0, 409);
    patch(&shared, "/api/batches/1", json!({"removed": true})).await;
    assert_eq!(get(&shared, "/api/bowls/1").await["cold"], json!(null), "the bowls stand out as before");
    assert_eq!(get(&shared, "/api/recipes/1/history").await["times"], 0);
    // The same bowls may go into jars after all: this recipe was held against a copy.
    assert_eq!(post(&shared, "/api/recipes/1/batches", other).await.0, 201);
}

#[actix_web::test]
async fn bowls_leave_the_page_with_the_last_jar_and_are_in_its_history() {
    use bodega_model::canner::events::BoilEvent::{Boils, HeatOff, JarsIn, Lifted};
    use bodega_model::measures::ids::LoadId;
    let shared = with_batch().await;
    assert_eq!(get(&shared, "/api/recipes/1/bowls").await.as_array().unwrap().len(), 1);
    let loads: Vec<i64> = get(&shared, "/api/loads")
        .await
        .as_array()
        .unwrap()
        .iter()
        .map(|load| load["id"].as_i64().unwrap())
        .collect();
    for (place, id) in loads.iter().enumerate() {
        post(&shared, &format!("/api/loads/{id}/steps"), json!({"step": "lid"})).await;
        let now = shared.clock.now();
        for (event, ago) in [(JarsIn, 60), (Boils, 50), (HeatOff, 20), (Lifted, 10)] {
            shared.store.add_event(LoadId(*id), event, now.plus_minutes(-ago)).unwrap();
        }
        let open = get(&shared, "/api/recipes/1/bowls").await.as_array().unwrap().len();
        assert_eq!(open, usize::from(place + 1 < loads.len()), "load {place}");
    }
    let history = get(&shared, "/api/recipes/1/history").await;
    assert_eq!(history["made"][0]["jars"], json!([{"jar": "pint", "count": 14}]), "{history}");
    assert_eq!(get(&shared, "/api/recipes/9/history").await["status"], 404);
}

#[actix_web::test]
async fn chopping_has_its_minutes_in_the_day_until_it_is_mixed() {
    let shared = with_batch().await;
    let chop = |day: &Value| -> Vec<i64> {
        let blocks = day["blocks"].as_array().unwrap().iter().filter(|block| block["work"] == "chop");
        let minutes =
            |block: &Value| (block["ends"].as_i64().unwrap() - block["starts"].as_i64().unwrap()) / 60_000;
        blocks.map(minutes).collect()
    };
    let day = get(&shared, "/api/day").await;
    // Four pounds of chiles and two of onions, four minutes a pound.
    assert_eq!(chop(&day), [24], "{day}");
    patch(&shared, "/api/bowls/1", json!({"mixed": true})).await;
    assert!(chop(&get(&shared, "/api/day").await).is_empty());
}
