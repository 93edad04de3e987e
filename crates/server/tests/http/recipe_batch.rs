//! A recipe from the book to the shelf over HTTP: its own minutes, its acid in it, stopped while its bowls do not hold.

use actix_web::http::Method;
use actix_web::web;
use bodega::state::Shared;
use bodega_model::canner::events::BoilEvent::{Boils, HeatOff, Lifted};
use bodega_model::measures::ids::LoadId;
use serde_json::{Value, json};

use crate::common::{empty, fetch, lot, patch, post, put, send};

pub async fn get(shared: &web::Data<Shared>, path: &str) -> Value {
    send(shared, Method::GET, path, String::new()).await.1
}

pub fn line(name: &str, amount: f64, unit: &str, role: &str) -> Value {
    json!({"part": {"name": name, "amount": amount, "unit": unit, "role": role}, "ticked": true})
}

/// A salsa in pints that was held against a copy: five pounds of tomatoes fill six to eight.
fn salsa() -> Value {
    let times = json!([{"jar": "pint", "method": "boiling_water", "up_to_ft": 1000, "minutes": 15},
        {"jar": "pint", "method": "boiling_water", "up_to_ft": 6000, "minutes": 20}]);
    json!({"name": "Chile salsa", "kind": "guide", "title": "County kitchen booklet", "edition": "2014", "page": "12",
        "lines": [line("tomatoes", 5.0, "lb", "tomato"), line("chile peppers", 2.0, "lb", "low_acid"),
            line("onions", 1.0, "lb", "low_acid"), line("vinegar 5 %", 1.0, "cup", "acid")],
        "makes": {"jar": "pint", "low": 6, "high": 8},
        "process": {"pack": "hot", "headspace_in": 0.5, "times": times}, "process_ticked": true})
}

/// A kitchen at 2,640 ft with twenty pounds of tomatoes and that salsa in its book.
pub async fn with_salsa() -> web::Data<Shared> {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("20")).await;
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 2640})).await;
    let (status, made) = post(&shared, "/api/recipes", json!({"text": salsa()})).await;
    assert_eq!((status, &made["stands"]["standing"]), (201, &json!("checked")));
    shared
}

/// Twice the salsa on the line, its bowls filled as the card says.
pub async fn with_batch() -> web::Data<Shared> {
    let shared = with_salsa().await;
    let (status, batch) = post(&shared, "/api/recipes/1/batches", json!({"factor": 2, "lots": [1]})).await;
    assert_eq!(status, 201, "{batch}");
    shared
}

async fn fill(shared: &web::Data<Shared>, amounts: [f64; 4]) -> Value {
    let amounts: Vec<Value> = (0..)
        .zip(amounts)
        .map(|(place, amount): (usize, f64)| json!({"place": place, "amount": amount}))
        .collect();
    patch(shared, "/api/bowls/1", json!({ "amounts": amounts })).await.1
}

fn codes(judged: &Value) -> Vec<&str> {
    let found = judged["findings"].as_array().unwrap();
    found.iter().map(|finding| finding["code"].as_str().unwrap()).collect()
}

