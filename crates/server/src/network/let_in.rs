//! Whoever comes from the network has been let in, or asks to be.

use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::middleware::Next;
use actix_web::{Error, HttpMessage, HttpRequest, ResponseError, web};

use crate::admission::devices::STAYS_DAYS;
use crate::door::routed_path;
use crate::problem::ApiError;
use crate::state::{Shared, off_thread};

/// The cookie that carries a device's token; its prefix ties it to this host and to HTTPS.
const COOKIE: &str = "__Host-bodega";

/// Which device asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Asking(pub u32);

/// The cookie of a device that was let in.
#[must_use]
pub fn cookie(token: &str) -> String {
    let seconds = STAYS_DAYS * 24 * 60 * 60;
    format!("{COOKIE}={token}; Path=/; Max-Age={seconds}; Secure; HttpOnly; SameSite=Strict")
}

/// The cookie of one that is signed out.
#[must_use]
pub fn no_cookie() -> String {
    format!("{COOKIE}=; Path=/; Max-Age=0; Secure; HttpOnly; SameSite=Strict")
}

/// Whether an address says nothing of the kitchen: the program's own pages, and asking to be let in.
fn is_open(request: &ServiceRequest) -> bool {
    let path = routed_path(request);
    let is_api = path == "/api" || path.starts_with("/api/");
    !is_api || (path == "/api/devices" && *request.method() == Method::POST)
}

/// Lets the devices in that were let in before; others get [`ApiError::NotLetIn`]. This machine itself asks without a key.
///
/// # Errors
/// What the routes behind it fail with.
pub async fn guard<B: MessageBody>(
    shared: web::Data<Shared>,
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, Error> {
    if !request.app_config().secure() {
        return Ok(next.call(request).await?.map_into_left_body());
    }
    let token = request.cookie(COOKIE).map(|cookie| cookie.value().to_owned());
    let device = match token {
        Some(token) => off_thread(move || shared.network.devices.seen(&token, shared.clock.now())).await?,
        None => None,
    };
    if let Some(device) = device {
        request.extensions_mut().insert(Asking(device));
    } else if !is_open(&request) {
        return Ok(request.into_response(ApiError::NotLetIn.error_response()).map_into_right_body());
    }
    Ok(next.call(request).await?.map_into_left_body())
}

/// Which device asks; `None` for this machine itself.
#[must_use]
pub fn asking(request: &HttpRequest) -> Option<Asking> {
    request.extensions().get::<Asking>().copied()
}
