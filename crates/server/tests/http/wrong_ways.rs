//! Whoever goes on past a stop is met at every station after it: a table of wrong ways, each walked over HTTP from the crate to the
//! shelf, with the station where it is met first and what really ends it. What is told wrongly is told as a household tells it; how
//! long ago is told by the age of a touch.

use actix_web::http::Method;
use actix_web::web;
use bodega::state::Shared;
use serde_json::{Value, json};

use crate::common::{empty, fetch, late, lot, patch, post, put, send};

/// What ends it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum End {
    /// Nothing but the cold and the bin: it stays in the food.
    Never,
    /// And opening it, putting it right and processing it again.
    Again,
}

/// One wrong way.
struct Way {
    what: String,
    /// Of the plan.
    plan: Value,
    /// What else goes in.
    additions: Value,
    /// Where the card differs.
    claims: Value,
    /// Where the canner differs.
    canner: Value,
    /// Water over the lids as the jars go in.
    water: &'static str,
    /// Liquid that the jars lost in the canner.
    liquid: Option<&'static str>,
    /// Whether its steam canner ran dry a quarter of an hour before the heat went off.
    ran_dry: bool,
    /// Minutes that it boiled; `None` for all that it should.
    boiled: Option<i64>,
    code: &'static str,
    /// Where it is met first.
    met: &'static str,
    end: End,
}

impl Way {
    /// A plan that is done as it should be, with the code that it is to be found by.
    fn of(what: impl Into<String>, plan: &Value, code: &'static str, met: &'static str, end: End) -> Self {
        Self {
            what: what.into(),
            plan: plan.clone(),
            additions: json!([]),
            claims: json!({}),
            canner: json!({}),
            water: "well",
            liquid: None,
            ran_dry: false,
            boiled: None,
            code,
            met,
            end,
        }
    }
}

/// Minutes a product needs at 2,640 ft in pints.
fn product(name: &str) -> (Value, i64) {
    let plan = |medium: Value, pack: &str, thickness: Value| {
        json!({"product": name, "medium": medium, "pack": pack, "thickness": thickness, "jar": "pint", "jars": null,
            "agent": "bottled_lemon_juice", "lots": [1]})
    };
    match name {
        "whole" => (plan(json!("water"), "raw", Value::Null), 45),
        "sauce" => (plan(Value::Null, "hot", json!("thin")), 40),
        _ => (plan(Value::Null, "hot", Value::Null), 40),
    }
}

/// What stays in the food: in four products, any amount of it.
const IN_IT: [(&str, &str); 25] = [
    ("garlic", "low_acid_addition"),
    ("mushroom", "low_acid_addition"),
    ("beet", "low_acid_addition"),
    ("spinach", "low_acid_addition"),
    ("parsley", "low_acid_addition"),
    ("meat", "low_acid_addition"),
    ("oil", "low_acid_addition"),
    ("onion", "low_acid_addition"),
    ("pepper", "low_acid_addition"),
    ("carrot", "low_acid_addition"),
    ("celery", "low_acid_addition"),
    ("corn", "low_acid_addition"),
    ("beans", "low_acid_addition"),
    ("zucchini", "low_acid_addition"),
    ("other_vegetable", "low_acid_addition"),
    ("fresh_herb", "low_acid_addition"),
    ("butter", "low_acid_addition"),
    ("dairy", "low_acid_addition"),
    ("pesto", "low_acid_addition"),
    ("baking_soda", "low_acid_addition"),
    ("wine", "no_tested_process"),
    ("tinned_paste", "no_tested_process"),
    ("aspirin", "no_tested_process"),
    ("starch", "thickener"),
    ("rice", "thickener"),
];

