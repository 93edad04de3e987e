//! The day over HTTP: the calculator's contract, and the strip that is laid out from the batches.

use actix_web::http::Method;
use actix_web::web;
use bodega::clock::Clock;
use bodega::demo::opening_moment;
use bodega::state::Shared;
use bodega_store::Store;
use serde_json::{Value, json};

use crate::common::{empty, fetch, kitchen, lot, post, send};

/// Wash 50, heat 40, fill 14, process 85, lift 5: one pair of hands, one canner.
fn one_load() -> Value {
    let after = |id: &str, least: i64, most: Value| json!({"id": id, "min_lag_minutes": least, "max_lag_minutes": most});
    json!({
        "resources": {"people": 1, "burners": 3, "kettles": 1, "canners": 1}, "horizon_minutes": 600,
        "time_limit_ms": 2000,
        "tasks": [
            {"id": "wash", "minutes": 50, "uses": {"people": 1, "burners": 0, "kettles": 0, "canners": 0}, "after": []},
            {"id": "heat", "minutes": 40, "uses": {"people": 0, "burners": 1, "kettles": 0, "canners": 1}, "after": []},
            {"id": "fill", "minutes": 14, "uses": {"people": 1}, "after": [after("wash", 0, Value::Null)]},
            {"id": "load", "minutes": 85, "uses": {"burners": 1, "canners": 1},
                "after": [after("fill", 0, json!(10)), after("heat", 0, json!(30))]},
            {"id": "lift", "minutes": 5, "uses": {"people": 1}, "after": [after("load", 0, json!(0))]},
        ],
    })
}

#[actix_web::test]
async fn the_day_is_laid_out_as_the_contract_says() {
    let shared = empty();
    let (status, answer) = post(&shared, "/api/compute/day", one_load()).await;
    // 50 + 14 + 85 + 5, the heating beside the washing.
    assert_eq!(
        (status, &answer["status"], &answer["makespan_minutes"]),
        (200, &json!("optimal"), &json!(154))
    );
    assert_eq!((&answer["bound_minutes"], &answer["why"]), (&json!(154), &Value::Null));
    assert_eq!((&answer["starts"]["fill"], &answer["starts"]["load"]), (&json!(50), &json!(64)));
    let heat = answer["starts"]["heat"].as_u64().unwrap();
    assert!((0..=24).contains(&heat), "it ends 0 to 30 min before the load goes in: {heat}");

    let mut short = one_load();
    short["horizon_minutes"] = json!(120);
    let (_, answer) = post(&shared, "/api/compute/day", short).await;
    assert_eq!((&answer["status"], &answer["makespan_minutes"]), (&json!("infeasible"), &Value::Null));
    assert_eq!(answer["why"], "one canner load after another takes at least 2 h 34 min, and the day has 2 h");
    assert_eq!(answer["starts"], json!({}));
}

#[actix_web::test]
async fn bad_days_name_the_field() {
    let shared = empty();
    for (path, value, field) in [
        ("/tasks/1/id", json!("wash"), "tasks[1].id"),
        ("/tasks/2/after/0/id", json!("rinse"), "tasks[2].after[0].id"),
        ("/tasks/3/after/0/max_lag_minutes", json!(-5), "tasks[3].after[0].max_lag_minutes"),
        ("/tasks/0/minutes", json!(1_000_000), "tasks[0].minutes"),
        ("/tasks/0/minutes", json!(-1), "tasks[0].minutes"),
        ("/resources/people", json!(5000), "resources.people"),
        ("/time_limit_ms", json!(0), "time_limit_ms"),
    ] {
        let mut day = one_load();
        *day.pointer_mut(path).unwrap() = value;
        let (status, problem) = post(&shared, "/api/compute/day", day).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some(field)), "{problem}");
    }
}

