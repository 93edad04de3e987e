//! From the towel to the table over HTTP: labels, open formats, next season. The calendar and the CSV are read back by
//! parsers that did not write them: `ical` and `simd-csv`; the codes on labels by `rqrr`.

use std::sync::Arc;

use actix_web::http::Method;
use actix_web::web;
use bodega::admission::Reach;
use bodega::clock::Clock;
use bodega::state::Shared;
use bodega_core::jars::bench::JarStep;
use bodega_model::measures::ids::LoadId;
use bodega_store::Store;
use serde_json::{Value, json};

use crate::common::{empty, fetch, lot, post, send};

async fn put(shared: &web::Data<Shared>, path: &str, body: Value) -> (u16, Value) {
    send(shared, Method::PUT, path, body.to_string()).await
}

async fn get(shared: &web::Data<Shared>, path: &str) -> Value {
    send(shared, Method::GET, path, String::new()).await.1
}

async fn text(shared: &web::Data<Shared>, path: &str) -> String {
    String::from_utf8(fetch(shared, Method::GET, path, String::new()).await.1).unwrap()
}

/// A kitchen with seven quarts on the towel, lifted twelve hours ago; the kitchen counts to three minutes for the test.
async fn with_towel() -> web::Data<Shared> {
    towel_in(empty()).await
}

async fn towel_in(shared: web::Data<Shared>) -> web::Data<Shared> {
    send(&shared, Method::POST, "/api/lots", lot("22")).await;
    send(&shared, Method::PATCH, "/api/kitchen", r#"{"altitude_ft": 500}"#.to_owned()).await;
    let plan = json!({"product": "whole", "medium": "water", "pack": "raw", "thickness": null, "jar": "quart",
        "jars": null, "agent": "citric_acid", "lots": [1]});
    post(&shared, "/api/batches", plan).await;
    let store = &shared.store;
    let now = shared.clock.now();
    store.tick_load(LoadId(1), JarStep::Acid, now).unwrap();
    store.tick_load(LoadId(1), JarStep::Lid, now).unwrap();
    use bodega_model::canner::events::BoilEvent::{Boils, HeatOff, Lifted};
    for (event, ago) in [(Boils, 13 * 60), (HeatOff, 12 * 60 + 10), (Lifted, 12 * 60)] {
        store.add_event(LoadId(1), event, now.plus_minutes(-ago)).unwrap();
    }
    shared
}

#[actix_web::test]
async fn lids_are_judged_rescued_and_shelved_in_words() {
    let shared = with_towel().await;
    assert_eq!(put(&shared, "/api/seals", json!({"jars": [1, 2, 3, 4, 5], "verdict": "holds"})).await.0, 204);
    put(&shared, "/api/seals", json!({"jars": [6, 7], "verdict": "doubtful"})).await;
    let ways = get(&shared, "/api/towel").await[0]["ways_out"].clone();
    assert_eq!((&ways[0]["jars"], &ways[1]["jars"]), (&json!([6]), &json!([7])));
    let (_, problem) = put(&shared, "/api/rescues", json!({"jars": [1], "rescue": "freezer"})).await;
    assert_eq!(problem["code"], "not_failed");
    assert_eq!(put(&shared, "/api/rescues", json!({"jars": [6], "rescue": "refrigerator"})).await.0, 204);
    assert_eq!(put(&shared, "/api/rescues", json!({"jars": [7], "rescue": "reprocess"})).await.0, 204);
    assert_eq!(get(&shared, "/api/cold").await["jars"][0]["number"], 6);
    let bench = get(&shared, "/api/loads").await;
    assert_eq!((&bench[0]["jars"][0]["number"], &bench[0]["minutes"]), (&json!(7), &json!(45)));
    put(&shared, "/api/rings", json!({"jars": [1, 2, 3, 4, 5], "done": true})).await;
    assert_eq!(get(&shared, "/api/towel").await, json!([]));
    assert_eq!(get(&shared, "/api/shelf?code=nothing").await, json!([]));
    assert_eq!(get(&shared, "/api/shelf?product=whole").await[0]["count"], 5);
    assert_eq!(send(&shared, Method::GET, "/api/shelf?year=20", String::new()).await.0, 422);
    let (status, problem) = put(&shared, "/api/seals", json!({"jars": [1], "verdict": "sort of"})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("verdict")));
}

