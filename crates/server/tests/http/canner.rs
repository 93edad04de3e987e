//! The canner over HTTP: doses in the pot, warm glass, single jars, probes, several canners, loads put together.

use actix_web::http::Method;
use actix_web::web;
use bodega::state::Shared;
use serde_json::{Value, json};

use crate::common::{empty, late, late_put, lot, post, put, send};

fn plan(lot: i64) -> Value {
    json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart", "jars": null,
        "agent": "citric_acid", "lots": [lot]})
}

fn tsp_in_pot(tsp: f64) -> Value {
    json!({"said": [{"amount": tsp, "measure": "tsp"}]})
}

/// A kitchen at 500 ft with one batch of seven quarts in one load.
pub async fn with_load() -> web::Data<Shared> {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    assert_eq!(post(&shared, "/api/batches", plan(1)).await.1["jars"], 7);
    shared
}

async fn first_load(shared: &web::Data<Shared>) -> Value {
    send(shared, Method::GET, "/api/loads", String::new()).await.1[0].clone()
}

#[actix_web::test]
async fn acid_that_is_in_the_pot_is_followed_to_every_jar_and_to_the_canner() {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    let mut wish = plan(1);
    wish["additions"] = json!([]);
    assert_eq!(post(&shared, "/api/batches", wish).await.1["jars"], 7);
    let load = async || send(&shared, Method::GET, "/api/loads/1", String::new()).await.1;
    let dose = async |tsp: f64| put(&shared, "/api/batches/1/pot_dose", tsp_in_pot(tsp)).await;
    // Seven quarts of citric acid take 3½ tsp.
    dose(3.5).await;
    let covered = load().await;
    assert_eq!(
        (&covered["doses"][0]["to_add"], &covered["jars"][0]["has_acid"]),
        (&Value::Null, &json!(true))
    );
    assert_eq!(
        (&covered["jars"][0]["state"], &covered["jars"][0]["next"]),
        (&json!("acid in the pot"), &json!("filled"))
    );
    post(&shared, "/api/loads/1/steps", json!({"step": "lid"})).await;
    assert!(load().await["jars"].as_array().unwrap().iter().all(|jar| jar["lid"] == true));
    // It turns out that less was stirred in: known at the bench, and still in the canner.
    dose(3.0).await;
    let short = load().await;
    assert_eq!(
        (&short["doses"][0]["to_add"], &short["jars"][0]["has_acid"]),
        (&json!("⅛ tsp"), &json!(false))
    );
    for event in ["jars_in", "boils"] {
        post(&shared, "/api/loads/1/events", json!({ "event": event })).await;
    }
    let counting = load().await["judged"].clone();
    assert_eq!(
        (&counting["findings"][0]["code"], &counting["ruling"]),
        (&json!("pot_dose_short"), &json!("not_fine"))
    );
}

#[actix_web::test]
async fn a_short_pot_dose_says_what_each_jar_still_lacks_and_follows_the_count() {
    let shared = with_load().await;
    // Seven quarts need 3½ tsp of citric acid; 2¾ tsp leave ¾ tsp to seven jars: ⅛ each, rounded up.
    put(&shared, "/api/batches/1/pot_dose", tsp_in_pot(2.75)).await;
    assert_eq!(first_load(&shared).await["doses"][0]["still_lacks"], "⅛ tsp");
    put(&shared, "/api/loads/1/jars", json!({"jar": "quart", "count": 5})).await;
    assert_eq!(first_load(&shared).await["doses"][0]["still_lacks"], Value::Null, "enough for five");
    let (status, problem) = put(&shared, "/api/batches/1/pot_dose", tsp_in_pot(0.0)).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("said[0].amount")));
    let (status, _) = put(&shared, "/api/batches/9/pot_dose", tsp_in_pot(1.0)).await;
    assert_eq!(status, 404);
}

