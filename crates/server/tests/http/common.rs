//! An empty kitchen in memory and how to ask it, for every test of the HTTP edge.

use std::sync::Arc;

use actix_web::http::Method;
use actix_web::{App, test, web};
use bodega::age::HEADER;
use bodega::clock::Clock;
use bodega::routes::routes;
use bodega::state::Shared;
use bodega::state::day_search::Search;
use bodega_core::day::{Budget, Limits};
use bodega_store::Store;
use serde_json::Value;

/// Sends one request to an app of its own over this store; gives the status and the body as it is.
pub async fn fetch(shared: &web::Data<Shared>, method: Method, path: &str, body: String) -> (u16, Vec<u8>) {
    let app = test::init_service(App::new().app_data(shared.clone()).configure(routes)).await;
    let request = test::TestRequest::default().method(method).uri(path).set_payload(body).to_request();
    let response = test::call_service(&app, request).await;
    let status = response.status().as_u16();
    (status, test::read_body(response).await.to_vec())
}

/// Sends one request; gives the status and the body as JSON, null when it is not.
pub async fn send(shared: &web::Data<Shared>, method: Method, path: &str, body: String) -> (u16, Value) {
    let (status, bytes) = fetch(shared, method, path, body).await;
    (status, serde_json::from_slice(&bytes).unwrap_or(Value::Null))
}

pub async fn post(shared: &web::Data<Shared>, path: &str, body: Value) -> (u16, Value) {
    send(shared, Method::POST, path, body.to_string()).await
}

/// Sends a touch that a page kept for so many milliseconds.
pub async fn late(shared: &web::Data<Shared>, path: &str, body: Value, age_ms: &str) -> (u16, Value) {
    let app = test::init_service(App::new().app_data(shared.clone()).configure(routes)).await;
    let request = test::TestRequest::post().uri(path).insert_header((HEADER, age_ms)).set_json(body);
    let response = test::call_service(&app, request.to_request()).await;
    let status = response.status().as_u16();
    (status, serde_json::from_slice(&test::read_body(response).await).unwrap_or(Value::Null))
}

/// Puts something that a page kept for so many milliseconds; gives the status.
pub async fn late_put(shared: &web::Data<Shared>, path: &str, body: Value, age_ms: i64) -> u16 {
    let app = test::init_service(App::new().app_data(shared.clone()).configure(routes)).await;
    let request =
        test::TestRequest::put().uri(path).insert_header((HEADER, age_ms.to_string())).set_json(body);
    test::call_service(&app, request.to_request()).await.status().as_u16()
}

pub async fn put(shared: &web::Data<Shared>, path: &str, body: Value) -> (u16, Value) {
    send(shared, Method::PUT, path, body.to_string()).await
}

pub async fn patch(shared: &web::Data<Shared>, path: &str, body: Value) -> (u16, Value) {
    send(shared, Method::PATCH, path, body.to_string()).await
}

/// A kitchen whose days are searched for by steps of the solver, so that no answer hangs on the machine's speed.
pub fn kitchen(store: Store, clock: Clock) -> web::Data<Shared> {
    const STEPS: Budget = Budget::Steps(100_000);
    let mut shared = Shared::new(store, clock);
    shared.search = Search { strip: Limits { length: STEPS, waiting: STEPS }, way: STEPS };
    web::Data::from(Arc::new(shared))
}

pub fn empty() -> web::Data<Shared> {
    kitchen(Store::in_memory().unwrap(), Clock::wall())
}

pub fn lot(value: &str) -> String {
    format!(
        r#"{{"amount":{{"weighed":{{"value":{value},"unit":"lb"}}}},"kind":"paste","condition":"firm_ripe"}}"#
    )
}