#[actix_web::test]
async fn it_is_worked_out_with_its_own_minutes_pots_and_what_is_to_be_bought() {
    let shared = with_salsa().await;
    let kettle = json!({"name": "Wide pot", "inner_diameter_mm": 280, "depth_mm": 160, "heat": "burner"});
    post(&shared, "/api/kettles", kettle).await;
    let (status, plan) = post(&shared, "/api/recipes/1/plan", json!({"factor": 2, "lots": [1]})).await;
    assert_eq!(status, 200, "{plan}");
    let jars = &plan["jars"];
    assert_eq!(
        (&jars["lines"][0]["jar"], &jars["lines"][0]["option"]["minutes"]),
        (&json!("pint"), &json!(20))
    );
    assert_eq!(jars["full_jars"], json!({"low": 12, "expected": 14, "high": 16}));
    // Nine pints go into the canner at once.
    assert_eq!(
        jars["loads"].as_array().unwrap().iter().map(|load| &load["minutes"]).collect::<Vec<_>>(),
        [20, 20]
    );
    let shopping: Vec<&str> = plan["shopping"].as_array().unwrap().iter().filter_map(Value::as_str).collect();
    assert_eq!(shopping, ["4 lb chile peppers", "2 lb onions", "2 cups vinegar 5 %"]);
    assert!((plan["tomatoes_g"].as_f64().unwrap() - 4535.9).abs() < 0.1 && plan["short_g"].is_null());
    // Eight pounds of parts a time, 1.6 lb to a quart: ten quarts, of which the pot's four fifths hold 7.9 L.
    let card = post(&shared, "/api/recipes/1/scale", json!({"factor": 2})).await.1;
    assert_eq!(card["pots"], "8.3 qt in Wide pot; 2.3 qt waits for another round");
    let (_, more) = post(&shared, "/api/recipes/1/plan", json!({"factor": 5, "lots": [1]})).await;
    assert!(more["shopping"][0].as_str().unwrap().contains("of tomatoes more"), "{more}");
    let (_, quart) = post(&shared, "/api/recipes/1/plan", json!({"factor": 2, "jar": "quart"})).await;
    assert_eq!(quart["refusal"]["code"], "jar_not_tested");
    assert!(quart["refusal"]["instead"][0].as_str().unwrap().contains("Fill pints or smaller"), "{quart}");
    let (status, problem) = post(&shared, "/api/recipes/1/plan", json!({"factor": 0})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("factor")));
}

#[actix_web::test]
async fn all_of_it_goes_on_the_stove_with_everything_that_is_in_it() {
    let shared = with_batch().await;
    let kettle = json!({"name": "Wide pot", "inner_diameter_mm": 400, "depth_mm": 300, "heat": "burner"});
    post(&shared, "/api/kettles", kettle).await;
    let on = json!({"kettle": 1, "batch": 1, "target": {"boil_minutes": 10}});
    let (status, cook) = post(&shared, "/api/cooks", on).await;
    assert_eq!(status, 201, "{cook}");
    // Ten pounds of tomatoes, four of peppers, two of onions and two cups of vinegar, at 1.6 lb to a quart: ten quarts.
    let litres = cook["start_l"].as_f64().unwrap_or_else(|| cook["volume_l"].as_f64().unwrap());
    assert!((litres - 10.66 * 0.946).abs() < 0.4, "{litres}");
}

#[actix_web::test]
async fn what_nobody_checked_and_what_has_no_process_is_not_canned() {
    let shared = with_salsa().await;
    let begin = async || post(&shared, "/api/recipes/1/batches", json!({"factor": 1})).await;
    let mut unchecked = salsa();
    unchecked["lines"][2]["ticked"] = json!(false);
    put(&shared, "/api/recipes/1", unchecked).await;
    let (status, problem) = begin().await;
    assert_eq!((status, &problem["code"]), (409, &json!("not_canned")));
    assert!(problem["detail"].as_str().unwrap().contains("Hold 1 line against the copy"), "{problem}");
    let mut made_up = salsa();
    made_up["process"] = Value::Null;
    put(&shared, "/api/recipes/1", made_up).await;
    let (status, problem) = begin().await;
    assert_eq!(status, 409);
    assert!(problem["detail"].as_str().unwrap().contains("refrigerator"), "{problem}");
    assert_eq!(get(&shared, "/api/batches").await, json!([]));
    assert_eq!(get(&shared, "/api/recipes/1/bowls").await, json!([]), "nothing by half");
}

