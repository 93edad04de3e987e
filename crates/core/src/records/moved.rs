//! What left a batch beside its jars, as it was told.

use serde::Serialize;

use crate::ledger::{Food, FoodPlace, Told};
use crate::measures::ids::MoveId;
use crate::measures::moment::Moment;

/// One part of a batch that went elsewhere.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Moved {
    /// Number of the record.
    pub id: MoveId,
    /// When it was told.
    pub at: Moment,
    /// What.
    pub food: Food,
    /// Where it went.
    pub place: FoodPlace,
    /// How much, as it was told.
    pub told: Told,
}