#[actix_web::test]
async fn eating_moves_the_forecast_and_a_spoiled_jar_names_its_sisters() {
    let shared = with_towel().await;
    put(&shared, "/api/seals", json!({"jars": [1, 2, 3, 4, 5, 6, 7], "verdict": "holds"})).await;
    let before = get(&shared, "/api/pantry").await;
    assert_eq!((&before["lines"][0]["runs_out"], &before["plants"]), (&Value::Null, &json!(0)));
    let take = json!({"batch": 1, "size": "quart", "how": "eaten"});
    let (_, left) = post(&shared, "/api/departures", take).await;
    assert_eq!((&left["jar"]["number"], &left["sisters"]), (&json!(1), &json!([])));
    // One in the first month: twelve for a season, less the six that stand there.
    let after = get(&shared, "/api/pantry").await;
    assert_eq!((&after["lines"][0]["next_season"], &after["lines"][0]["on_shelf"]), (&json!(12), &json!(6)));
    assert!(after["lines"][0]["runs_out"].is_i64() && after["plants"].as_u64().unwrap() > 0, "{after}");
    assert_eq!(send(&shared, Method::PUT, "/api/goals/pantry", String::new()).await.0, 204);
    assert_eq!(get(&shared, "/api/goals").await[0]["count"], 6);

    let (status, problem) = post(&shared, "/api/departures", json!({"jar": 2, "how": "discarded"})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("why")));
    let (_, bad) =
        post(&shared, "/api/departures", json!({"jar": 2, "how": "discarded", "why": "bulge"})).await;
    assert_eq!(bad["sisters"].as_array().unwrap().len(), 6);
    let card = get(&shared, "/api/jars/3").await;
    assert_eq!(card["recalled"], true);
    assert!(
        card["before_opening"]
            .as_array()
            .unwrap()
            .iter()
            .any(|line| line.as_str().unwrap().contains("do not taste"))
    );
    assert_eq!(
        send(&shared, Method::DELETE, "/api/jars/2/departure", String::new()).await.1["gone_at"],
        Value::Null
    );
    assert_eq!(get(&shared, "/api/jars/3").await["recalled"], false);
}

#[actix_web::test]
async fn labels_lie_on_the_sheet_to_the_millimetre_and_come_as_pdf() {
    let shared = with_towel().await;
    let query = "jars=1,2,3&shape=round&paper=a4&width_mm=60&gap_mm=5&start=11";
    let pages = get(&shared, &format!("/api/labels?{query}")).await;
    assert_eq!((&pages["columns"], &pages["rows"]), (&json!(3), &json!(4)));
    let svgs = pages["pages"].as_array().unwrap();
    assert_eq!(svgs.len(), 2, "two on what is left of the sheet, one on the next");
    let first = svgs[0].as_str().unwrap();
    assert!(
        first.contains("width=\"210mm\" height=\"297mm\"") && first.contains("translate(75.000 216.000)"),
        "{first}"
    );
    assert!(
        first.contains("Whole tomatoes") && first.contains("citric acid") && first.contains("best before")
    );
    let (status, bytes) =
        fetch(&shared, Method::GET, &format!("/api/labels.pdf?{query}"), String::new()).await;
    let document = lopdf::Document::load_mem(&bytes).unwrap();
    assert_eq!((status, document.get_pages().len()), (200, 2));
    let page = document.get_object(document.get_pages()[&1]).unwrap().as_dict().unwrap();
    let size = page.get(b"MediaBox").unwrap().as_array().unwrap();
    let width = size[2].as_float().unwrap();
    assert!((f64::from(width) - 210.0 * 72.0 / 25.4).abs() < 0.1, "{width} pt");
    // Another program reads the words out of it.
    let words = document.extract_text(&[1]).unwrap();
    for wanted in ["Whole tomatoes", "citric acid", "best before", "Our kitchen"] {
        assert!(words.contains(wanted), "{wanted} is not in {words}");
    }
    for (query, field) in [
        ("jars=1&shape=round&paper=a4&width_mm=5", "width_mm"),
        ("jars=one&shape=round&paper=a4&width_mm=60", "jars"),
        ("jars=1&shape=round&paper=a4&width_mm=60&start=0", "start"),
    ] {
        let (status, problem) =
            send(&shared, Method::GET, &format!("/api/labels?{query}"), String::new()).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some(field)), "{query}");
    }
}