#[actix_web::test]
async fn the_strip_is_proven_moves_with_a_slip_and_offers_ways_out() {
    // An afternoon that begins at 14:33, whatever the hour the test runs at.
    let clock = Clock::starting_at(opening_moment().unwrap(), 1);
    let shared = kitchen(Store::in_memory().unwrap(), clock);
    let kitchen = json!({"altitude_ft": 500, "people": 1, "burners": 4, "day_ends": 1260}).to_string();
    send(&shared, Method::PATCH, "/api/kitchen", kitchen).await;
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [1]});
    post(&shared, "/api/batches", plan).await;
    let (_, day) = send(&shared, Method::GET, "/api/day", String::new()).await;
    assert_eq!(day["status"], "optimal", "{day}");
    let block = |day: &Value, work: &str| {
        day["blocks"].as_array().unwrap().iter().find(|block| block["work"] == work).unwrap().clone()
    };
    let wash = block(&day, "wash");
    let calls = day["reminders"].to_string();
    assert!(calls.contains("Wash the fruit of batch"), "it is to begin at once: {calls}");
    let slip = json!({"block": wash["key"], "minutes": 40});
    let (_, moved) = post(&shared, "/api/day/slips", slip).await;
    let at =
        |day: &Value, work: &str| block(day, work)["starts"].as_i64().unwrap() - day["now"].as_i64().unwrap();
    let later = (at(&moved, "load") - at(&day, "load")) / 60_000;
    assert!((39..=41).contains(&later), "forty minutes later: {later}");
    assert_eq!(block(&moved, "wash")["slip_minutes"], 40);
    let (status, problem) = post(&shared, "/api/day/slips", json!({"block": "x", "minutes": 5000})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("minutes")));

    let early = json!({"day_ends": 15 * 60}).to_string();
    send(&shared, Method::PATCH, "/api/kitchen", early).await;
    let (_, full) = send(&shared, Method::GET, "/api/day", String::new()).await;
    assert_eq!((&full["status"], &full["finish"]), (&json!("infeasible"), &Value::Null));
    // It is drawn all the same, with what falls off the end.
    assert!(full["would_finish"].as_i64() > full["day_ends"].as_i64(), "{}", full["would_finish"]);
    assert!(full["blocks"].as_array().is_some_and(|blocks| !blocks.is_empty()));
    assert!(full["why"].as_str().unwrap().contains("at least"), "{full}");
    let ways = full["ways_out"].as_array().unwrap();
    assert!(ways.iter().any(|way| way["text"].as_str().unwrap().contains("for tomorrow")), "{full}");
}

/// A kitchen in a folder at a moment so many hours after the demo's opening.
fn kitchen_at(folder: &std::path::Path, hours: i64) -> web::Data<Shared> {
    let moment = opening_moment().unwrap().plus_minutes(hours * 60);
    kitchen(Store::open(folder).unwrap(), Clock::starting_at(moment, 1))
}

