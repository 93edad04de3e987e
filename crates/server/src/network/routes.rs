//! The home network over HTTP: where the kitchen is reached, and who is let in.

use std::time::Instant;

use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use bodega_model::measures::moment::Moment;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::admission::devices::{Device, LONGEST_PASSCODE, SHORTEST_PASSCODE};
use crate::admission::pairing::LASTS;
use crate::json::Json;
use crate::live::Topic;
use crate::named::clean_name;
use crate::network::let_in::{asking, cookie, no_cookie};
use crate::problem::{ApiError, Problem};
use crate::qr::picture;
use crate::state::{Shared, answer};

/// The home network as the kitchen shows it.
#[derive(Debug, Serialize, ToSchema)]
pub struct NetworkView {
    /// Where other devices open the kitchen; `null` while only this machine does.
    pub url: Option<String>,
    /// The same as a QR code, SVG.
    pub qr: Option<String>,
    /// The page that helps a device trust the kitchen.
    pub help_url: Option<String>,
    /// SHA-256 of the certificate that it hands out.
    pub fingerprint: Option<String>,
    /// Whether a passcode is set.
    pub has_passcode: bool,
    /// Whether the machine asks that keeps the records.
    pub is_this_machine: bool,
    /// Number of the device that asks.
    pub this_device: Option<u32>,
    /// Devices that are let in, the one seen last first.
    pub devices: Vec<Device>,
}

fn internal(error: impl std::fmt::Display) -> ApiError {
    ApiError::Internal(error.to_string())
}

/// Where the kitchen is reached and who is let in.
#[utoipa::path(responses((status = 200, body = NetworkView)))]
#[get("/api/network")]
pub async fn get_network(
    shared: web::Data<Shared>,
    request: HttpRequest,
) -> Result<web::Json<NetworkView>, ApiError> {
    let network = &shared.network;
    let reach = network.reach.as_ref();
    let asks = asking(&request).map(|device| device.0);
    Ok(web::Json(NetworkView {
        url: reach.map(|reach| reach.url.clone()),
        qr: reach.map(|reach| picture(&reach.url)).transpose().map_err(ApiError::Internal)?,
        help_url: reach.map(|reach| reach.help.clone()),
        fingerprint: reach.map(|reach| reach.fingerprint.clone()),
        has_passcode: network.devices.has_passcode(),
        is_this_machine: asks.is_none(),
        this_device: asks,
        devices: network.devices.all(),
    }))
}

/// A code that lets one device in, once.
#[derive(Debug, Serialize, ToSchema)]
pub struct PairingCode {
    /// To be typed, `K7MQ-2XWD`.
    pub code: String,
    /// An address that carries it.
    pub url: String,
    /// The same as a QR code, SVG.
    pub qr: String,
    /// Until when it lets somebody in, by the kitchen's clock.
    pub until: Moment,
}

/// Makes a code that lets one device in, to be scanned from this screen.
#[utoipa::path(responses((status = 201, body = PairingCode), (status = 409, body = Problem)))]
#[post("/api/network/codes")]
pub async fn make_code(shared: web::Data<Shared>) -> Result<HttpResponse, ApiError> {
    let reach = shared.network.reach.as_ref().ok_or(ApiError::NoNetwork)?;
    let code = shared.network.pairing.code(Instant::now()).map_err(internal)?;
    // After the sign the browser sends nothing: the code stands in no log.
    let url = format!("{}/let-in#{code}", reach.url);
    let qr = picture(&url).map_err(ApiError::Internal)?;
    let minutes = i64::try_from(LASTS.as_secs() / 60).unwrap_or(1) * i64::from(shared.clock.pace());
    let until = shared.clock.now().plus_minutes(minutes);
    Ok(HttpResponse::Created().json(PairingCode { code, url, qr, until }))
}

/// A new passcode.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PasscodeRequest {
    /// 8 to 200 letters.
    #[schema(min_length = 8, max_length = 200)]
    pub passcode: String,
}