#[actix_web::test]
async fn jars_are_stopped_while_the_bowls_do_not_hold_and_no_dose_is_asked() {
    let shared = with_batch().await;
    let load = async || get(&shared, "/api/loads/1").await;
    let empty_bowls = load().await;
    assert_eq!(
        (&empty_bowls["doses"][0]["acid"], &empty_bowls["doses"][0]["headspace_in"]),
        (&Value::Null, &json!(0.5))
    );
    let steps: Vec<&Value> =
        empty_bowls["steps"].as_array().unwrap().iter().map(|step| &step["step"]).collect();
    assert_eq!(steps, ["filled", "bubbles", "rim", "lid"]);
    assert_eq!(empty_bowls["jars"][0]["state"], "empty");
    assert_eq!(
        (&empty_bowls["judged"]["ruling"], &empty_bowls["recipes"][0]["stops"]),
        (&json!("cannot_tell"), &json!(true))
    );
    assert_eq!(fill(&shared, [10.0, 4.0, 2.0, 2.0]).await["may_can"]["ruling"], "fine");
    put(&shared, "/api/loads/1/claims", claims()).await;
    let holds = load().await;
    assert_eq!(
        (&holds["judged"]["ruling"], &holds["recipes"][0]["stops"]),
        (&json!("fine"), &json!(false)),
        "{holds}"
    );
    fill(&shared, [10.0, 6.0, 2.0, 2.0]).await;
    let over = load().await;
    assert_eq!(
        (codes(&over["judged"]), &over["judged"]["ruling"]),
        (vec!["recipe_ratio"], &json!("not_fine"))
    );
    let way = over["judged"]["findings"][0]["do_now"].as_str().unwrap();
    assert!(way.contains("Take out 2 lb of chile peppers"), "{way}");
    patch(&shared, "/api/bowls/1", json!({"way": 0})).await;
    assert_eq!(load().await["judged"]["ruling"], "fine");
    // Onion that was bought with less oil is on its own line; acid that is short, and flour, are stopped in words.
    fill(&shared, [10.0, 4.0, 2.0, 1.5]).await;
    assert_eq!(codes(&load().await["judged"]), ["recipe_ratio"]);
    fill(&shared, [10.0, 4.0, 2.0, 2.0]).await;
    let flour = json!({"name": "flour", "amount": 1, "unit": "cup", "role": "thickener"});
    patch(&shared, "/api/bowls/1", json!({"add": flour})).await;
    assert_eq!(codes(&load().await["judged"]), ["thickener"]);
    // Its bowls belong to the batch now.
    let (status, problem) = patch(&shared, "/api/bowls/1", json!({"away": true})).await;
    assert_eq!((status, &problem["code"]), (409, &json!("bowls_taken")));
    let (status, problem) = post(&shared, "/api/recipes/1/batches", json!({"factor": 2, "bowls": 1})).await;
    assert_eq!((status, &problem["code"]), (409, &json!("bowls_taken")));
    let (status, problem) = put(&shared, "/api/undosed", json!({"jars": [1], "undosed": true})).await;
    assert_eq!((status, &problem["code"]), (409, &json!("on_bench")));
}

fn claims() -> Value {
    json!({"kind": "mason", "lid": "new", "nicked": false, "covered": true})
}

#[actix_web::test]
async fn what_is_changed_in_the_book_does_not_change_what_was_begun() {
    let shared = with_batch().await;
    let mut longer = salsa();
    longer["process"]["times"][1]["minutes"] = json!(45);
    put(&shared, "/api/recipes/1", longer).await;
    patch(&shared, "/api/recipes/1", json!({"removed": true})).await;
    let load = get(&shared, "/api/loads/1").await;
    assert_eq!((&load["minutes"], &load["batch"]["recipe"]["name"]), (&json!(20), &json!("Chile salsa")));
    assert_eq!(codes(&load["judged"]), ["recipe_ratio"], "the bowls are empty, and the time is its own");
    assert_eq!(get(&shared, "/api/bowls/1").await["batch"]["code"], load["batch"]["code"]);
    // Off the line and back again, with its bowls.
    patch(&shared, "/api/batches/1", json!({"removed": true})).await;
    assert_eq!(patch(&shared, "/api/bowls/1", json!({"away": true})).await.0, 200);
    let (status, back) = patch(&shared, "/api/batches/1", json!({"removed": false})).await;
    assert_eq!((status, &back["bowls"]), (200, &json!(1)));
    assert_eq!(get(&shared, "/api/bowls/1").await["batch"]["id"], 1);
    // As one document into another kitchen.
    let (_, document) = fetch(&shared, Method::GET, "/api/export.json", String::new()).await;
    let other = empty();
    let (status, taken) =
        send(&other, Method::POST, "/api/import.json", String::from_utf8(document).unwrap()).await;
    assert_eq!((status, &taken["batches"]), (200, &json!(1)), "{taken}");
    assert_eq!(get(&other, "/api/loads/1").await["recipes"], get(&shared, "/api/loads/1").await["recipes"]);
}

