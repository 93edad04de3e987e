//! Records that are not whole, for a program that nobody started by hand: one page with the choice, before the kitchen opens.

use std::net::TcpListener;
use std::path::{Path, PathBuf};
use std::sync::Mutex;

use actix_web::middleware::from_fn;
use actix_web::{App, HttpResponse, HttpServer, ResponseError, get, post, web};
use bodega_store::{StoreError, begin_anew, newest_good, restore};
use serde::Deserialize;
use tokio::sync::oneshot;

use crate::clock::Clock;
use crate::door;
use crate::json::Json;
use crate::problem::ApiError;
use crate::shelf::label_svg::escaped;
use crate::state::off_thread;

const PAGE: &str = include_str!("../../rescue/page.html");
const STYLE: &str = include_str!("../../rescue/rescue.css");
const SCRIPT: &str = include_str!("../../rescue/rescue.js");

struct Offer {
    directory: PathBuf,
    what: String,
    backup: Option<PathBuf>,
    chosen: Mutex<Option<oneshot::Sender<()>>>,
}

#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Choice {
    Backup,
    New,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct ChoiceRequest {
    choice: Choice,
}

async fn page(offer: web::Data<Offer>) -> HttpResponse {
    let backup = match &offer.backup {
        Some(file) => format!(
            "<button type=\"button\" class=\"first\" data-choice=\"backup\">Bring back the newest good backup, {}</button>",
            escaped(&file.file_name().unwrap_or_default().to_string_lossy())
        ),
        None => "<p>There is no good backup beside them. To bring back one of your own, stop Bodega and start <code>bodega \
                 restore FILE</code>.</p>"
            .to_owned(),
    };
    let text = PAGE.replace("{what}", &escaped(&offer.what)).replace("{backup}", &backup);
    // The kitchen is not open: whoever watches over the program is told.
    HttpResponse::ServiceUnavailable()
        .insert_header(("Cache-Control", "no-store"))
        .content_type("text/html; charset=utf-8")
        .body(text)
}

#[get("/rescue.css")]
async fn style() -> HttpResponse {
    HttpResponse::Ok().content_type("text/css").body(STYLE)
}

#[get("/rescue.js")]
async fn script() -> HttpResponse {
    HttpResponse::Ok().content_type("text/javascript").body(SCRIPT)
}

#[post("/api/rescue")]
async fn choose(
    offer: web::Data<Offer>,
    Json(request): Json<ChoiceRequest>,
) -> Result<HttpResponse, ApiError> {
    let (directory, backup) = (offer.directory.clone(), offer.backup.clone());
    let stamp = Clock::wall().now().0.to_string();
    off_thread(move || match (request.choice, backup) {
        (Choice::New, _) => begin_anew(&directory, &stamp).map_err(ApiError::from),
        (Choice::Backup, Some(backup)) => restore(&backup, &directory, &stamp).map_err(ApiError::from),
        (Choice::Backup, None) => {
            Err(ApiError::field("choice", "there is no good backup; start empty, or stop Bodega"))
        }
    })
    .await??;
    if let Ok(mut chosen) = offer.chosen.lock()
        && let Some(chosen) = chosen.take()
    {
        // Nobody listens any more when it was chosen twice.
        let _ = chosen.send(());
    }
    Ok(HttpResponse::NoContent().finish())
}

async fn closed() -> HttpResponse {
    ApiError::NotOpen.error_response()
}

/// Offers the choice on a page until somebody has made it.
///
/// # Errors
/// When the page cannot be served or the folder of backups not be read.
pub fn offer(listener: &TcpListener, directory: &Path, error: &StoreError) -> anyhow::Result<()> {
    let StoreError::NotWhole { file, what, .. } = error else { anyhow::bail!("{error}") };
    let names = door::Names::of_loopback(listener.local_addr()?);
    let (chosen, made) = oneshot::channel();
    let offer = web::Data::new(Offer {
        directory: directory.to_owned(),
        what: format!("The records in {file} {what}."),
        backup: newest_good(directory)?,
        chosen: Mutex::new(Some(chosen)),
    });
    let listener = listener.try_clone()?;
    actix_web::rt::System::new().block_on(async move {
        let server = HttpServer::new(move || {
            App::new()
                .app_data(offer.clone())
                .app_data(web::ThinData(names.clone()))
                .wrap(from_fn(door::guard))
                .wrap(door::headers())
                .service(style)
                .service(script)
                .service(choose)
                .service(web::scope("/api").default_service(web::to(closed)))
                .default_service(web::get().to(page))
        })
        .workers(1)
        .shutdown_timeout(1)
        .listen(listener)?
        .run();
        let handle = server.handle();
        actix_web::rt::spawn(async move {
            if made.await.is_ok() {
                handle.stop(true).await;
            }
        });
        server.await
    })?;
    Ok(())
}
