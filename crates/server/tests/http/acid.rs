//! Acid over HTTP: what is said of it is on the bench, in the canner, on the towel, on the shelf.

use actix_web::http::Method;
use serde_json::{Value, json};

use crate::common::{empty, lot, post, send};

#[actix_web::test]
async fn one_touch_names_itself_to_be_taken_back() {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [1], "additions": []});
    post(&shared, "/api/batches", plan).await;
    let state = async || {
        let (_, loads) = send(&shared, Method::GET, "/api/loads", String::new()).await;
        loads[0]["jars"][0].clone()
    };
    let step = json!({"step": "filled", "done": true});
    let (status, problem) = post(&shared, "/api/jars/1/steps", step).await;
    assert_eq!((status, &problem["code"]), (409, &json!("acid_first")));
    let told = json!({"step": "filled", "done": true, "food_first": true});
    let (status, _) = post(&shared, "/api/jars/1/steps", told).await;
    assert_eq!((status, &state().await["state"]), (200, &json!("filled, needs acid")));
    let (status, problem) =
        post(&shared, "/api/jars/1/steps", json!({"step": "lid", "done": true, "food_first": true})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("food_first")));

    let (_, ticked) = post(&shared, "/api/loads/1/steps", json!({"step": "acid"})).await;
    assert_eq!((&ticked["jars"], &state().await["next"]), (&json!(7), &json!("bubbles")));
    let place = format!("/api/loads/1/steps/{}", ticked["at"]);
    assert_eq!(send(&shared, Method::DELETE, &place, String::new()).await.0, 200);
    assert_eq!((&state().await["next"], &state().await["last"]), (&json!("acid"), &json!("filled")));

    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    let undosed = |undosed: bool| json!({"jars": [2, 3], "undosed": undosed}).to_string();
    let (status, problem) = send(&shared, Method::PUT, "/api/undosed", undosed(true)).await;
    assert_eq!((status, &problem["code"]), (409, &json!("on_bench")));
    post(&shared, "/api/loads/1/events", json!({"event": "jars_in"})).await;
    assert_eq!(send(&shared, Method::PUT, "/api/undosed", undosed(true)).await.0, 204);
    let stops = |of: &Value| -> Vec<String> {
        let findings = of["judged"]["findings"].as_array().unwrap();
        findings.iter().filter_map(|found| Some(found["message"].as_str()?.to_owned())).collect()
    };
    let (_, loads) = send(&shared, Method::GET, "/api/loads", String::new()).await;
    assert_eq!(stops(&loads[0]), ["Jars 2, 3 have no dose of acid."]);
    assert_eq!(loads[0]["judged"]["ruling"], "not_fine");
    for event in ["boils", "heat_off", "lifted"] {
        post(&shared, "/api/loads/1/events", json!({ "event": event })).await;
    }
    let (_, counter) = send(&shared, Method::GET, "/api/counter", String::new()).await;
    assert_eq!(
        (&counter["unprocessed"], &counter["undosed"]),
        (&json!(7), &json!(0)),
        "the worst is said first"
    );
    let (_, towel) = send(&shared, Method::GET, "/api/towel", String::new()).await;
    let words = towel[0]["ways_out"][0]["words"].as_str().unwrap();
    assert!(words.contains("Jars 2, 3 have no dose") && words.contains("½ tsp"), "{words}");
    assert_eq!(send(&shared, Method::PUT, "/api/undosed", undosed(false)).await.0, 204);
    let (_, towel) = send(&shared, Method::GET, "/api/towel", String::new()).await;
    assert!(!towel[0]["ways_out"][0]["words"].as_str().unwrap().contains("no dose"));
}

#[actix_web::test]
async fn the_almanac_lights_no_column_that_is_not_this_kitchens() {
    let shared = empty();
    let almanac = async || send(&shared, Method::GET, "/api/almanac", String::new()).await.1;
    let lit = |bands: &Value| bands.as_array().unwrap().iter().filter(|band| band["here"] == true).count();
    let of = async |feet: Value| {
        let change = json!({ "altitude_ft": feet }).to_string();
        send(&shared, Method::PATCH, "/api/kitchen", change).await;
        let found = almanac().await;
        let tables = [&found, &found["pressure"][0], &found["pressure"][1]];
        tables.map(|table| {
            let why = table["no_column"].as_str().map(str::to_owned);
            assert_eq!(lit(&table["bands"]), usize::from(why.is_none()), "one column or a reason: {table}");
            why
        })
    };
    let unknown = almanac().await;
    for table in [&unknown, &unknown["pressure"][0], &unknown["pressure"][1]] {
        assert_eq!(lit(&table["bands"]), 0);
        assert!(table["no_column"].as_str().unwrap().contains("not known"));
    }
    assert_eq!(of(json!(8000)).await, [None, None, None]);
    let [water, dial, weighted] = of(json!(8001)).await;
    assert!(water.is_none() && weighted.is_none() && dial.unwrap().contains("8,000 ft"));
    for outside in [json!(10_001), json!(-1501)] {
        for why in of(outside).await {
            assert!(why.unwrap().contains("extension office"));
        }
    }
    assert_eq!(of(json!(-1500)).await, [None, None, None]);
}
