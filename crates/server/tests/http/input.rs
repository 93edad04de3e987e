//! What nobody should be able to write down: hidden marks, far days, bodies without end.

use actix_web::http::Method;
use serde_json::{Value, json};

use crate::common::{empty, fetch, lot, patch, post, send};

#[actix_web::test]
async fn names_stand_on_one_line_and_hide_nothing() {
    let shared = empty();
    for name in [
        "North\u{202E}kitchen",
        "North\nkitchen",
        "North\u{0}",
        "a\u{200F}b",
        "\u{FEFF}a",
        "tab\there",
        "a\u{2028}b",
    ] {
        let kettle = json!({"name": name, "inner_diameter_mm": 300, "depth_mm": 260, "heat": "burner"});
        let canner = json!({"name": name, "method": "boiling_water"});
        let container = json!({"name": name, "weight": {"value": 1, "unit": "lb"}});
        for (path, body) in
            [("/api/kettles", kettle), ("/api/canners", canner), ("/api/containers", container)]
        {
            let (status, problem) = post(&shared, path, body).await;
            assert_eq!(
                (status, problem["field"].as_str()),
                (422, Some("name")),
                "{path} {name:?}: {problem}"
            );
            assert!(problem["detail"].as_str().unwrap().contains("one line"), "{problem}");
        }
        let (status, problem) = patch(&shared, "/api/kitchen", json!({"name": name})).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some("name")), "{name:?}: {problem}");
    }
    // Letters of any script, and what joins them, are a name.
    for name in ["Küche 🍅", "ครัว", "👩\u{200D}🍳", "מטבח"] {
        assert_eq!(patch(&shared, "/api/kitchen", json!({"name": name})).await.0, 200, "{name}");
        assert_eq!(send(&shared, Method::GET, "/api/kitchen", String::new()).await.1["name"], name);
    }
}

#[actix_web::test]
async fn days_outside_a_cellars_depth_are_refused() {
    let shared = empty();
    let with_day = |day: &str| {
        let mut body: Value = serde_json::from_str(&lot("22")).unwrap();
        body["picked_on"] = json!(day);
        body
    };
    for day in ["1899-12-31", "0001-01-01", "2201-01-01"] {
        let (status, problem) = post(&shared, "/api/lots", with_day(day)).await;
        assert_eq!((status, problem["field"].as_str()), (422, Some("picked_on")), "{day}: {problem}");
    }
    assert_eq!(post(&shared, "/api/lots", with_day("1900-01-01")).await.0, 201);
    let log = "picked_on,kind,condition,fault,back_on,state,weight_kg\n2026-09-01,paste,unripe,,2301-01-01,fresh,3\n";
    let (status, problem) = send(&shared, Method::POST, "/api/harvest.csv", log.to_owned()).await;
    assert!(status == 422 && problem["detail"].as_str().unwrap().contains("line 2: 2301-01-01"), "{problem}");
}

#[actix_web::test]
async fn what_is_too_large_is_413_with_its_limit_and_a_whole_kitchen_is_not() {
    let shared = empty();
    let long = json!({"name": "x".repeat(300_000)}).to_string();
    let (status, problem) = send(&shared, Method::PATCH, "/api/kitchen", long).await;
    assert_eq!((status, &problem["code"]), (413, &json!("too_large")), "{problem}");
    assert!(problem["detail"].as_str().unwrap().contains("256 kB"), "{problem}");
    let log = "x".repeat(17 * 1024 * 1024);
    let (status, problem) = send(&shared, Method::POST, "/api/harvest.csv", log).await;
    assert!(status == 413 && problem["detail"].as_str().unwrap().contains("16 MB"), "{status} {problem}");

    // A harvest log of many seasons is larger than what a touch may be, and so is the document of it.
    let lines = "2026-09-01,paste,firm_ripe,,,fresh,3\n".repeat(6_000);
    let log = format!("picked_on,kind,condition,fault,back_on,state,weight_kg\n{lines}");
    assert_eq!(send(&shared, Method::POST, "/api/harvest.csv", log).await.1["lots"], 6_000);
    let (_, document) = fetch(&shared, Method::GET, "/api/export.json", String::new()).await;
    assert!(document.len() > 1_000_000, "{}", document.len());
    let other = empty();
    let text = String::from_utf8(document.clone()).unwrap();
    assert_eq!(send(&other, Method::POST, "/api/import.json", text).await.1["lots"], 6_000);
    assert_eq!(fetch(&other, Method::GET, "/api/export.json", String::new()).await.1, document);
}

#[actix_web::test]
async fn more_labels_than_are_drawn_at_once_are_refused_with_the_way_out() {
    let shared = empty();
    let many = (1..=401).map(|id| id.to_string()).collect::<Vec<_>>().join(",");
    let path = format!("/api/labels?jars={many}&shape=round&paper=a4&width_mm=60");
    let (status, problem) = send(&shared, Method::GET, &path, String::new()).await;
    assert_eq!((status, problem["field"].as_str()), (422, Some("jars")));
    assert!(
        problem["detail"].as_str().unwrap().contains("400 that are drawn at once; ask for them in parts"),
        "{problem}"
    );
}