#[actix_web::test]
async fn cold_glass_and_hot_food_are_warned_of_with_the_gap() {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("30")).await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    let mut juice = plan(1);
    (juice["product"], juice["medium"], juice["pack"]) = (json!("juice"), Value::Null, json!("hot"));
    post(&shared, "/api/batches", juice).await;
    let said = |load: &Value| {
        load["judged"]["findings"].as_array().unwrap().iter().any(|f| f["code"] == "thermal_gap")
    };
    assert!(!said(&first_load(&shared).await), "nobody has said how warm they are");
    let (_, cold) = put(&shared, "/api/loads/1/warmth", json!({"jars_c": 15})).await;
    assert!(said(&cold), "{cold}");
    let (_, warm) = put(&shared, "/api/loads/1/warmth", json!({"jars_c": 60})).await;
    assert!(!said(&warm), "{warm}");
}

#[actix_web::test]
async fn one_jar_lifted_or_put_in_is_judged_and_explained() {
    let shared = with_load().await;
    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    for event in ["jars_in", "boils"] {
        post(&shared, "/api/loads/1/events", json!({ "event": event })).await;
    }
    let (status, problem) = post(&shared, "/api/loads/1/events", json!({"event": "jar_out"})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("jar")));
    let (_, out) = post(&shared, "/api/loads/1/events", json!({"event": "jar_out", "jar": 2})).await;
    assert_eq!(
        (&out["now"]["phase"], &out["gone"][0]["fate"]),
        (&json!("boil_lost"), &json!("out_too_early"))
    );
    let (_, problem) = post(&shared, "/api/loads/1/events", json!({"event": "jar_broken", "jar": 99})).await;
    assert_eq!(problem["code"], "which_jar");
    let (_, full) =
        post(&shared, "/api/loads/1/events", json!({"event": "jar_added", "size": "quart"})).await;
    assert_eq!(full["code"], "canner_full", "seven quarts are as many as it holds");
    let (_, cold) = post(&shared, "/api/loads/1/events", json!({"event": "topped_up_cold"})).await;
    assert_eq!(cold["now"]["phase"], "boil_lost");
}

#[actix_web::test]
async fn a_probe_suggests_the_boil_of_this_place_and_never_starts_the_clock() {
    let shared = with_load().await;
    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    let (_, load) = post(&shared, "/api/loads/1/events", json!({"event": "jars_in"})).await;
    assert_eq!(load["probe"], Value::Null);
    // 500 ft: water boils at 99.46 °C.
    let (_, load) = post(&shared, "/api/loads/1/readings", json!({"temp_c": 95})).await;
    assert_eq!(
        (&load["probe"]["suggestion"], &load["now"]["phase"]),
        (&json!("boil_lost"), &json!("heating"))
    );
    let (status, problem) = post(&shared, "/api/loads/1/readings", json!({"temp_c": 400})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("temp_c")));
    let (_, load) = put(&shared, "/api/loads/1/simulation", json!({"flame": true})).await;
    assert_eq!(load["simulated_flame"], true);
    let (_, load) = put(&shared, "/api/loads/1/simulation", json!({"flame": false})).await;
    assert_eq!(load["simulated_flame"], false);
}

#[actix_web::test]
async fn a_pressure_canner_is_planned_for_and_timed_as_one() {
    let shared = with_load().await;
    let pot = json!({"name": "pressure pot", "method": "pressure_weighted"});
    let (_, canner) = post(&shared, "/api/canners", pot).await;
    let chosen = json!({"canner": canner["id"]}).to_string();
    let (_, kitchen) = send(&shared, Method::PATCH, "/api/kitchen", chosen).await;
    assert_eq!(kitchen["canner"]["method"], "pressure_weighted");
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    post(&shared, "/api/batches", plan(2)).await;
    let (_, loads) = send(&shared, Method::GET, "/api/loads", String::new()).await;
    let under_pressure = &loads[1];
    assert!(under_pressure["psi"].is_u64() && under_pressure["water"].is_null(), "{under_pressure}");
    let lifted =
        under_pressure["sayings"].as_array().unwrap().iter().find(|s| s["event"] == "boils").unwrap();
    assert_eq!(lifted["says"], "Pressure is up");
    // The open-air boiling point says nothing of a pressure, neither of one that is up nor of one that is lost.
    let path = format!("/api/loads/{}/readings", under_pressure["id"]);
    let (status, load) = post(&shared, &path, json!({"temp_c": 95})).await;
    assert_eq!((status, &load["probe"]["temp_c"]), (201, &json!(95.0)));
    assert_eq!(load["probe"]["suggestion"], Value::Null);
    let (_, problem) = put(&shared, "/api/loads/1/canner", json!({"canner": canner["id"]})).await;
    assert_eq!(problem["code"], "other_method");
}

