//! Keeps the kitchen's clock beside the wall's.

use std::time::Duration;

use actix_web::web;

use crate::state::Shared;

/// How often the two clocks are compared.
const LOOKS_EVERY: Duration = Duration::from_secs(1);

/// Compares the kitchen's clock with the wall's as long as the program runs. A step is taken over at once when no canner
/// counts, else when the count is over; until then the line says so.
pub async fn watch(shared: web::Data<Shared>) {
    loop {
        actix_web::rt::time::sleep(LOOKS_EVERY).await;
        let Some(step) = shared.clock.stepped() else { continue };
        let inner = shared.clone();
        let counts = web::block(move || inner.store.open_loads()).await;
        let Ok(Ok(loads)) = counts else { continue };
        if loads.iter().any(|load| load.clock.has_begun()) {
            continue;
        }
        tracing::warn!(step, "the machine's clock was set; the kitchen's follows");
        shared.clock.take_over(step);
        shared.live.changed();
    }
}
