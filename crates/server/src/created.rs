//! The answer to a request that made something: 201, where it is, and what it is.

use actix_web::http::header::LOCATION;
use actix_web::{HttpRequest, HttpResponse, Responder};
use serde::Serialize;

/// Something that was made.
#[derive(Debug)]
pub struct Created<T> {
    /// Address of it.
    pub at: String,
    /// What was made.
    pub body: T,
}

impl<T: Serialize> Responder for Created<T> {
    type Body = actix_web::body::BoxBody;

    fn respond_to(self, _: &HttpRequest) -> HttpResponse {
        HttpResponse::Created().insert_header((LOCATION, self.at)).json(self.body)
    }
}