#[actix_web::test]
async fn two_batches_share_a_load_when_that_saves_one() {
    let shared = empty();
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    for (number, jars) in [(1, 9), (2, 5)] {
        send(&shared, Method::POST, "/api/lots", lot("40")).await;
        let mut wish = plan(number);
        wish["jars"] = json!([{"jar": "quart", "count": jars}]);
        assert_eq!(post(&shared, "/api/batches", wish).await.0, 201);
    }
    let (_, grouping) = send(&shared, Method::GET, "/api/loads/grouping", String::new()).await;
    // 7 + 2 and 5 quarts at 45 min with 25 min between: three loads, and two when they are put together.
    assert_eq!((&grouping["loads_now"], &grouping["minutes_now"]), (&json!(3), &json!(210)));
    assert_eq!((&grouping["loads_best"], &grouping["minutes_best"]), (&json!(2), &json!(140)));
    assert_eq!(grouping["lower_bound_minutes"], 140);
    assert_eq!(grouping["why"], "All need 45 min, and 2 loads are the fewest that hold them.");
    let (_, loads) = send(&shared, Method::PUT, "/api/loads/grouping", String::new()).await;
    let counts: Vec<usize> =
        loads.as_array().unwrap().iter().map(|load| load["jars"].as_array().unwrap().len()).collect();
    assert_eq!(counts, [7, 7]);
    let mixed = &loads[1]["doses"];
    assert_eq!(mixed.as_array().unwrap().len(), 2, "each batch keeps its own acid: {mixed}");
}

#[actix_web::test]
async fn jars_measured_from_outside_move_the_water() {
    let shared = with_load().await;
    let pot = json!({"pot": {"inner_diameter_mm": 305, "inner_height_mm": 300, "rack_height_mm": 12}});
    send(&shared, Method::PATCH, "/api/canners/1", pot.to_string()).await;
    let level = |load: &Value| load["water"]["level_before_mm"].as_f64().unwrap();
    let usual = level(&first_load(&shared).await);
    let tall = json!({"jar_outsides": {"quart": {"diameter_mm": 95, "height_mm": 190}}}).to_string();
    send(&shared, Method::PATCH, "/api/kitchen", tall).await;
    assert!((level(&first_load(&shared).await) - usual - 12.0).abs() < 1e-6, "12 mm taller than usual");
    let flat = json!({"jar_outsides": {"quart": {"diameter_mm": 95, "height_mm": 1}}}).to_string();
    let (status, problem) = send(&shared, Method::PATCH, "/api/kitchen", flat).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("jar_outsides.quart.height_mm")));
}

#[actix_web::test]
async fn a_touch_that_was_kept_counts_from_when_it_was_touched_and_gives_way_to_what_was_said_since() {
    let shared = with_load().await;
    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    let events = "/api/loads/1/events";
    post(&shared, events, json!({"event": "jars_in"})).await;
    let at = |load: &Value| load["events"].as_array().unwrap().last().unwrap()["at"].as_i64().unwrap();
    let put_in = at(&first_load(&shared).await);
    for age in ["-1", "soon", "86400001"] {
        let (status, problem) = late(&shared, events, json!({"event": "boils"}), age).await;
        assert_eq!((status, &problem["field"]), (422, &json!("bodega-age-ms")), "{age}");
    }
    // Touched an hour ago: before the jars went in, which somebody said meanwhile.
    let (status, problem) = late(&shared, events, json!({"event": "boils"}), "3600000").await;
    assert_eq!((status, &problem["code"]), (409, &json!("said_since")));
    assert!(problem["detail"].as_str().unwrap().contains("It boils"), "{problem}");
    // Heard, and only the answer was lost: said again, it is the same thing.
    let (status, same) = late(&shared, events, json!({"event": "jars_in"}), "5000").await;
    assert_eq!((status, at(&same), same["events"].as_array().unwrap().len()), (201, put_in, 1));
    let (status, boils) = late(&shared, events, json!({"event": "boils"}), "0").await;
    assert_eq!(status, 201, "{boils}");
    assert!(at(&boils) >= put_in);
}