/// What a camera reads in the first QR code of a drawing: its dark modules are squares of one path.
fn read_code(svg: &str) -> String {
    let path = svg.split("<path d=\"").nth(1).unwrap().split('"').next().unwrap();
    let numbers = |text: &str| -> Vec<f64> {
        let parts = text.split(|letter: char| !letter.is_ascii_digit() && letter != '.');
        parts.filter_map(|part| part.parse().ok()).collect()
    };
    let squares: Vec<Vec<f64>> = path.split('M').skip(1).map(numbers).collect();
    let module = squares[0][2];
    let least = |axis: usize| squares.iter().map(|square| square[axis]).fold(f64::MAX, f64::min);
    let (left, top) = (least(0), least(1));
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few dozen modules")]
    let place = |at: f64, from: f64| ((at - from) / module).round() as usize;
    let dark: Vec<(usize, usize)> =
        squares.iter().map(|square| (place(square[0], left), place(square[1], top))).collect();
    const QUIET: usize = 4;
    const PIXELS: usize = 4;
    let side = (dark.iter().map(|(x, _)| x).max().unwrap() + 1 + 2 * QUIET) * PIXELS;
    let mut image = rqrr::PreparedImage::prepare_from_greyscale(side, side, |x, y| {
        let (x, y) = ((x / PIXELS).wrapping_sub(QUIET), (y / PIXELS).wrapping_sub(QUIET));
        if dark.contains(&(x, y)) { 0 } else { 255 }
    });
    image.detect_grids()[0].decode().unwrap().1
}

#[actix_web::test]
async fn a_label_carries_the_address_that_other_devices_reach_and_the_jars_number() {
    let mut shared = Shared::new(Store::in_memory().unwrap(), Clock::wall());
    shared.network.reach = Some(Reach {
        url: "https://pantry.local:4731".to_owned(),
        urls: Vec::new(),
        help: String::new(),
        fingerprint: String::new(),
    });
    let shared = towel_in(web::Data::from(Arc::new(shared))).await;
    let alone = with_towel().await;
    for shape in ["round&width_mm=60", "rectangle&width_mm=60&height_mm=35"] {
        let path = format!("/api/labels?jars=3&paper=a4&shape={shape}");
        let drawn = |pages: Value| pages["pages"][0].as_str().unwrap().to_owned();
        let label = drawn(get(&shared, &path).await);
        assert_eq!(read_code(&label), "https://pantry.local:4731/jar/3");
        assert!(label.contains(">jar 3</text>"), "{label}");
        // Alone, it is the address that is asked.
        assert_eq!(read_code(&drawn(get(&alone, &path).await)), "http://localhost:8080/jar/3");
    }
}

#[actix_web::test]
async fn the_calendar_and_the_csv_are_read_by_others() {
    let shared = with_towel().await;
    put(&shared, "/api/seals", json!({"jars": [1, 2], "verdict": "holds"})).await;
    let unripe = lot("3").replace("firm_ripe", "unripe");
    send(&shared, Method::POST, "/api/lots", unripe).await;
    let calendar = text(&shared, "/api/calendar.ics").await;
    let parsed = ical::IcalParser::new(calendar.as_bytes()).next().unwrap().unwrap();
    let value = |event: &ical::parser::ical::component::IcalEvent, name: &str| {
        event
            .properties
            .iter()
            .find(|property| property.name == name)
            .and_then(|property| property.value.clone())
    };
    let uids: Vec<String> = parsed.events.iter().map(|event| value(event, "UID").unwrap()).collect();
    assert_eq!(uids.len(), 3, "{calendar}");
    assert!(uids[0].starts_with("lids-") && uids[1].starts_with("sill-") && uids[2].starts_with("best-"));
    assert!(
        parsed
            .events
            .iter()
            .all(|event| value(event, "DTSTART").is_some() && value(event, "DTSTAMP").is_some())
    );

    for (path, lines) in [("/api/jars.csv", 7), ("/api/batches.csv", 1)] {
        let csv = text(&shared, path).await;
        let mut reader = simd_csv::Reader::from_reader(csv.as_bytes());
        let columns = reader.byte_headers().unwrap().len();
        let records: Vec<_> = reader.byte_records().collect::<Result<_, _>>().unwrap();
        assert_eq!(records.len(), lines, "{csv}");
        assert!(records.iter().all(|record| record.len() == columns));
    }
}

