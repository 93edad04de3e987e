//! Live events over HTTP.

use actix_web::{HttpRequest, HttpResponse, get, web};
use futures_util::stream;
use tokio::sync::broadcast;
use tokio::time::{Duration, timeout};

use crate::live::Topic;
use crate::network::let_in::asking;
use crate::state::Shared;

/// Silence after which something is sent, so that both sides notice a dead connection.
const HEARTBEAT: Duration = Duration::from_millis(1500);
/// What is said then; a page that hears it need not ask whether anybody is there.
const HERE: &str = "event: here\ndata: 1\n\n";

/// What a screen is told of a change.
fn changed(topic: Topic) -> String {
    let stale = serde_json::json!({"stale": topic.stale()});
    format!("event: changed\ndata: {stale}\n\n")
}

/// A server-sent event `changed` after every change to the records, with the addresses whose answers may be different, and
/// `here` when nothing changed for a while.
#[utoipa::path(responses((status = 200, description = "text/event-stream")))]
#[get("/api/live")]
pub async fn live(shared: web::Data<Shared>, request: HttpRequest) -> HttpResponse {
    let receiver = shared.live.listen();
    let device = asking(&request).map(|device| device.0);
    let events = stream::unfold((receiver, shared, true), move |(mut receiver, shared, first)| async move {
        if first {
            return Some((
                Ok::<_, actix_web::Error>(web::Bytes::from_static(b": open\n\n")),
                (receiver, shared, false),
            ));
        }
        let text = match timeout(HEARTBEAT, receiver.recv()).await {
            Ok(Ok(topic)) => changed(topic),
            Ok(Err(broadcast::error::RecvError::Lagged(_))) => changed(Topic::Everything),
            Ok(Err(broadcast::error::RecvError::Closed)) => return None,
            Err(_) => HERE.to_owned(),
        };
        // A device that was signed out hears nothing more.
        if device.is_some_and(|device| !shared.network.devices.has(device)) {
            return None;
        }
        Some((Ok(web::Bytes::from(text)), (receiver, shared, false)))
    });
    HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header(("Cache-Control", "no-store"))
        .insert_header(("Content-Encoding", "identity"))
        .streaming(events)
}
