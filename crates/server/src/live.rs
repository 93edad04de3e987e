//! Live events: every open screen hears that something changed and asks again.

use actix_web::{HttpResponse, get, web};
use futures_util::stream;
use tokio::sync::broadcast;
use tokio::time::{Duration, timeout};

use crate::app::Shared;

/// Changes a slow screen may fall behind before it is simply told to ask again.
const BACKLOG: usize = 16;
/// Silence after which a comment is sent, so that a dead connection is noticed.
const HEARTBEAT: Duration = Duration::from_secs(15);

/// Tells every open screen about a change.
pub struct Live {
    sender: broadcast::Sender<()>,
}

impl Default for Live {
    fn default() -> Self {
        Self { sender: broadcast::channel(BACKLOG).0 }
    }
}

impl Live {
    /// Says that records changed.
    pub fn changed(&self) {
        // No receiver means no screen is open.
        let _ = self.sender.send(());
    }
}

/// A server-sent event `changed` after every change to the records.
#[utoipa::path(responses((status = 200, description = "text/event-stream")))]
#[get("/api/live")]
pub async fn live(shared: web::Data<Shared>) -> HttpResponse {
    let receiver = shared.live.sender.subscribe();
    let events = stream::unfold((receiver, true), |(mut receiver, first)| async move {
        if first {
            return Some((
                Ok::<_, actix_web::Error>(web::Bytes::from_static(b": open\n\n")),
                (receiver, false),
            ));
        }
        let text: &[u8] = match timeout(HEARTBEAT, receiver.recv()).await {
            Ok(Ok(()) | Err(broadcast::error::RecvError::Lagged(_))) => b"event: changed\ndata: {}\n\n",
            Ok(Err(broadcast::error::RecvError::Closed)) => return None,
            Err(_) => b": still here\n\n",
        };
        Some((Ok(web::Bytes::copy_from_slice(text)), (receiver, false)))
    });
    HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header(("Cache-Control", "no-store"))
        .insert_header(("Content-Encoding", "identity"))
        .streaming(events)
}