#[actix_web::test]
async fn the_card_of_a_load_is_confirmed_once_and_changed_where_it_differs() {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    let mut wish = plan(1);
    wish["additions"] = json!([]);
    post(&shared, "/api/batches", wish).await;
    let seen = first_load(&shared).await;
    assert_eq!((&seen["claims"], &seen["asks_liquid"]), (&Value::Null, &json!(true)));
    assert_eq!(
        seen["claims_words"],
        "canning jars, new lids, no nicked rim, covered with liquid, headspace as asked"
    );
    assert_eq!(seen["judged"]["ruling"], "cannot_tell");
    let usual = json!({"kind": "mason", "lid": "new", "nicked": false, "covered": true});
    let say = async |part: Value| {
        let mut claims = usual.clone();
        claims.as_object_mut().unwrap().extend(part.as_object().unwrap().clone());
        let (status, load) = put(&shared, "/api/loads/1/claims", claims).await;
        assert_eq!(status, 200, "{load}");
        let found = load["judged"]["findings"].as_array().unwrap().clone();
        found.iter().map(|finding| finding["code"].as_str().unwrap().to_owned()).collect::<Vec<_>>()
    };
    assert_eq!(say(json!({})).await, [""; 0]);
    assert_eq!(first_load(&shared).await["judged"]["ruling"], "fine");
    for (part, code) in [
        (json!({"kind": "packer"}), "jar_fragile"),
        (json!({"kind": "antique"}), "jar_unsuited"),
        (json!({"lid": "reused"}), "lid_reused"),
        (json!({"nicked": true}), "rim_nicked"),
        (json!({"headspace_in": 0.1}), "headspace"),
    ] {
        assert_eq!(say(part).await, [code]);
    }
    // No liquid went in: the load is too short, and one touch gives it the time of no liquid.
    assert_eq!(say(json!({"covered": false})).await, ["process_short"]);
    assert_eq!(put(&shared, "/api/loads/1/time", json!({})).await.1["minutes"], 85);
    assert_eq!(first_load(&shared).await["judged"]["findings"], json!([]));
    // Another jar comes to it: nobody has looked at that one.
    put(&shared, "/api/loads/1/jars", json!({"jar": "quart", "count": 6})).await;
    assert!(!first_load(&shared).await["claims"].is_null(), "a jar less needs no new look");
    put(&shared, "/api/loads/1/jars", json!({"jar": "quart", "count": 7})).await;
    assert_eq!(first_load(&shared).await["claims"], Value::Null);
    for (field, value) in [("headspace_in", 7.0), ("water_c", -100.0)] {
        let mut claims = usual.clone();
        claims[field] = json!(value);
        let (status, problem) = put(&shared, "/api/loads/1/claims", claims).await;
        assert_eq!((status, &problem["field"]), (422, &json!(field)));
    }
}

