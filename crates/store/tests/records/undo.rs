//! Taking back what was said last.

use bodega_model::measures::ids::LoadId;
use bodega_model::measures::moment::Moment;
use bodega_model::records::load::CannerLoad;
use bodega_store::{Store, StoreError};

/// Takes the last event of a load back, as a page does that shows it.
pub fn undo(store: &Store, load: LoadId, now: Moment) -> Result<CannerLoad, StoreError> {
    let last = store.load(load).unwrap().clock.happened().last().map_or(now, |last| last.at);
    store.undo_event(load, last, now)
}