async fn plan(shared: &web::Data<Shared>, product: &str, medium: Value, pack: &str, lot_id: i64) -> Value {
    let plan = json!({"product": product, "medium": medium, "pack": pack, "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [lot_id]});
    let (status, batch) = post(shared, "/api/batches", plan).await;
    assert_eq!(status, 201, "{batch}");
    batch
}

fn works(day: &Value) -> Vec<&str> {
    day["blocks"].as_array().unwrap().iter().map(|block| block["work"].as_str().unwrap()).collect()
}

async fn get_day(shared: &web::Data<Shared>) -> Value {
    send(shared, Method::GET, "/api/day", String::new()).await.1
}

#[actix_web::test]
async fn work_at_the_sink_is_said_and_the_households_pace_is_learned_from_it() {
    let folder = tempfile::tempdir().unwrap();
    let mark = |block: String, mark: &'static str| json!({"block": block, "mark": mark});
    let code = {
        let shared = kitchen_at(folder.path(), 0);
        send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
        send(&shared, Method::POST, "/api/lots", lot("20")).await;
        let batch = plan(&shared, "whole", json!("water"), "raw", 1).await;
        let code = batch["code"].as_str().unwrap().to_owned();
        let day = get_day(&shared).await;
        let blanch =
            day["blocks"].as_array().unwrap().iter().find(|block| block["work"] == "blanch").unwrap();
        assert_eq!(blanch["rounds"], 8, "sixty fruit, eight or nine at a time: {blanch}");
        let (_, day) = post(&shared, "/api/day/marks", mark(format!("{code} core"), "begun")).await;
        let core = day["blocks"].as_array().unwrap().iter().find(|block| block["work"] == "core").unwrap();
        assert_eq!((&core["begun"], &core["starts"]), (&json!(true), &day["now"]));
        for (block, field) in [(format!("{code} load load 1"), "block"), ("x wash".to_owned(), "block")] {
            let (status, problem) = post(&shared, "/api/day/marks", mark(block, "begun")).await;
            assert_eq!((status, problem["field"].as_str()), (422, Some(field)), "{problem}");
        }
        code
    };
    // Sixteen minutes for what is thought to take eight: coring takes twice as long here.
    let moment = opening_moment().unwrap().plus_minutes(16);
    let shared = kitchen(Store::open(folder.path()).unwrap(), Clock::starting_at(moment, 1));
    let (_, day) = post(&shared, "/api/day/marks", mark(format!("{code} core"), "done")).await;
    let left: Vec<&str> =
        works(&day).into_iter().filter(|work| ["wash", "core", "blanch"].contains(work)).collect();
    assert_eq!(left, ["blanch"], "what comes before is done as well");
    let (_, day) = post(&shared, "/api/day/marks", mark(format!("{code} core"), "begun")).await;
    assert!(works(&day).contains(&"core"), "taken back");
    post(&shared, "/api/day/marks", mark(format!("{code} core"), "done")).await;

    send(&shared, Method::POST, "/api/lots", lot("20")).await;
    let next = plan(&shared, "whole", json!("water"), "raw", 2).await;
    let day = get_day(&shared).await;
    let minutes = |work: &str| {
        let key = format!("{} {work}", next["code"].as_str().unwrap());
        let block = day["blocks"].as_array().unwrap().iter().find(|block| block["key"] == key).unwrap();
        (block["ends"].as_i64().unwrap() - block["starts"].as_i64().unwrap()) / 60_000
    };
    // Twice the usual once, against a usual pace that counts for two batches: four thirds of eight minutes.
    assert_eq!((minutes("core"), minutes("wash")), (11, 6));
}

#[actix_web::test]
async fn juice_waits_overnight_and_is_heated_and_canned_the_next_day() {
    let folder = tempfile::tempdir().unwrap();
    let id = {
        let shared = kitchen_at(folder.path(), 0);
        let kitchen = json!({"altitude_ft": 500, "people": 1, "day_ends": 16 * 60}).to_string();
        send(&shared, Method::PATCH, "/api/kitchen", kitchen).await;
        send(&shared, Method::POST, "/api/lots", lot("20")).await;
        let batch = plan(&shared, "juice", Value::Null, "hot", 1).await;
        let full = get_day(&shared).await;
        assert_eq!(full["finish"], Value::Null, "it does not fit before four: {full}");
        let ways = full["ways_out"].as_array().unwrap();
        let step =
            |way: &str| ways.iter().find(|found| found["step"]["way"] == way).map(|found| &found["step"]);
        assert!(step("leave").is_some() && step("freeze").is_some(), "{full}");
        assert_eq!(step("chill").unwrap()["batch"], batch["id"]);
        let path = format!("/api/batches/{}", batch["id"]);
        send(&shared, Method::PATCH, &path, json!({"chilled": true}).to_string()).await;
        let tonight = get_day(&shared).await;
        assert_eq!(works(&tonight), ["wash", "core", "mill", "chill"]);
        assert_eq!(tonight["status"], "optimal");
        batch["id"].as_i64().unwrap()
    };
    let tomorrow = kitchen_at(folder.path(), 19);
    let day = get_day(&tomorrow).await;
    assert_eq!(works(&day), ["cook", "fill", "load", "lift", "heat"], "{day}");
    let said = day["waiting"].to_string();
    assert!(said.contains("is in the refrigerator: heat it to the boil and can it today"), "{said}");
    // The second day comes before anything else is said of the first.
    drop(tomorrow);
    let next_day = kitchen_at(folder.path(), 25);
    let too_late = get_day(&next_day).await["waiting"].to_string();
    assert!(too_late.contains("do not can it"), "{too_late}");
    drop(next_day);
    let tomorrow = kitchen_at(folder.path(), 19);

    // Whole fruit is no juice, and filled jars wait for nothing.
    send(&tomorrow, Method::POST, "/api/lots", lot("20")).await;
    let whole = plan(&tomorrow, "whole", json!("water"), "raw", 2).await;
    let path = format!("/api/batches/{}", whole["id"]);
    let (_, problem) = send(&tomorrow, Method::PATCH, &path, json!({"chilled": true}).to_string()).await;
    assert_eq!(problem["code"], "not_juice");
    post(&tomorrow, "/api/loads/1/steps", json!({"step": "acid"})).await;
    let path = format!("/api/batches/{id}");
    let (_, problem) = send(&tomorrow, Method::PATCH, &path, json!({"chilled": true}).to_string()).await;
    assert_eq!(problem["code"], "batch_begun");
    let (status, problem) = send(&tomorrow, Method::PATCH, &path, "{}".to_owned()).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("removed")));
    let (status, problem) =
        send(&tomorrow, Method::PATCH, &path, json!({"chilled": false, "frozen": true}).to_string()).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("frozen")));
}