#[actix_web::test]
async fn acid_is_said_in_whatever_it_was_measured_with() {
    let shared = with_load().await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"spoons": "australian"}"#.to_owned()).await;
    let stir = async |said: Value| put(&shared, "/api/batches/1/pot_dose", json!({ "said": said })).await;
    // Seven quarts of citric acid: 3½ US teaspoons. An Australian tablespoon holds 20 mL, more than four of them.
    let (_, batch) = stir(json!([{"amount": 0.5, "measure": "tbsp"}, {"amount": 2.5, "measure": "g"}])).await;
    let tsp = batch["pot_dose_tsp"].as_f64().unwrap();
    assert!((tsp - (10.0 / 4.928_921_593_75 + 0.5)).abs() < 1e-9, "{tsp}");
    assert_eq!(batch["pot_said"].as_array().unwrap().len(), 2, "as it was said");
    let dose = first_load(&shared).await["doses"][0].clone();
    assert_eq!((&dose["acid"], &dose["to_add_volume"]), (&json!("½ tsp"), &json!("0.7 mL, 0.7 g")));
    assert!(dose["in_pot"].as_str().unwrap().contains("mL"), "{dose}");
    for (said, field) in [
        (json!([{"amount": 1, "measure": "tsp"}, {"amount": 1, "measure": "bottle"}]), "said[1].measure"),
        (json!([{"amount": -1, "measure": "tsp"}]), "said[0].amount"),
        (json!([{"amount": 4000, "measure": "cup"}]), "said[0].amount"),
    ] {
        let (status, problem) = stir(said).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some(field)), "{problem}");
    }
    assert_eq!(first_load(&shared).await["batch"]["pot_dose_tsp"].as_f64(), Some(tsp), "nothing is lost");
    assert_eq!(stir(json!([])).await.1["pot_dose_tsp"], Value::Null);
}

#[actix_web::test]
async fn jars_that_do_not_fit_a_measured_canner_go_neither_on_the_plan_nor_in() {
    let shared = with_load().await;
    post(&shared, "/api/loads/1/steps", json!({"step": "acid"})).await;
    post(&shared, "/api/loads/1/steps", json!({"step": "lid"})).await;
    let pot = async |wide: i32, long: Value, high: i32| {
        let inside = json!({"inner_diameter_mm": wide, "inner_length_mm": long, "inner_height_mm": high, "rack_height_mm": 12});
        send(&shared, Method::PATCH, "/api/canners/1", json!({ "pot": inside }).to_string()).await
    };
    let jars_in = async || post(&shared, "/api/loads/1/events", json!({"event": "jars_in"})).await;
    pot(305, Value::Null, 200).await;
    assert_eq!(jars_in().await.1["code"], "no_room", "too tall for it");
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    let (status, problem) = post(&shared, "/api/batches", plan(2)).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("jar")), "{problem}");
    assert!(problem["detail"].as_str().unwrap().contains("smaller jars or another canner"), "{problem}");
    pot(250, Value::Null, 300).await;
    assert_eq!(jars_in().await.1["code"], "canner_full");
    assert_eq!(first_load(&shared).await["standing"], json!([]), "no picture that cannot be kept");
    let (status, problem) = pot(250, json!(200), 300).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("pot.inner_length_mm")));
    pot(250, json!(420), 300).await;
    let roaster = first_load(&shared).await;
    assert_eq!((roaster["standing"].as_array().unwrap().len(), &roaster["stretch"]), (7, &json!(1.68)));
    assert_eq!(jars_in().await.0, 201);
}

#[actix_web::test]
async fn what_rides_along_takes_room_and_the_longest_time_and_filled_jars_call_when_they_wait() {
    let shared = with_load().await;
    let also = async |also: Value| put(&shared, "/api/loads/1/also", json!({ "also": also })).await;
    put(&shared, "/api/loads/1/jars", json!({"jar": "quart", "count": 4})).await;
    let (status, load) = also(json!([{"size": "pint", "count": 2, "minutes": 60}])).await;
    assert_eq!((status, &load["minutes"]), (200, &json!(60)), "everything gets the longest time");
    assert!(load["rides_along"].as_str().unwrap().contains("2 pints of something else (60 min)"));
    assert_eq!(also(json!([{"size": "quart", "count": 4, "minutes": 20}])).await.1["code"], "canner_full");
    let (status, problem) = also(json!([{"size": "quart", "count": 0, "minutes": 20}])).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("also[0].count")));
    assert_eq!(first_load(&shared).await["also"].as_array().unwrap().len(), 1, "nothing of it was kept");
    assert_eq!(also(json!([])).await.1["minutes"], 45);
    assert_eq!(first_load(&shared).await["waits_too_long_from"], Value::Null);
    post(&shared, "/api/loads/1/steps", json!({"step": "acid"})).await;
    post(&shared, "/api/loads/1/steps", json!({"step": "lid"})).await;
    let from = first_load(&shared).await["waits_too_long_from"].clone();
    let (_, counter) = send(&shared, Method::GET, "/api/counter", String::new()).await;
    let calls = counter["calls"].as_array().unwrap();
    assert!(
        calls.iter().any(|call| call["text"] == "Filled jars wait for the canner" && call["from"] == from)
    );
}