#[actix_web::test]
async fn it_rides_with_whole_tomatoes_for_the_longest_time_and_stands_on_the_shelf_by_its_name() {
    let shared = with_batch().await;
    fill(&shared, [10.0, 4.0, 2.0, 2.0]).await;
    send(&shared, Method::POST, "/api/lots", lot("7")).await;
    let whole = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": [{"jar": "quart", "count": 2}], "agent": "citric_acid", "lots": [2], "additions": []});
    assert_eq!(post(&shared, "/api/batches", whole).await.0, 201);
    let grouping = get(&shared, "/api/loads/grouping").await;
    let (status, done) = put(&shared, "/api/loads/grouping", json!({"loads": grouping["loads"]})).await;
    assert!(status < 300, "{status} {done} {grouping}");
    let loads = get(&shared, "/api/loads").await;
    let mixed = loads
        .as_array()
        .unwrap()
        .iter()
        .find(|load| load["doses"].as_array().unwrap().iter().any(|dose| dose["product"] == "whole"))
        .unwrap();
    assert_eq!(mixed["minutes"], 50, "everything gets the longest time");
    assert!(mixed["recipes"][0]["code"].is_string(), "{mixed}");
    // The load of salsa alone keeps its own twenty.
    let own = loads.as_array().unwrap().iter().find(|load| load["minutes"] == 20).unwrap();
    let id = own["id"].as_i64().unwrap();
    post(&shared, &format!("/api/loads/{id}/steps"), json!({"step": "lid"})).await;
    let (store, now) = (&shared.store, shared.clock.now());
    for (event, ago) in [(Boils, 13 * 60), (HeatOff, 12 * 60 + 35), (Lifted, 12 * 60 + 20)] {
        store.add_event(LoadId(id), event, now.plus_minutes(-ago)).unwrap();
    }
    let towel = get(&shared, "/api/towel").await;
    let jars: Vec<i64> =
        towel[0]["jars"].as_array().unwrap().iter().map(|jar| jar["id"].as_i64().unwrap()).collect();
    assert_eq!(
        (&towel[0]["processed"], &towel[0]["jars"][0]["named"]),
        (&json!(true), &json!("Chile salsa"))
    );
    put(&shared, "/api/seals", json!({"jars": jars, "verdict": "holds"})).await;
    put(&shared, "/api/rings", json!({"jars": jars, "done": true})).await;
    let shelf = get(&shared, "/api/shelf?product=recipe").await;
    assert_eq!((&shelf[0]["named"], &shelf[0]["count"]), (&json!("Chile salsa"), &json!(jars.len())));
    let named = json!({"name": "  Terrace salsa ", "note": "less salt\nnext year"});
    let (_, batch) = put(&shared, "/api/batches/1/name", named).await;
    assert_eq!((&batch["name"], &batch["note"]), (&json!("Terrace salsa"), &json!("less salt\nnext year")));
    let list = jars.iter().map(i64::to_string).collect::<Vec<_>>().join(",");
    let labels = get(&shared, &format!("/api/labels?jars={list}&shape=round&paper=a4&width_mm=60")).await;
    let page = labels["pages"][0].as_str().unwrap();
    let process = "20 min, boiling water · ½ in headspace";
    let contents = "by County kitchen booklet, 2014, 12 · less salt";
    for words in ["Terrace salsa", "hot pack · its acid is in it", contents, process] {
        assert!(page.contains(words), "{words}");
    }
    assert!(!page.contains("with vinegar"), "the acid is a part of the recipe");
    assert_eq!(get(&shared, "/api/pantry").await["lines"][0]["named"], "Terrace salsa");
    assert_eq!(get(&shared, "/api/shelf?code=TERRACE").await[0]["count"], jars.len());
    for (path, words) in
        [("/api/jars.csv", ",Terrace salsa,"), ("/api/calendar.ics", "Best before: Terrace salsa of")]
    {
        let (_, bytes) = fetch(&shared, Method::GET, path, String::new()).await;
        assert!(String::from_utf8(bytes).unwrap().contains(words), "{path}");
    }
    // Its name cannot be lost: without one of its own it is called as in the book.
    let (_, plain) = put(&shared, "/api/batches/1/name", json!({})).await;
    assert_eq!(plain["name"], "Chile salsa");
    let record = get(&shared, "/api/batches/1/record").await;
    assert_eq!(record["bowls"]["said"][1], "4 lb chile peppers");
    assert_eq!(record["balance"]["verdict"], "cannot_tell");
}