#[actix_web::test]
async fn fruit_that_cannot_wait_goes_into_the_freezer_and_comes_back_out() {
    let shared = empty();
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    send(&shared, Method::POST, "/api/lots", lot("20")).await;
    let batch = plan(&shared, "whole", json!("water"), "raw", 1).await;
    let path = format!("/api/batches/{}", batch["id"]);
    let state = async || {
        let (_, csv) = fetch(&shared, Method::GET, "/api/harvest.csv", String::new()).await;
        String::from_utf8(csv).unwrap()
    };
    for (removed, expected) in [(true, ",frozen,"), (false, ",fresh,")] {
        let change = json!({"removed": removed, "frozen": removed}).to_string();
        send(&shared, Method::PATCH, &path, change).await;
        assert!(state().await.contains(expected), "{}", state().await);
        let (_, lots) = send(&shared, Method::GET, "/api/lots", String::new()).await;
        assert_eq!(lots.as_array().unwrap().len(), usize::from(removed), "back in the crates, or drawn");
    }
}

#[actix_web::test]
async fn a_load_of_two_batches_waits_for_both_and_then_both_are_done_at_the_sink() {
    let clock = Clock::starting_at(opening_moment().unwrap(), 1);
    let shared = kitchen(Store::in_memory().unwrap(), clock);
    send(&shared, Method::PATCH, "/api/kitchen", json!({"altitude_ft": 500, "people": 1}).to_string()).await;
    let mut codes = Vec::new();
    for (number, count) in [(1, 9), (2, 5)] {
        send(&shared, Method::POST, "/api/lots", lot("40")).await;
        let wish = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
            "jars": [{"jar": "quart", "count": count}], "agent": "citric_acid", "lots": [number]});
        let (_, batch) = post(&shared, "/api/batches", wish).await;
        codes.push(batch["code"].as_str().unwrap().to_owned());
    }
    let (_, loads) = send(&shared, Method::PUT, "/api/loads/grouping", String::new()).await;
    let day = get_day(&shared).await;
    let block = |day: &Value, key: &str| {
        day["blocks"].as_array().unwrap().iter().find(|block| block["key"] == key).cloned()
    };
    let peeled = block(&day, &format!("{} peel", codes[1])).unwrap();
    let filled = block(&day, &format!("{} fill load 2", codes[0])).unwrap();
    assert!(filled["starts"].as_i64() >= peeled["ends"].as_i64(), "{peeled} {filled}");
    for step in ["acid", "lid"] {
        post(&shared, &format!("/api/loads/{}/steps", loads[1]["id"]), json!({ "step": step })).await;
    }
    let day = get_day(&shared).await;
    assert_eq!(block(&day, &format!("{} peel", codes[1])), None, "its jars are filled");
}