fn ways() -> Vec<Way> {
    let of = |what: String, plan: &Value, code, met, end| Way::of(what, plan, code, met, end);
    let mut all = Vec::new();
    for name in ["whole", "crushed", "juice", "sauce"] {
        let (plan, _) = product(name);
        for (ingredient, code) in IN_IT {
            let additions = json!([{"what": ingredient, "cups": 1}]);
            all.push(Way {
                additions,
                ..of(format!("{name} with {ingredient}"), &plan, code, "plan", End::Never)
            });
        }
        let leaves = json!([{"what": "basil_leaf", "leaves": 40}]);
        let basil = of(format!("{name} with a cup of basil"), &plan, "low_acid_addition", "plan", End::Never);
        all.push(Way { additions: leaves, ..basil });
        for (says, claims, code) in [
            ("in food bottles", json!({"kind": "other"}), "jar_unsuited"),
            ("in antique jars", json!({"kind": "antique"}), "jar_unsuited"),
            ("in clip-top jars", json!({"kind": "wire_bail"}), "jar_unsuited"),
            (
                "under used lids on mayonnaise jars",
                json!({"kind": "packer", "lid": "reused"}),
                "jar_unsuited",
            ),
            ("with the juice of fresh lemons", json!({"acid_source": "fresh"}), "fresh_citrus"),
        ] {
            all.push(Way { claims, ..of(format!("{name} {says}"), &plan, code, "bench", End::Again) });
        }
        let dry = of(format!("{name} under half an inch of water"), &plan, "water_low", "canner", End::Again);
        all.push(Way { water: "low", ..dry });
        let multi =
            of(format!("{name} in an electric multi-cooker"), &plan, "canner_unsuited", "plan", End::Again);
        all.push(Way { canner: json!({"multi_cooker": true}), ..multi });
        let gone = of(format!("{name}, half of its liquid gone"), &plan, "liquid_gone", "towel", End::Never);
        all.push(Way { liquid: Some("half"), ..gone });
        let short =
            of(format!("{name}, the heat off at half time"), &plan, "process_short", "towel", End::Again);
        all.push(Way { boiled: Some(20), ..short });
        let never = of(
            format!("{name}, the heat off at the first bubble"),
            &plan,
            "process_short",
            "towel",
            End::Again,
        );
        all.push(Way { boiled: Some(0), ..never });
    }
    for name in ["crushed", "juice", "sauce"] {
        let (plan, _) = product(name);
        let raw = of(format!("{name} packed raw"), &plan, "no_tested_process", "bench", End::Again);
        all.push(Way { claims: json!({"packed_raw": true}), ..raw });
        let thin = of(format!("{name} with water"), &plan, "no_tested_process", "plan", End::Never);
        all.push(Way { additions: json!([{"what": "water"}]), ..thin });
    }
    for name in ["crushed", "juice", "sauce"] {
        let (plan, _) = product(name);
        let dry = of(format!("{name}, the steam canner ran dry"), &plan, "boil_lost", "towel", End::Again);
        let canner = json!({"method": "atmospheric_steam"});
        all.push(Way { canner, water: "", ran_dry: true, boiled: Some(40), ..dry });
    }
    let (whole, _) = product("whole");
    let dry = of("whole, no liquid went in".to_owned(), &whole, "process_short", "bench", End::Again);
    all.push(Way { claims: json!({"covered": false}), ..dry });
    let vinegar = {
        let mut plan = whole.clone();
        plan["agent"] = json!("vinegar_5pct");
        plan
    };
    let weak = of("whole with home-made vinegar".to_owned(), &vinegar, "no_acid", "bench", End::Again);
    all.push(Way { claims: json!({"acid_source": "weak"}), ..weak });
    all
}

async fn get(shared: &web::Data<Shared>, path: &str) -> Value {
    send(shared, Method::GET, path, String::new()).await.1
}

fn codes(judged: &Value) -> Vec<&str> {
    judged["findings"].as_array().unwrap().iter().map(|found| found["code"].as_str().unwrap()).collect()
}

const MINUTE_MS: i64 = 60_000;

fn usual() -> Value {
    json!({"kind": "mason", "lid": "new", "nicked": false, "covered": true})
}

