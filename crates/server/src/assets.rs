//! The embedded front end; unknown addresses get the page, so that deep links survive a reload.

use std::borrow::Cow;
use std::io::Read;

use actix_web::http::StatusCode;
use actix_web::http::header::{ACCEPT_ENCODING, ETAG, IF_NONE_MATCH};
use actix_web::{HttpRequest, HttpResponse};
use flate2::read::GzDecoder;
use rust_embed::{EmbeddedFile, RustEmbed};

use crate::problem::ApiError;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Assets;

/// An embedded file.
struct Found {
    file: EmbeddedFile,
    /// Text is embedded only as gzip and, smaller, as brotli; pictures and fonts as they are.
    is_packed: bool,
}

fn find(name: &str) -> Option<Found> {
    let packed = Assets::get(&format!("{name}.gz")).map(|file| Found { file, is_packed: true });
    packed.or_else(|| Assets::get(name).map(|file| Found { file, is_packed: false }))
}

/// Whether a browser takes what is packed so.
fn takes(request: &HttpRequest, wanted: &str) -> bool {
    let taken =
        request.headers().get(ACCEPT_ENCODING).and_then(|value| value.to_str().ok()).unwrap_or_default();
    taken.split(',').any(|one| {
        let mut parts = one.trim().split(';');
        parts.next() == Some(wanted) && !parts.any(|part| part.trim() == "q=0")
    })
}

/// The content in the smallest form that a browser takes, and what that form is called.
fn smallest(
    request: &HttpRequest,
    name: &str,
    found: Found,
) -> std::io::Result<(Cow<'static, [u8]>, Option<&'static str>)> {
    if !found.is_packed {
        return Ok((found.file.data, None));
    }
    let smaller = takes(request, "br").then(|| Assets::get(&format!("{name}.br"))).flatten();
    if let Some(smaller) = smaller {
        return Ok((smaller.data, Some("br")));
    }
    if takes(request, "gzip") {
        return Ok((found.file.data, Some("gzip")));
    }
    let mut plain = Vec::new();
    GzDecoder::new(&found.file.data[..]).read_to_end(&mut plain)?;
    Ok((plain.into(), None))
}

/// What tells one content from another, whatever form it is sent in.
fn tag(file: &EmbeddedFile) -> String {
    let hash = file.metadata.sha256_hash();
    format!("\"{}\"", hash[..16].iter().map(|byte| format!("{byte:02x}")).collect::<String>())
}

/// Serves a file of the front end, or its page.
///
/// # Errors
/// When there is neither.
pub fn serve(request: &HttpRequest) -> Result<HttpResponse, ApiError> {
    let path = request.path().trim_start_matches('/');
    // Names under assets/ carry a hash of their content; the page itself must always be asked for again.
    let (name, cache, found) = match find(path) {
        Some(found) if path.starts_with("assets/") => (path, "public, max-age=31536000, immutable", found),
        Some(found) => (path, "no-cache", found),
        None => match find("index.html") {
            Some(page) => ("index.html", "no-cache", page),
            None => {
                let why = "The front end is not built: run \"cargo xtask build\".";
                return Ok(HttpResponse::NotFound().body(why));
            }
        },
    };
    let tag = tag(&found.file);
    let known = request.headers().get(IF_NONE_MATCH).and_then(|value| value.to_str().ok());
    let is_known = known.is_some_and(|known| known.split(',').any(|one| one.trim() == tag));
    let status = if is_known { StatusCode::NOT_MODIFIED } else { StatusCode::OK };
    let mut answer = HttpResponse::build(status);
    answer
        .content_type(mime_guess::from_path(name).first_or_octet_stream().as_ref())
        .insert_header(("Cache-Control", cache))
        .insert_header(("Vary", "Accept-Encoding"))
        .insert_header((ETAG, tag));
    if is_known {
        return Ok(answer.finish());
    }
    let (content, encoding) =
        smallest(request, name, found).map_err(|error| ApiError::Internal(error.to_string()))?;
    if let Some(encoding) = encoding {
        answer.insert_header(("Content-Encoding", encoding));
    }
    Ok(answer.body(content))
}