#[actix_web::test]
async fn something_else_that_is_lifted_out_under_way_stops_the_boil_and_is_asked_about_first() {
    let pint = json!([{"size": "pint", "count": 1, "minutes": 20, "name": null, "broken": 0}]);
    for (how, also, phase, lost) in [
        ("said_wrongly", json!([]), "counting", 0),
        ("lifted_now", json!([]), "boil_lost", 1),
        (
            "put_in_now",
            json!([{"size": "pint", "count": 2, "minutes": 20, "name": "plums", "broken": 1}]),
            "boil_lost",
            1,
        ),
    ] {
        let shared = with_load().await;
        let say = async |body: Value| put(&shared, "/api/loads/1/also", body).await;
        put(&shared, "/api/loads/1/jars", json!({"jar": "quart", "count": 4})).await;
        for step in ["acid", "lid"] {
            post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
        }
        // While it only heats it is noted, and nothing is asked.
        post(&shared, "/api/loads/1/events", json!({"event": "jars_in"})).await;
        assert_eq!(say(json!({ "also": pint })).await.0, 200);
        post(&shared, "/api/loads/1/events", json!({"event": "boils"})).await;
        let (status, problem) = say(json!({ "also": also })).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some("how")), "{how}: {problem}");
        assert!(problem["detail"].as_str().unwrap().contains("stops the boil"), "{problem}");
        assert_eq!(first_load(&shared).await["also"], pint, "what was told before stays");
        // Other minutes for the same jars open no canner.
        let longer = json!([{"size": "pint", "count": 1, "minutes": 25}]);
        assert_eq!(say(json!({ "also": longer })).await.0, 200);
        let (status, load) = say(json!({ "also": also, "how": how })).await;
        assert_eq!((status, &load["now"]["phase"]), (200, &json!(phase)), "{how}: {load}");
        assert_eq!((&load["times_lost"], &load["also"]), (&json!(lost), &also), "{how}");
    }
}

#[actix_web::test]
async fn after_the_machine_was_off_it_is_asked_whether_the_boil_held() {
    let shared = with_load().await;
    post(&shared, "/api/loads/1/steps", json!({"step": "acid"})).await;
    post(&shared, "/api/loads/1/steps", json!({"step": "lid"})).await;
    let say = async |event: &str| post(&shared, "/api/loads/1/events", json!({ "event": event })).await;
    say("jars_in").await;
    say("boils").await;
    shared.store.mark_unwatched(None, shared.clock.now()).unwrap();
    let asked = first_load(&shared).await;
    assert_eq!((&asked["now"]["phase"], &asked["processed"]), (&json!("unwatched"), &json!(false)));
    let (_, counter) = send(&shared, Method::GET, "/api/counter", String::new()).await;
    assert!(counter["calls"].to_string().contains("did the boil hold"), "{counter}");
    assert_eq!(say("lifted").await.0, 409, "it is answered first");
    assert_eq!(say("held_on").await.1["now"]["phase"], "counting");
    let lost = |load: &Value| load["judged"]["findings"].to_string().contains("boil_lost");
    assert!(!lost(&first_load(&shared).await));
    shared.store.mark_unwatched(None, shared.clock.now()).unwrap();
    let (_, ended) = say("heat_off").await;
    assert!(
        ended["not_processed"] == true && lost(&ended),
        "nobody knows, so it counts for nothing: {ended}"
    );
}