/// Walks from the crate to the towel; the load came out thirteen hours ago, or a while ago when it is to be put right at once.
async fn walked(way: &Way, lifted_ago: i64) -> web::Data<Shared> {
    let shared = empty();
    send(&shared, Method::POST, "/api/lots", lot("8")).await;
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 2640})).await;
    assert_eq!(patch(&shared, "/api/canners/1", way.canner.clone()).await.0, 200, "{}", way.what);
    let mut plan = way.plan.clone();
    plan["additions"] = way.additions.clone();
    let (status, planned) = post(&shared, "/api/plan", plan.clone()).await;
    assert_eq!(status, 200, "{}: {planned}", way.what);
    if way.met == "plan" {
        let found = codes(&planned["judged"]);
        assert!(found.contains(&way.code), "{} is met at the plan: {found:?}", way.what);
    }
    let (status, batch) = post(&shared, "/api/batches", plan).await;
    assert_eq!(status, 201, "{}: {batch}", way.what);
    for step in ["acid", "lid"] {
        post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    }
    let mut claims = usual();
    claims.as_object_mut().unwrap().extend(way.claims.as_object().unwrap().clone());
    let (status, load) = put(&shared, "/api/loads/1/claims", claims).await;
    assert_eq!(status, 200, "{}: {load}", way.what);
    if matches!(way.met, "plan" | "bench") {
        let found = codes(&load["judged"]);
        assert!(found.contains(&way.code), "{} is met at the bench: {found:?}", way.what);
    }
    let minutes = way.boiled.unwrap_or_else(|| load["minutes"].as_i64().unwrap());
    let mut events = vec![
        ("jars_in", lifted_ago + minutes + 30),
        ("boils", lifted_ago + minutes + 6),
        ("heat_off", lifted_ago + 6),
        ("lifted", lifted_ago),
    ];
    if way.ran_dry {
        events.insert(2, ("ran_dry", lifted_ago + 21));
    }
    for (event, ago) in events {
        let age = (ago * MINUTE_MS).to_string();
        let mut body = json!({ "event": event });
        if event == "jars_in" && !way.water.is_empty() {
            body["water"] = json!(way.water);
        }
        let (status, said) = late(&shared, "/api/loads/1/events", body, &age).await;
        assert_eq!(status, 201, "{}, {event}: {said}", way.what);
        if event == "jars_in" && way.met == "canner" {
            let found = codes(&said["judged"]);
            assert!(found.contains(&way.code), "{} is met at the canner: {found:?}", way.what);
        }
    }
    if let Some(lost) = way.liquid {
        let jars = ids(&get(&shared, "/api/towel").await[0]["jars"]);
        let said = put(&shared, "/api/liquids", json!({ "jars": jars, "lost": lost })).await;
        assert_eq!(said.0, 204, "{}: {}", way.what, said.1);
    }
    shared
}

fn ids(jars: &Value) -> Vec<i64> {
    jars.as_array().unwrap().iter().map(|jar| jar["id"].as_i64().unwrap()).collect()
}

/// Nothing counts it, nothing prints a day for it, and everything says why.
async fn is_nowhere_a_jar_to_eat(shared: &web::Data<Shared>, way: &Way, jars: &[i64]) {
    let what = &way.what;
    let counter = get(shared, "/api/counter").await;
    assert_eq!(counter["shelved"], 0, "{what}");
    let calls = counter["calls"].as_array().unwrap();
    assert!(calls.iter().any(|call| call["station"] == "towel"), "{what} calls: {calls:?}");
    assert_eq!(get(shared, "/api/shelf").await, json!([]), "{what}");
    let pantry = get(shared, "/api/pantry").await;
    assert!(pantry["lines"].as_array().unwrap().iter().all(|line| line["on_shelf"] == 0), "{what}: {pantry}");
    let page = get(shared, &format!("/api/jars/{}", jars[0])).await;
    assert_eq!(page["jar"]["standing"]["ruling"], "not_fine", "{what}: {page}");
    let query = format!("/api/labels?jars={}&shape=round&paper=a4&width_mm=60", jars[0]);
    let label = get(shared, &query).await["pages"][0].as_str().unwrap().to_owned();
    assert!(label.contains("do not eat: ") && !label.contains("best before"), "{what}: {label}");
    let (_, csv) = fetch(shared, Method::GET, "/api/jars.csv", String::new()).await;
    let csv = String::from_utf8(csv).unwrap();
    assert!(csv.lines().nth(1).unwrap().contains("not fine: "), "{what}: {csv}");
    let (_, calendar) = fetch(shared, Method::GET, "/api/calendar.ics", String::new()).await;
    assert!(!String::from_utf8(calendar).unwrap().contains("Best before"), "{what}");
    let eaten = json!({"jar": jars[0], "how": "eaten"});
    assert_eq!(post(shared, "/api/departures", eaten).await.0, 409, "{what} is not eaten from the towel");
}

#[test]
fn there_are_many_wrong_ways() {
    let count = ways().len();
    assert!(count >= 120, "only {count} wrong ways");
}

#[actix_web::test]
async fn what_is_in_a_jar_goes_with_it_until_something_ends_it() {
    follow(|way| way.end == End::Never).await;
}

#[actix_web::test]
async fn what_was_done_to_a_jar_goes_with_it_until_something_ends_it() {
    follow(|way| way.end == End::Again).await;
}

