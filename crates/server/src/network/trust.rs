//! A short page over plain http that helps a device trust the kitchen: nothing of the kitchen is told there.

use actix_web::{HttpResponse, get, web};

use crate::network::authority::Authority;

const PAGE: &str = include_str!("../../trust/page.html");
const STYLE: &str = include_str!("../../trust/trust.css");

/// What the page tells.
pub struct Trust {
    /// The certificate as a device takes it in.
    der: Vec<u8>,
    /// The page.
    page: String,
}

impl Trust {
    /// The page of an authority.
    ///
    /// # Errors
    /// When the certificate cannot be read.
    pub fn of(authority: &Authority, url: &str) -> anyhow::Result<Self> {
        let print = authority.fingerprint()?;
        let page =
            PAGE.replace("{title}", &authority.title()).replace("{print}", &print).replace("{url}", url);
        Ok(Self { der: authority.der()?.to_vec(), page })
    }
}

#[get("/")]
async fn help(trust: web::Data<Trust>) -> HttpResponse {
    HttpResponse::Ok().content_type("text/html; charset=utf-8").body(trust.page.clone())
}

#[get("/trust.css")]
async fn style() -> HttpResponse {
    HttpResponse::Ok().content_type("text/css").body(STYLE)
}

#[get("/bodega-kitchen.crt")]
async fn certificate(trust: web::Data<Trust>) -> HttpResponse {
    HttpResponse::Ok()
        .content_type("application/x-x509-ca-cert")
        .insert_header(("Content-Disposition", "attachment; filename=\"bodega-kitchen.crt\""))
        .body(trust.der.clone())
}

/// The page's own addresses.
pub fn routes(config: &mut web::ServiceConfig) {
    config.service(help).service(style).service(certificate);
}
