//! The embedded front end; unknown addresses get the page, so that deep links survive a reload.

use actix_web::http::StatusCode;
use actix_web::http::header::{ACCEPT_ENCODING, ETAG, IF_NONE_MATCH};
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::{EmbeddedFile, RustEmbed};

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Assets;

/// What browsers take, the smallest first, with the ending of the files that are embedded so.
const PACKED: [(&str, &str); 2] = [("br", ".br"), ("gzip", ".gz")];

/// A file in the smallest form that a browser takes, and what that form is called.
fn smallest(request: &HttpRequest, name: &str) -> Option<(EmbeddedFile, Option<&'static str>)> {
    let taken =
        request.headers().get(ACCEPT_ENCODING).and_then(|value| value.to_str().ok()).unwrap_or_default();
    let takes = |wanted: &str| {
        taken.split(',').any(|one| {
            let mut parts = one.trim().split(';');
            parts.next() == Some(wanted) && !parts.any(|part| part.trim() == "q=0")
        })
    };
    let packed = PACKED.iter().filter(|(encoding, _)| takes(encoding));
    let mut found = packed
        .filter_map(|(encoding, ending)| Some((Assets::get(&format!("{name}{ending}"))?, Some(*encoding))));
    found.next().or_else(|| Some((Assets::get(name)?, None)))
}

/// What tells one content from another, whatever form it is sent in.
fn tag(file: &EmbeddedFile) -> String {
    let hash = file.metadata.sha256_hash();
    format!("\"{}\"", hash[..16].iter().map(|byte| format!("{byte:02x}")).collect::<String>())
}

/// Serves a file of the front end, or its page.
pub fn serve(request: &HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    // Names under assets/ carry a hash of their content; the page itself must always be asked for again.
    let (name, cache) = match Assets::get(path) {
        Some(_) if path.starts_with("assets/") => (path, "public, max-age=31536000, immutable"),
        Some(_) => (path, "no-cache"),
        None => ("index.html", "no-cache"),
    };
    let Some((file, encoding)) = smallest(request, name) else {
        return HttpResponse::NotFound().body("The front end is not built: run \"cargo xtask build\".");
    };
    let tag = tag(&file);
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
        return answer.finish();
    }
    if let Some(encoding) = encoding {
        answer.insert_header(("Content-Encoding", encoding));
    }
    answer.body(file.data)
}
