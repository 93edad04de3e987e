//! What is said of the blocks of the day.

use serde::Deserialize;

use crate::measures::moment::Moment;

/// What was said of a block.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BlockNote {
    /// Its lasting name.
    pub block: String,
    /// Minutes that it takes longer than planned.
    pub slip: i64,
    /// Minutes that it takes at the usual pace.
    pub usual: u32,
    /// When it began.
    pub began_at: Option<Moment>,
    /// When it was done.
    pub ended_at: Option<Moment>,
}

/// How far a block is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Mark {
    /// It waits.
    Waits,
    /// Somebody is at it.
    Begun,
    /// It is done.
    Done,
}