#[actix_web::test]
async fn everything_goes_out_and_comes_back_the_same_or_not_at_all() {
    let shared = with_towel().await;
    post(&shared, "/api/batches/1/ph", json!({"ph": 4.2, "sample_c": 25, "calibrated_today": true})).await;
    let told =
        json!({"food": "thin_juice", "place": "refrigerator", "told": {"amount": 2, "measure": "quart"}});
    assert_eq!(post(&shared, "/api/batches/1/moves", told).await.0, 201);
    let out = text(&shared, "/api/export.json").await;
    let other = empty();
    let (status, taken) = send(&other, Method::POST, "/api/import.json", out.clone()).await;
    assert_eq!((status, &taken["batches"]), (200, &json!(1)));
    assert_eq!(text(&other, "/api/export.json").await, out);
    let (status, problem) = send(&other, Method::POST, "/api/import.json", out.clone()).await;
    assert_eq!((status, &problem["code"]), (409, &json!("not_empty")));
    let third = empty();
    let bad = out.replace("\"quart\"", "\"bucket\"");
    let (status, problem) = send(&third, Method::POST, "/api/import.json", bad).await;
    assert_eq!((status, &problem["code"]), (422, &json!("bad_document")));
    assert!(third.store.is_empty().unwrap());
}

#[actix_web::test]
async fn the_books_of_a_batch_balance_to_what_was_said_and_a_wrong_amount_is_noticed() {
    let shared = with_towel().await;
    let books = async || get(&shared, "/api/batches/1/record").await["balance"].clone();
    let sum = |books: &Value| {
        let parts = books["parts"].as_array().unwrap().iter().map(|part| part["grams"].as_f64().unwrap());
        parts.sum::<f64>() + books["remainder_g"].as_f64().unwrap() - books["came_in_g"].as_f64().unwrap()
    };
    // Twenty-two pounds for seven quarts of whole tomatoes: as published (USDA Guide 3, 21 lb, from memory).
    let first = books().await;
    assert_eq!(
        (&first["verdict"], first["came_in_g"].as_f64().unwrap().round()),
        (&json!("adds_up"), 9979.0)
    );
    assert!(sum(&first).abs() < 1e-6, "{first}");
    let told = |food: &str, place: &str, amount: f64| json!({"food": food, "place": place, "told": {"amount": amount, "measure": "pint"}});
    let (status, record) = post(&shared, "/api/batches/1/moves", told("thin_juice", "table", 2.0)).await;
    let part = record["balance"]["parts"][1].clone();
    assert_eq!(
        (status, &part["words"], &part["told"]),
        (201, &json!("thin juice, dinner"), &json!("2 pints"))
    );
    assert!(sum(&record["balance"]).abs() < 1e-6);
    assert_eq!(record["balance"]["verdict"], "adds_up");
    // A slip of the finger: twenty pints out of that fruit.
    let (_, record) = post(&shared, "/api/batches/1/moves", told("product", "freezer", 20.0)).await;
    assert_eq!(record["balance"]["verdict"], "too_much", "{record}");
    assert!(record["balance"]["remainder_g"].as_f64().unwrap() < 0.0);
    let wrong = record["balance"]["parts"][2]["id"].clone();
    let path = format!("/api/moves/{wrong}");
    assert_eq!(send(&shared, Method::DELETE, &path, String::new()).await.0, 204);
    assert_eq!(send(&shared, Method::DELETE, &path, String::new()).await.0, 404, "once");
    assert_eq!(books().await["verdict"], "adds_up");
    let (status, problem) = post(&shared, "/api/batches/1/moves", told("product", "freezer", 0.0)).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("told.amount")));
    assert_eq!(post(&shared, "/api/batches/9/moves", told("product", "freezer", 1.0)).await.0, 404);
    // What else is in it says nothing of the fruit.
    let onion = json!({"additions": [{"what": "onion", "cups": 1}]});
    put(&shared, "/api/batches/1/additions", onion).await;
    assert_eq!(books().await["verdict"], "cannot_tell");
}

#[actix_web::test]
async fn the_record_tells_a_batch_from_the_fruit_to_the_shelf() {
    let shared = with_towel().await;
    let (_, high) = post(&shared, "/api/batches/1/ph", json!({"ph": 4.7})).await;
    assert_eq!(high["ph"][0]["findings"][0]["code"], "ph_high");
    let record = get(&shared, "/api/batches/1/record").await;
    assert_eq!(
        (&record["fruit"][0]["weight_g"], &record["loads"][0]["processed"]),
        (&json!(9979), &json!(true))
    );
    assert_eq!(record["jars"].as_array().unwrap().len(), 7);
    let recipe = get(&shared, "/api/batches/1/recipe.jsonld").await;
    assert_eq!((&recipe["@context"], &recipe["@type"]), (&json!("https://schema.org"), &json!("Recipe")));
    assert!(recipe["recipeInstructions"].as_array().unwrap().len() > 5);
    assert_eq!(send(&shared, Method::GET, "/api/batches/9/record", String::new()).await.0, 404);
    let (status, problem) = post(&shared, "/api/batches/1/ph", json!({"ph": 40})).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("ph")));
}
