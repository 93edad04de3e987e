//! Kettles, and what cooks down in them: the start and the log of each, nothing derived.

use serde::Serialize;

use crate::kettle::contents::Shown;
use crate::kettle::words::{CookWhat, HeatSetting, KettleHeat, TargetKind};
use crate::measures::ids::{BatchId, CookId, KettleId};
use crate::measures::moment::Moment;

/// A kettle of the household.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Kettle {
    /// Number of the record.
    pub id: KettleId,
    /// What the household calls it.
    pub name: String,
    /// Inner width in millimetres.
    pub inner_diameter_mm: f64,
    /// Inner width at the rim in millimetres, when the walls lean.
    pub top_diameter_mm: Option<f64>,
    /// Inner depth in millimetres.
    pub depth_mm: f64,
    /// Where it stands while it cooks down.
    pub heat: KettleHeat,
    /// Litres of one poured measure, when it was calibrated.
    pub pour_l: Option<f64>,
    /// Depth in millimetres after each poured measure; empty for straight walls.
    pub pour_depths_mm: Vec<f64>,
}

/// A kettle to add.
#[derive(Debug, Clone, PartialEq)]
pub struct NewKettle {
    /// What the household calls it.
    pub name: String,
    /// Inner width in millimetres.
    pub inner_diameter_mm: f64,
    /// Inner width at the rim in millimetres, when the walls lean.
    pub top_diameter_mm: Option<f64>,
    /// Inner depth in millimetres.
    pub depth_mm: f64,
    /// Where it stands while it cooks down.
    pub heat: KettleHeat,
}

/// A line of the log.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CookEvent {
    /// When.
    pub at: Moment,
    /// What.
    pub what: CookWhat,
    /// How much.
    pub value: f64,
    /// From a simulated device.
    pub simulated: bool,
    /// Whether somebody stands by it though it surprises.
    pub sure: bool,
    /// Whether the book of moves says where that went.
    pub booked: bool,
}

/// A cook-down to begin.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NewCook {
    /// In which kettle.
    pub kettle: KettleId,
    /// The batch it is for.
    pub batch: Option<BatchId>,
    /// Litres that go in.
    pub volume_l: f64,
    /// Their °Brix.
    pub brix: f64,
    /// What the target means.
    pub target: TargetKind,
    /// The target.
    pub target_value: f64,
    /// How far the heat is turned up.
    pub setting: HeatSetting,
    /// How warm that is, in degrees Celsius.
    pub start_c: f64,
    /// Litres of water an hour, as far as it is known.
    pub litres_per_hour: f64,
    /// What the kettle has shown of itself; `None` when it has shown nothing.
    pub shown: Option<Shown>,
}

/// A cook-down with its log.
#[derive(Debug, Clone, PartialEq)]
pub struct Cook {
    /// Number of the record.
    pub id: CookId,
    /// The kettle.
    pub kettle: Kettle,
    /// The batch it is for.
    pub batch: Option<BatchId>,
    /// When the heat came on.
    pub started_at: Moment,
    /// Litres that went in.
    pub volume_l: f64,
    /// Their °Brix.
    pub brix: f64,
    /// What the target means.
    pub target: TargetKind,
    /// The target.
    pub target_value: f64,
    /// How far the heat was turned up at the start.
    pub setting: HeatSetting,
    /// How warm that was, in degrees Celsius, when somebody said it.
    pub start_c: Option<f64>,
    /// Litres of water an hour, as it was thought at the start.
    pub litres_per_hour: f64,
    /// What the kettle had shown of itself by then; `None` when nothing or nobody kept it.
    pub shown: Option<Shown>,
    /// When it was taken off.
    pub ended_at: Option<Moment>,
    /// The log, oldest first.
    pub log: Vec<CookEvent>,
}
