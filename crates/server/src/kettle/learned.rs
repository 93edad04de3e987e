//! What each kettle has shown of itself.

use bodega_core::kettle::learned::{Learned, Past};
use bodega_model::records::cook::Kettle;
use bodega_store::StoreError;

use crate::state::Shared;

/// Cook-downs of a kettle that it is learned from: its last ones, for burners and people change.
const LEARNED_FROM: usize = 6;

/// What a kettle has shown.
pub(crate) fn learned(shared: &Shared, kettle: &Kettle) -> Result<Learned, StoreError> {
    let last = shared.store.last_cooks(kettle.id, LEARNED_FROM)?;
    let past: Vec<Past> = last.iter().map(|cook| shared.looked_back.past(cook)).collect();
    Ok(Learned::learn(kettle, &past))
}
