//! A JSON body that, when it is wrong, says which field and what would do.

use std::future::Future;
use std::pin::Pin;

use actix_web::dev::Payload;
use actix_web::http::StatusCode;
use actix_web::{FromRequest, HttpRequest, web};
use serde::de::DeserializeOwned;

use crate::problem::ApiError;

/// The largest body of a question or a touch, in bytes.
pub const BODY_MOST: usize = 256 * 1024;
/// The same, as a person reads it.
pub const BODY_MOST_SAID: &str = "256 kB";

/// A decoded body.
pub struct Json<T>(pub T);

/// Why a body could not be read.
pub(crate) fn not_read(error: &actix_web::Error) -> ApiError {
    if error.as_response_error().status_code() == StatusCode::PAYLOAD_TOO_LARGE {
        return ApiError::TooLarge { most: BODY_MOST_SAID };
    }
    ApiError::NotJson(error.to_string())
}

impl<T: DeserializeOwned + 'static> FromRequest for Json<T> {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let bytes = web::Bytes::from_request(request, payload);
        Box::pin(async move {
            let bytes = bytes.await.map_err(|error| not_read(&error))?;
            decode(&bytes).map(Json)
        })
    }
}

fn decode<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, ApiError> {
    // Nearly every body is right; only of one that is not is it asked where.
    if let Ok(value) = serde_json::from_slice(bytes) {
        return Ok(value);
    }
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let path = error.path().to_string();
        let inner = error.into_inner();
        if inner.is_data() {
            about_field(&path, &inner.to_string())
        } else {
            ApiError::NotJson(inner.to_string())
        }
    })?;
    reader.end().map_err(|error| ApiError::NotJson(error.to_string()))?;
    Ok(value)
}

/// Serde tells a missing field only in the message, with the path of its parent.
fn about_field(path: &str, message: &str) -> ApiError {
    let text = message.split(" at line ").next().unwrap_or(message);
    let text = &text
        .replace("expected u32", "give a whole number, 0 or more")
        .replace("expected f64", "give a number");
    let parent = if path == "." { "" } else { path };
    if let Some((name, others)) = text.strip_prefix("unknown field `").and_then(|rest| rest.split_once('`')) {
        let field = match parent {
            "" => name.to_owned(),
            // The path may end at the field or at what it stands in.
            within if within == name || within.ends_with(&format!(".{name}")) => within.to_owned(),
            within => format!("{within}.{name}"),
        };
        let known = others.trim_start_matches(", expected ").replace('`', "");
        return ApiError::field(field, format!("{name} is not known here; use {known}"));
    }
    let missing = text.strip_prefix("missing field `").and_then(|rest| rest.strip_suffix('`'));
    match missing {
        Some(name) => {
            let field = if parent.is_empty() { name.to_owned() } else { format!("{parent}.{name}") };
            ApiError::field(field, format!("{name} is missing; give it"))
        }
        None if parent.is_empty() => ApiError::field("body", text),
        None => ApiError::field(parent, text),
    }
}
