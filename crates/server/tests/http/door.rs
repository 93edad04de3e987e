//! Who may speak to the kitchen, and what every answer tells a browser.

use actix_web::http::Method;
use actix_web::middleware::from_fn;
use actix_web::test::{self, TestRequest};
use actix_web::{App, web};
use bodega::door::{Names, guard, headers};
use bodega::routes::routes;
use bodega::state::Shared;
use serde_json::{Value, json};

use crate::common::{empty, lot, send};

const OURS: &str = "127.0.0.1:4801";

/// Status, headers and body of one request through the door.
async fn ask(shared: &web::Data<Shared>, request: TestRequest) -> (u16, Vec<(String, String)>, Value) {
    let app = App::new()
        .app_data(shared.clone())
        .app_data(web::ThinData(Names::of_loopback(OURS.parse().unwrap())))
        .wrap(from_fn(guard))
        .wrap(headers())
        .configure(routes);
    let response = test::call_service(&test::init_service(app).await, request.to_request()).await;
    let status = response.status().as_u16();
    let told = response.headers().iter();
    let told = told.map(|(name, value)| (name.to_string(), value.to_str().unwrap().to_owned())).collect();
    (status, told, serde_json::from_slice(&test::read_body(response).await).unwrap_or(Value::Null))
}

fn weigh_in(host: &str) -> TestRequest {
    TestRequest::post().uri("/api/lots").insert_header(("Host", host)).set_payload(lot("22"))
}

fn as_json(request: TestRequest) -> TestRequest {
    request.insert_header(("Content-Type", "application/json"))
}

async fn lots(shared: &web::Data<Shared>) -> usize {
    send(shared, Method::GET, "/api/lots", String::new()).await.1.as_array().unwrap().len()
}

#[actix_web::test]
async fn only_a_page_of_this_kitchen_under_its_own_name_changes_it() {
    let shared = empty();
    for host in [OURS, "localhost:4801", "LOCALHOST:4801", "[::1]:4801"] {
        assert_eq!(ask(&shared, as_json(weigh_in(host))).await.0, 201, "{host}");
    }
    let own = [("Origin", "http://localhost:4801"), ("Sec-Fetch-Site", "same-origin")];
    let by_a_page = own.into_iter().fold(as_json(weigh_in(OURS)), TestRequest::insert_header);
    assert_eq!(ask(&shared, by_a_page).await.0, 201);
    assert_eq!(lots(&shared).await, 5);
    // A name that another's name server points here, another port, no port.
    for host in ["kitchen.example:4801", "127.0.0.1:80", "127.0.0.1", "127.0.0.1:4801.example", ""] {
        let (status, _, problem) = ask(&shared, as_json(weigh_in(host))).await;
        assert_eq!((status, problem["code"].as_str()), (421, Some("misdirected")), "{host}");
        let read = TestRequest::get().uri("/api/lots").insert_header(("Host", host));
        assert_eq!(ask(&shared, read).await.0, 421, "nor is anything read under {host}");
    }
    for (name, value) in [
        ("Origin", "http://elsewhere.example"),
        ("Origin", "https://127.0.0.1:4801"),
        ("Origin", "http://127.0.0.1:4802"),
        ("Origin", "null"),
        ("Sec-Fetch-Site", "cross-site"),
        ("Sec-Fetch-Site", "same-site"),
    ] {
        let (status, _, problem) = ask(&shared, as_json(weigh_in(OURS)).insert_header((name, value))).await;
        assert_eq!((status, problem["code"].as_str()), (403, Some("other_site")), "{name}: {value}");
    }
    // What a form of another site can send without asking.
    for kind in ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x"] {
        let (status, _, problem) = ask(&shared, weigh_in(OURS).insert_header(("Content-Type", kind))).await;
        assert_eq!((status, problem["code"].as_str()), (415, Some("not_json_type")), "{kind}");
    }
    let log = |kind: &'static str| {
        let file = TestRequest::post().uri("/api/harvest.csv").insert_header(("Host", OURS));
        file.insert_header(("Content-Type", kind))
    };
    assert_eq!(ask(&shared, log("text/plain").set_payload("picked_on\n")).await.0, 415);
    assert_eq!(lots(&shared).await, 5, "nothing came in");
    // A file of this kitchen's own page is a file: what is wrong with it is said by whoever reads it.
    let (_, csv) = crate::common::fetch(&shared, Method::GET, "/api/harvest.csv", String::new()).await;
    let (status, _, problem) = ask(&shared, log("text/csv").set_payload(csv)).await;
    assert_eq!(status, 200, "{problem}");
    assert_eq!(lots(&shared).await, 10);
}

#[actix_web::test]
async fn every_answer_says_what_a_browser_may_do_with_it() {
    let shared = empty();
    for (path, status) in [("/", None), ("/api/counter", Some(200)), ("/api/nothing", Some(404))] {
        let (found, told, _) = ask(&shared, TestRequest::get().uri(path).insert_header(("Host", OURS))).await;
        assert!(status.is_none_or(|status| status == found), "{path}: {found}");
        let said =
            |name: &str| told.iter().find(|(header, _)| header == name).map(|(_, value)| value.as_str());
        let policy = said("content-security-policy").unwrap();
        assert!(
            policy.contains("default-src 'none'") && policy.contains("frame-ancestors 'none'"),
            "{policy}"
        );
        let scripts = policy.split(';').find(|part| part.contains("script-src")).unwrap();
        assert_eq!(scripts.trim(), "script-src 'self'", "no script stands in a page");
        assert_eq!(said("x-content-type-options"), Some("nosniff"), "{path}");
        assert_eq!((said("x-frame-options"), said("referrer-policy")), (Some("DENY"), Some("no-referrer")));
    }
    let (_, told, _) = ask(&shared, weigh_in("kitchen.example:4801")).await;
    assert!(told.iter().any(|(header, _)| header == "x-content-type-options"), "a refusal too");
}

#[actix_web::test]
async fn an_address_says_which_methods_it_takes() {
    let shared = empty();
    for (method, path, status, allow) in [
        (Method::DELETE, "/api/lots", 405, Some("GET, POST")),
        (Method::GET, "/api/compute/acid", 405, Some("POST")),
        (Method::POST, "/api/lots/1/nothing", 404, None),
        (Method::GET, "/api", 404, None),
        (Method::POST, "/kitchen", 405, Some("GET, HEAD")),
        (Method::DELETE, "/", 405, Some("GET, HEAD")),
    ] {
        let request = TestRequest::default().method(method.clone()).uri(path).insert_header(("Host", OURS));
        let (found, told, problem) = ask(&shared, request).await;
        assert_eq!(found, status, "{method} {path}: {problem}");
        let said = told.iter().find(|(header, _)| header == "allow").map(|(_, value)| value.as_str());
        assert_eq!(said, allow, "{method} {path}");
        assert_eq!(problem["status"], json!(status), "a problem like any other");
    }
}