/// A passcode of a good length.
///
/// # Errors
/// [`ApiError::Field`].
pub fn check_passcode(passcode: &str) -> Result<(), ApiError> {
    let letters = passcode.chars().count();
    if (SHORTEST_PASSCODE..=LONGEST_PASSCODE).contains(&letters) {
        return Ok(());
    }
    let words =
        format!("give {SHORTEST_PASSCODE} to {LONGEST_PASSCODE} letters; four words are easy to keep");
    Err(ApiError::field("passcode", words))
}

/// Sets the passcode, at the machine that keeps the records.
#[utoipa::path(request_body = PasscodeRequest,
    responses((status = 204), (status = 403, body = Problem), (status = 422, body = Problem)))]
#[put("/api/network/passcode")]
pub async fn set_passcode(
    shared: web::Data<Shared>,
    request: HttpRequest,
    Json(given): Json<PasscodeRequest>,
) -> Result<HttpResponse, ApiError> {
    if asking(&request).is_some() {
        return Err(ApiError::OnlyHere);
    }
    check_passcode(&given.passcode)?;
    answer(&shared, move |shared| shared.network.devices.set_passcode(&given.passcode).map_err(internal))
        .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A device that asks to be let in, by a code or by the passcode.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LetInRequest {
    /// What it is to be called, 1 to 80 letters.
    pub name: String,
    /// A code from a screen that is trusted.
    pub code: Option<String>,
    /// The passcode.
    pub passcode: Option<String>,
}

/// Lets a device in: it carries a cookie from then on.
#[utoipa::path(request_body = LetInRequest,
    responses((status = 201, body = Device), (status = 401, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem), (status = 429, body = Problem)))]
#[post("/api/devices")]
pub async fn let_in(
    shared: web::Data<Shared>,
    request: HttpRequest,
    Json(given): Json<LetInRequest>,
) -> Result<HttpResponse, ApiError> {
    let name = clean_name(&given.name, "name")?;
    if !request.app_config().secure() {
        return Err(ApiError::NoNetwork);
    }
    let from = request.peer_addr().map(|peer| peer.ip()).ok_or(ApiError::NotLetIn)?;
    let (device, token) = answer(&shared, move |shared| {
        let network = &shared.network;
        let now = Instant::now();
        if let Some(wait) = network.tries.wait(from, now) {
            return Err(ApiError::TooManyTries { seconds: wait.as_secs().max(1) });
        }
        let is_known = match (&given.code, &given.passcode) {
            (Some(code), _) => network.pairing.redeem(code, now),
            (None, Some(passcode)) => network.devices.is_passcode(passcode),
            (None, None) => {
                return Err(ApiError::field("code", "give the code from a trusted screen, or the passcode"));
            }
        };
        if !is_known {
            network.tries.wrong(from, Instant::now());
            return Err(if given.code.is_some() { ApiError::WrongCode } else { ApiError::WrongPasscode });
        }
        network.tries.right(from);
        let let_in = network.devices.let_in(&name, shared.clock.now()).map_err(internal)?;
        shared.live.changed(Topic::Network);
        Ok(let_in)
    })
    .await?;
    Ok(HttpResponse::Created().insert_header(("Set-Cookie", cookie(&token))).json(device))
}

/// Signs a device out.
#[utoipa::path(params(("id" = u32, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/devices/{id}")]
pub async fn sign_out(
    shared: web::Data<Shared>,
    request: HttpRequest,
    id: web::Path<u32>,
) -> Result<HttpResponse, ApiError> {
    let id = *id;
    let was_in = answer(&shared, move |shared| {
        let was_in = shared.network.devices.sign_out(id)?;
        shared.live.changed(Topic::Network);
        Ok(was_in)
    });
    if !was_in.await? {
        return Err(ApiError::NoSuchDevice);
    }
    let mut done = HttpResponse::NoContent();
    if asking(&request).is_some_and(|device| device.0 == id) {
        done.insert_header(("Set-Cookie", no_cookie()));
    }
    Ok(done.finish())
}
