//! Bad input is answered in words that name the field, and nothing of it is stored.

use std::sync::Arc;

use actix_web::{App, test, web};
use bodega::app::{Shared, routes};
use bodega::clock::Clock;
use bodega_store::Store;

#[actix_web::test]
async fn bad_input_names_the_field_and_stores_nothing() {
    let shared = web::Data::from(Arc::new(Shared::new(Store::in_memory().unwrap(), Clock::wall())));
    let app = test::init_service(App::new().app_data(shared.clone()).configure(routes)).await;
    let lot = |value: &str| {
        format!(
            r#"{{"amount":{{"weighed":{{"value":{value},"unit":"lb"}}}},"kind":"paste","condition":"firm_ripe"}}"#
        )
    };
    for (path, body, status, field) in [
        ("/api/lots", lot("-3"), 422, Some("amount.weighed.value")),
        ("/api/lots", lot("1e9"), 422, Some("amount.weighed.value")),
        ("/api/lots", lot("NaN"), 400, None),
        ("/api/lots", r#"{"amount""#.to_owned(), 400, None),
        (
            "/api/compute/acid",
            r#"{"agent":"citric_acid","jars":[{"jar":"bucket","count":1}]}"#.to_owned(),
            422,
            Some("jars[0].jar"),
        ),
    ] {
        let request = test::TestRequest::post().uri(path).set_payload(body.clone()).to_request();
        let response = test::call_service(&app, request).await;
        assert_eq!(response.status().as_u16(), status, "{body}");
        let problem: serde_json::Value = test::read_body_json(response).await;
        assert_eq!(problem["field"].as_str(), field, "{problem}");
    }
    assert!(shared.store.lots().unwrap().is_empty());
}