#[actix_web::test]
async fn a_copy_made_more_often_remembers_its_parent_and_stays_checked() {
    let shared = with_salsa().await;
    let (status, copy) = post(&shared, "/api/recipes/1/copies", json!({"factor": 3})).await;
    assert_eq!((status, &copy["parent"], &copy["text"]["name"]), (201, &json!(1), &json!("Chile salsa × 3")));
    assert_eq!(
        (&copy["says"][0], &copy["stands"]["standing"]),
        (&json!("15 lb tomatoes"), &json!("checked"))
    );
    let (_, plan) = post(&shared, "/api/recipes/2/plan", json!({"factor": 1})).await;
    assert_eq!(plan["jars"]["full_jars"]["high"], 24);
}

#[actix_web::test]
async fn plain_tomatoes_are_never_asked_about_as_a_recipe() {
    let shared = with_salsa().await;
    let plan = json!({"product": "recipe", "medium": null, "pack": "hot", "thickness": null, "jar": "pint",
        "jars": null, "agent": "citric_acid", "lots": [1]});
    for path in ["/api/plan", "/api/batches"] {
        let (status, problem) = post(&shared, path, plan.clone()).await;
        assert_eq!((status, &problem["field"]), (422, &json!("product")), "{path}");
    }
    let goal = json!([{"product": "recipe", "medium": null, "pack": "hot", "thickness": null, "jar": "pint",
        "count": 5, "preference": 2}]);
    assert_eq!(put(&shared, "/api/goals", goal).await.0, 422);
    let (status, _) =
        post(&shared, "/api/compute/yield", json!({"product": "recipe", "weight_kg": 10})).await;
    assert_eq!(status, 422);
    let asked = json!({"product": "recipe", "medium": null, "pack": "hot", "method": "boiling_water", "jar": "pint",
        "altitude_ft": 0});
    let (status, answer) = post(&shared, "/api/compute/process", asked).await;
    assert_eq!((status, &answer["refusal"]["code"]), (200, &json!("no_tested_process")));
    assert_eq!((&answer["options"], &answer["headspace_in"]), (&json!([]), &Value::Null));
}

#[actix_web::test]
async fn a_lot_has_a_name_and_a_note() {
    let shared = with_salsa().await;
    let (status, named) = put(&shared, "/api/lots/1/name", json!({"name": "the yellow ones"})).await;
    assert_eq!((status, &named["name"], &named["note"]), (200, &json!("the yellow ones"), &Value::Null));
    let (status, problem) = put(&shared, "/api/lots/1/name", json!({"note": "a".repeat(1001)})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("note")));
    assert_eq!(put(&shared, "/api/lots/9/name", json!({})).await.0, 404);
    assert_eq!(get(&shared, "/api/lots").await[0]["name"], "the yellow ones");
}
