//! Who may speak to the kitchen: a page of its own, under a name of its own.
//!
//! A browser lets any page of the world send requests to this machine. Whoever asks under another name may have been led
//! here by a name server (421); whoever writes from another site's page is not one of ours (403), and a form of another
//! site can send neither JSON nor CSV (415). Sources: RFC 9110 sections 7.2 and 15.5.20, Fetch Metadata (W3C), from memory.

use std::net::SocketAddr;

use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::http::header::{CONTENT_LENGTH, CONTENT_TYPE, HOST, HeaderName, ORIGIN, TRANSFER_ENCODING};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{Error, ResponseError, web};

use crate::problem::ApiError;

/// The names that the server goes by, with their ports.
#[derive(Debug, Clone)]
pub struct Names {
    /// Those of plain http.
    hosts: Vec<String>,
    /// Those of HTTPS.
    secure: Vec<String>,
}

impl Names {
    /// Those of a server that only this machine reaches.
    #[must_use]
    pub fn of_loopback(address: SocketAddr) -> Self {
        let port = address.port();
        let names = ["localhost", "127.0.0.1", "[::1]"];
        let with_port = names.iter().map(|name| format!("{name}:{port}"));
        // A browser leaves the usual port out.
        let without = names.iter().filter(|_| port == 80).map(ToString::to_string);
        Self { hosts: with_port.chain(without).collect(), secure: Vec::new() }
    }

    /// Those that it was told, under plain http.
    #[must_use]
    pub const fn of_plain(hosts: Vec<String>) -> Self {
        Self { hosts, secure: Vec::new() }
    }

    /// And those that the home network reaches over HTTPS, with their ports.
    #[must_use]
    pub fn and_secure(mut self, hosts: Vec<String>) -> Self {
        // A browser leaves the usual port out.
        let without =
            hosts.iter().filter_map(|host| host.strip_suffix(":443")).map(str::to_owned).collect::<Vec<_>>();
        self.secure = hosts.into_iter().chain(without).collect();
        self
    }

    fn has(&self, host: &str, secure: bool) -> bool {
        let names = if secure { &self.secure } else { &self.hosts };
        names.iter().any(|name| name.eq_ignore_ascii_case(host))
    }

    /// Whether a page comes from here.
    fn are_origin(&self, origin: &str, secure: bool) -> bool {
        let scheme = if secure { "https://" } else { "http://" };
        origin.strip_prefix(scheme).is_some_and(|host| self.has(host, secure))
    }
}

fn header<'a>(request: &'a ServiceRequest, name: &HeaderName) -> Option<&'a str> {
    request.headers().get(name).map(|value| value.to_str().unwrap_or_default())
}

/// The address as the routes understand it: `/%61pi/lots` is `/api/lots` to them, and must be to whoever guards them.
pub(crate) fn routed_path(request: &ServiceRequest) -> &str {
    request.match_info().as_str()
}

/// Whether a request may go on.
fn check(request: &ServiceRequest, names: &Names) -> Result<(), ApiError> {
    static SITE: HeaderName = HeaderName::from_static("sec-fetch-site");
    let host = header(request, &HOST).or_else(|| request.uri().authority().map(|host| host.as_str()));
    let secure = request.app_config().secure();
    if !host.is_some_and(|host| names.has(host, secure)) {
        return Err(ApiError::Misdirected);
    }
    if matches!(*request.method(), Method::GET | Method::HEAD | Method::OPTIONS) {
        return Ok(());
    }
    let is_ours = header(request, &ORIGIN).is_none_or(|origin| names.are_origin(origin, secure));
    let says_ours = header(request, &SITE).is_none_or(|site| matches!(site, "same-origin" | "none"));
    if !is_ours || !says_ours {
        return Err(ApiError::OtherSite);
    }
    let has_body = header(request, &CONTENT_LENGTH).is_some_and(|length| length != "0")
        || request.headers().contains_key(&TRANSFER_ENCODING);
    // A harvest log is sent as the file it is.
    let wanted = if routed_path(request).ends_with(".csv") { "text/csv" } else { "application/json" };
    let kind = header(request, &CONTENT_TYPE).and_then(|kind| kind.split(';').next());
    if has_body && !kind.is_some_and(|kind| kind.trim().eq_ignore_ascii_case(wanted)) {
        return Err(ApiError::NotJsonType);
    }
    Ok(())
}

/// Lets in what may speak; wrapped around every route. Others get [`ApiError::Misdirected`], [`ApiError::OtherSite`] or
/// [`ApiError::NotJsonType`].
///
/// # Errors
/// What the routes behind it fail with.
pub async fn guard<B: MessageBody>(
    names: web::ThinData<Names>,
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, Error> {
    match check(&request, &names) {
        Ok(()) => Ok(next.call(request).await?.map_into_left_body()),
        Err(refused) => Ok(request.into_response(refused.error_response()).map_into_right_body()),
    }
}

/// What every answer tells a browser: run and load nothing but our own, show us in no frame, guess no types, tell nobody
/// where a visitor came from. Styles may stand in the page, because the drawings of labels carry theirs.
#[must_use]
pub fn headers() -> DefaultHeaders {
    const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; \
        media-src data:; \
        font-src 'self'; connect-src 'self'; manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'none'; \
        frame-ancestors 'none'";
    DefaultHeaders::new()
        .add(("Content-Security-Policy", POLICY))
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("X-Frame-Options", "DENY"))
        .add(("Referrer-Policy", "no-referrer"))
        .add(("Permissions-Policy", "camera=(), microphone=(), geolocation=(), payment=(), usb=()"))
        .add(("Cross-Origin-Resource-Policy", "same-origin"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
}