#[actix_web::test]
async fn a_lid_that_was_looked_at_without_a_connection_was_looked_at_then() {
    let shared = with_load().await;
    post(&shared, "/api/loads/1/steps", json!({"step": "acid"})).await;
    post(&shared, "/api/loads/1/steps", json!({"step": "lid"})).await;
    // Everything at the canner was touched half a day ago, and a little more.
    const HOUR: i64 = 60 * 60 * 1000;
    for (event, hours) in [("jars_in", 15), ("boils", 14), ("heat_off", 13), ("lifted", 12)] {
        let age = (hours * HOUR + 60_000).to_string();
        let (status, said) = late(&shared, "/api/loads/1/events", json!({ "event": event }), &age).await;
        assert_eq!(status, 201, "{said}");
    }
    let towel =
        async || send(&shared, Method::GET, "/api/towel", String::new()).await.1[0]["jars"][0].clone();
    let jar = towel().await["id"].clone();
    let seal = json!({"jars": [jar], "verdict": "holds"});
    let app = |age: i64| late_put(&shared, "/api/seals", seal.clone(), age);
    assert_eq!(app(HOUR).await, 204);
    assert_ne!(towel().await["second_look"], Value::Null, "an hour ago it was too early to say");
    assert_eq!(app(0).await, 204);
    assert_eq!(towel().await["second_look"], Value::Null);
}

#[actix_web::test]
async fn something_else_has_a_name_breaks_and_has_its_minutes_put_right() {
    let shared = with_load().await;
    let say = async |line: Value| put(&shared, "/api/loads/1/also", json!({ "also": [line] })).await;
    let line = |part: Value| {
        let mut line = json!({"size": "pint", "count": 2, "minutes": 20});
        line.as_object_mut().unwrap().extend(part.as_object().unwrap().clone());
        line
    };
    put(&shared, "/api/loads/1/jars", json!({"jar": "quart", "count": 4})).await;
    for (part, field) in [
        (json!({"broken": 3}), "also[0].broken"),
        (json!({"name": "   "}), "also[0].name"),
        (json!({"name": "x".repeat(81)}), "also[0].name"),
        (json!({"minutes": 0}), "also[0].minutes"),
    ] {
        let (status, problem) = say(line(part)).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some(field)), "{problem}");
    }
    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    assert_eq!(say(line(json!({"name": " plum jam "}))).await.1["also"][0]["name"], "plum jam");
    for event in ["jars_in", "boils"] {
        post(&shared, "/api/loads/1/events", json!({ "event": event })).await;
    }
    // A jar that breaks stays in, and opens no canner; nor do other minutes.
    let (status, load) = say(line(json!({"name": "plum jam", "broken": 1, "minutes": 60}))).await;
    assert_eq!((status, &load["now"]["phase"], &load["minutes"]), (200, &json!("counting"), &json!(60)));
    let words = load["rides_along"].as_str().unwrap();
    assert!(words.contains("2 pints of plum jam (60 min, 1 broken)"), "{words}");
}

#[actix_web::test]
async fn the_water_over_the_lids_is_said_as_the_jars_go_in_and_looked_at_again() {
    let shared = with_load().await;
    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    let asks = |load: &Value| -> Vec<String> {
        let questions = load["judged"]["questions"].as_array().unwrap();
        questions.iter().map(|question| question["ask"].as_str().unwrap().to_owned()).collect()
    };
    let waiting = first_load(&shared).await;
    assert_eq!((&waiting["asks_under"], &waiting["asks_water"]), (&json!(true), &json!(false)));
    let (_, on_rack) = put(&shared, "/api/loads/1/under_jars", json!({"under_jars": "nothing"})).await;
    assert!(on_rack["judged"].to_string().contains("bare_bottom"), "{on_rack}");
    put(&shared, "/api/loads/1/under_jars", json!({"under_jars": "towel"})).await;
    let events = "/api/loads/1/events";
    let (status, problem) = post(&shared, events, json!({"event": "boils", "water": "well"})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("water")), "{problem}");
    assert_eq!(first_load(&shared).await["now"]["phase"], "waiting", "nothing of it was written");
    // Taken back, nothing was seen over lids that were not in.
    let (_, load) = post(&shared, events, json!({"event": "jars_in", "water": "low"})).await;
    let at = load["events"][0]["at"].as_i64().unwrap();
    let (_, back) = send(&shared, Method::DELETE, &format!("{events}/{at}"), String::new()).await;
    assert_eq!((&back["now"]["phase"], &back["water_over"]), (&json!("waiting"), &Value::Null));
    // Nobody looked: it is asked, and said where it stands.
    let (_, load) = post(&shared, events, json!({"event": "jars_in", "water": "unknown"})).await;
    assert!(asks(&load).contains(&"water".to_owned()), "{load}");
    let (status, load) = put(&shared, "/api/loads/1/water", json!({"water": "some"})).await;
    assert_eq!((status, asks(&load).contains(&"water".to_owned())), (200, false));
    assert!(load["judged"].to_string().contains("water_cover"), "{load}");
    post(&shared, events, json!({"event": "boils"})).await;
    let calls =
        async || send(&shared, Method::GET, "/api/counter", String::new()).await.1["calls"].to_string();
    assert!(calls().await.contains("Half time: look at the water"), "45 minutes are long");
    let half = first_load(&shared).await["says"]["look_again"].as_i64().unwrap();
    let since = first_load(&shared).await["now"]["since"].as_i64().unwrap();
    assert_eq!(half - since, 45 * 30_000, "half of 45 minutes");
    // Water is topped up before it boils away.
    let steam = json!({"event": "ran_dry"});
    assert_eq!(post(&shared, events, steam).await.0, 409, "water does not run dry unseen");
}