async fn follow(which: fn(&&Way) -> bool) {
    for way in ways().iter().filter(which) {
        let what = &way.what;
        let shared = walked(way, 13 * 60).await;
        let towel = get(&shared, "/api/towel").await;
        let load = &towel[0];
        let jars = ids(&load["jars"]);
        assert_eq!(load["says"][0]["bad"], true, "{what}: {load}");
        let stops = load["jars"][0]["standing"]["against"].as_array().unwrap();
        assert!(stops.iter().any(|stop| stop["code"] == way.code), "{what} stands against it: {stops:?}");
        let way_out = &load["ways_out"][0];
        assert_eq!(way_out["jars"].as_array().unwrap().len(), jars.len(), "{what}: {way_out}");
        let again = way_out["ways"].as_array().unwrap().contains(&json!("reprocess"));
        assert_eq!(again, way.end == End::Again, "{what}: {way_out}");
        let (status, problem) = put(&shared, "/api/seals", json!({"jars": jars, "verdict": "holds"})).await;
        assert_eq!((status, problem["field"].is_string()), (409, true), "{what}: {problem}");
        is_nowhere_a_jar_to_eat(&shared, way, &jars).await;
        // After thirteen hours what was not processed was to be kept cold; everything else still has its day.
        let cold = json!({"jars": jars, "rescue": "refrigerator", "kept_cold": way.boiled.is_some()});
        if way.boiled.is_some() {
            let unasked = json!({"jars": jars, "rescue": "refrigerator"});
            assert_eq!(put(&shared, "/api/rescues", unasked).await.1["code"], "kept_cold", "{what}");
        }
        assert_eq!(put(&shared, "/api/rescues", cold).await.0, 204, "{what}");
        assert_eq!(get(&shared, "/api/towel").await, json!([]), "{what} is chilled");
        assert_eq!(get(&shared, "/api/cold").await["jars"].as_array().unwrap().len(), jars.len(), "{what}");
        // In the cold in its time the stop is over: it is eaten within its days, and its label says which.
        let page = get(&shared, &format!("/api/jars/{}", jars[0])).await;
        assert!(page["jar"]["standing"].is_null(), "{what}: {page}");
        let query = format!("/api/labels?jars={}&shape=round&paper=a4&width_mm=60", jars[0]);
        let label = get(&shared, &query).await["pages"][0].as_str().unwrap().to_owned();
        assert!(label.contains("eat by 20") && !label.contains("do not eat"), "{what}: {label}");
        assert_eq!(put(&shared, "/api/rescues", json!({"jars": jars, "rescue": null})).await.0, 204);
        assert_eq!(get(&shared, "/api/towel").await[0]["says"][0]["bad"], true, "{what} is back");
        assert_eq!(
            put(&shared, "/api/discards", json!({"jars": jars, "why": "too_late"})).await.0,
            204,
            "{what}"
        );
        assert_eq!(get(&shared, "/api/towel").await, json!([]), "{what} is thrown away");
        assert_eq!(get(&shared, "/api/counter").await["shelved"], 0, "{what}");
    }
}

#[actix_web::test]
async fn what_was_said_by_mistake_is_corrected_and_stays_in_sight() {
    let (whole, _) = product("whole");
    let way = |additions: Value, claims: Value, code| {
        let of = Way::of(format!("{additions} {claims}"), &whole, code, "bench", End::Again);
        Way { additions, claims, ..of }
    };
    for (wrong, path, right, about) in [
        (
            way(json!([{"what": "corn"}]), json!({}), "low_acid_addition"),
            "/api/batches/1/additions",
            json!({"additions": []}),
            ("what else went in", "corn", "nothing"),
        ),
        (
            Way { water: "low", met: "canner", ..way(json!([]), json!({}), "water_low") },
            "/api/loads/1/water",
            json!({"water": "well"}),
            ("water over the lids", "less than 1 in", "2 in or more"),
        ),
        (
            way(json!([]), json!({"kind": "other"}), "jar_unsuited"),
            "/api/loads/1/claims",
            usual(),
            ("jars, lids and filling", "food jars", "canning jars"),
        ),
    ] {
        let shared = walked(&wrong, 13 * 60).await;
        let jars = ids(&get(&shared, "/api/towel").await[0]["jars"]);
        let holds = json!({"jars": jars, "verdict": "holds"});
        assert_eq!(put(&shared, "/api/seals", holds.clone()).await.0, 409);
        assert!([200, 204].contains(&put(&shared, path, right).await.0), "{path}");
        assert_eq!(get(&shared, "/api/towel").await[0]["says"][0]["bad"], false, "{path}");
        assert_eq!(put(&shared, "/api/seals", holds).await.0, 204);
        assert_eq!(get(&shared, "/api/counter").await["shelved"].as_u64().unwrap(), jars.len() as u64);
        let record = get(&shared, "/api/batches/1/record").await;
        let said = &record["corrections"][0];
        assert_eq!((&said["about"], &said["who"]), (&json!(about.0), &Value::Null));
        assert!(said["was"].as_str().unwrap().starts_with(about.1), "{said}");
        assert!(said["says"].as_str().unwrap().starts_with(about.2), "{said}");
    }
}

