//! Lots: one weigh-in of one kind of fruit, drawn down by batches.

use jiff::civil::Date;
use serde::Serialize;

use crate::crates::fruit::{Condition, Fault, Kind};
use crate::measures::ids::LotId;

/// A lot with what is left of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lot {
    /// Number of the record.
    pub id: LotId,
    /// Day it was picked or bought, `YYYY-MM-DD`.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub picked_on: Date,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Why it is not for jars.
    pub fault: Option<Fault>,
    /// Day that fruit on the sill is looked at again, `YYYY-MM-DD`.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub back_on: Option<Date>,
    /// Frozen fruit thaws with free water and slips its skins.
    pub frozen: bool,
    /// Grams weighed in.
    pub weight_g: i64,
    /// Grams no batch has drawn.
    pub left_g: i64,
}

/// A weigh-in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewLot {
    /// Day it was picked, `YYYY-MM-DD`.
    pub picked_on: Date,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Why it is not for jars.
    pub fault: Option<Fault>,
    /// Day that fruit on the sill is looked at again.
    pub back_on: Option<Date>,
    /// Frozen or fresh.
    pub frozen: bool,
    /// Grams.
    pub weight_g: i64,
}

/// A correction; absent fields stay.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct LotChange {
    /// New kind.
    pub kind: Option<Kind>,
    /// New condition.
    pub condition: Option<Condition>,
    /// New weight in grams.
    pub weight_g: Option<i64>,
    /// Taken off the line, or put back.
    pub removed: Option<bool>,
}