#[actix_web::test]
async fn a_canner_says_what_it_is_and_when_its_gauge_was_tested() {
    let shared = with_load().await;
    let change = async |body: Value| send(&shared, Method::PATCH, "/api/canners/1", body.to_string()).await;
    let (_, canner) = send(&shared, Method::GET, "/api/canners/1", String::new()).await;
    assert_eq!((&canner["multi_cooker"], &canner["gauge_tested_in"]), (&json!(false), &Value::Null));
    for year in [1899, 2100, 32_000] {
        let (status, problem) = change(json!({"gauge_tested_in": year})).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some("gauge_tested_in")), "{problem}");
    }
    assert_eq!(change(json!({"gauge_tested_in": 2025})).await.1["gauge_tested_in"], 2025);
    assert_eq!(change(json!({"multi_cooker": true})).await.0, 200);
    let load = first_load(&shared).await;
    assert!(load["judged"].to_string().contains("canner_unsuited"), "{load}");
    assert_eq!(change(json!({"multi_cooker": false})).await.0, 200);
    assert!(!first_load(&shared).await["judged"].to_string().contains("canner_unsuited"));
}

#[actix_web::test]
async fn water_over_the_lids_is_said_in_boiling_water_alone() {
    let shared = with_load().await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    let steam = json!({"name": "steamer", "method": "atmospheric_steam"});
    let (_, canner) = post(&shared, "/api/canners", steam).await;
    send(&shared, Method::PATCH, "/api/kitchen", json!({"canner": canner["id"]}).to_string()).await;
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    let (status, batch) = post(&shared, "/api/batches", plan(2)).await;
    assert_eq!(status, 201, "{batch}");
    let loads = send(&shared, Method::GET, "/api/loads", String::new()).await.1;
    let id = loads.as_array().unwrap().last().unwrap()["id"].as_i64().unwrap();
    for step in ["acid", "lid"] {
        post(&shared, &format!("/api/loads/{id}/steps"), json!({ "step": step })).await;
    }
    let events = format!("/api/loads/{id}/events");
    let (status, problem) = post(&shared, &events, json!({"event": "jars_in", "water": "well"})).await;
    assert_eq!((status, &problem["code"]), (409, &json!("no_water_over")), "{problem}");
    let (status, problem) = put(&shared, &format!("/api/loads/{id}/water"), json!({"water": "well"})).await;
    assert_eq!((status, &problem["code"]), (409, &json!("no_water_over")), "{problem}");
    for event in ["jars_in", "boils", "ran_dry"] {
        let (status, load) = post(&shared, &events, json!({ "event": event })).await;
        assert_eq!(status, 201, "{event}: {load}");
    }
    let load = send(&shared, Method::GET, &format!("/api/loads/{id}"), String::new()).await.1;
    assert!(load["says"]["words"].as_str().unwrap().starts_with("It ran dry."), "{load}");
}