#[actix_web::test]
async fn what_nobody_can_tell_stands_on_the_shelf_with_its_question() {
    let (whole, _) = product("whole");
    let way = Way {
        additions: json!([{"what": "other", "name": "cocoa"}]),
        ..Way::of("cocoa", &whole, "no_tested_process", "plan", End::Never)
    };
    let shared = walked(&way, 13 * 60).await;
    let jars = ids(&get(&shared, "/api/towel").await[0]["jars"]);
    assert_eq!(put(&shared, "/api/seals", json!({"jars": jars, "verdict": "holds"})).await.0, 204);
    let shelf = get(&shared, "/api/shelf").await;
    assert_eq!((&shelf[0]["count"], &shelf[0]["open"]), (&json!(jars.len()), &json!("cocoa in it")));
    let query = format!("/api/labels?jars={}&shape=round&paper=a4&width_mm=60", jars[0]);
    let label = get(&shared, &query).await["pages"][0].as_str().unwrap().to_owned();
    assert!(label.contains("best before") && label.contains("not said: cocoa"), "{label}");
    let (_, csv) = fetch(&shared, Method::GET, "/api/jars.csv", String::new()).await;
    assert!(String::from_utf8(csv).unwrap().contains("cannot tell: cocoa in it"));
}

#[actix_web::test]
async fn moving_condemns_nothing_and_an_altitude_that_was_wrong_does() {
    let (plan, _) = product("crushed");
    let way = Way::of("crushed", &plan, "process_short", "shelf", End::Again);
    let shared = walked(&way, 13 * 60).await;
    let jars = ids(&get(&shared, "/api/towel").await[0]["jars"]);
    assert_eq!(put(&shared, "/api/seals", json!({"jars": jars, "verdict": "holds"})).await.0, 204);
    let shelved = || async { get(&shared, "/api/counter").await["shelved"].as_u64().unwrap() };
    assert_eq!(shelved().await, jars.len() as u64);
    // It is asked which of the two it is.
    let (status, problem) = patch(&shared, "/api/kitchen", json!({"altitude_ft": 6200})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("altitude_reason")), "{problem}");
    assert_eq!(get(&shared, "/api/kitchen").await["altitude_ft"], 2640.0, "what was told before stays");
    let say = |feet: i64, reason: &str| json!({"altitude_ft": feet, "altitude_reason": reason});
    assert_eq!(patch(&shared, "/api/kitchen", say(6200, "moved")).await.0, 200);
    assert_eq!(shelved().await, jars.len() as u64, "moving condemns nothing");
    assert_eq!(patch(&shared, "/api/kitchen", say(6300, "corrected")).await.0, 200);
    assert_eq!(shelved().await, jars.len() as u64, "nor does what was wrong about the new place");
    assert_eq!(patch(&shared, "/api/kitchen", say(2640, "moved")).await.0, 200);
    // Forty minutes were for 1,001 to 3,000 ft: at 4,000 the table asks for 45.
    assert_eq!(patch(&shared, "/api/kitchen", say(4000, "corrected")).await.0, 200);
    assert_eq!(shelved().await, 0);
    let towel = get(&shared, "/api/towel").await;
    assert_eq!(towel[0]["says"][0]["figure"]["word"], "Do not eat", "{towel}");
    let record = get(&shared, "/api/batches/1/record").await;
    assert_eq!(record["altitudes"].as_array().unwrap().len(), 4, "{record}");
    assert_eq!(patch(&shared, "/api/kitchen", say(2640, "corrected")).await.0, 200);
    assert_eq!(shelved().await, jars.len() as u64, "taken back, it was right all along");
}
