//! The embedded front end; unknown addresses get the page, so that deep links survive a reload.

use actix_web::{HttpRequest, HttpResponse};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Assets;

/// Serves a file of the front end, or its page.
pub fn serve(request: &HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    // Names under assets/ carry a hash of their content; the page itself must always be asked for again.
    let (name, file, cache) = match Assets::get(path) {
        Some(file) if path.starts_with("assets/") => {
            (path, Some(file), "public, max-age=31536000, immutable")
        }
        Some(file) => (path, Some(file), "no-cache"),
        None => ("index.html", Assets::get("index.html"), "no-cache"),
    };
    let Some(file) = file else {
        return HttpResponse::NotFound().body("The front end is not built: run \"cargo xtask build\".");
    };
    HttpResponse::Ok()
        .content_type(mime_guess::from_path(name).first_or_octet_stream().as_ref())
        .insert_header(("Cache-Control", cache))
        .body(file.data.into_owned())
}
