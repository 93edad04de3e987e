//! Lots as the crates show them.

use bodega_core::judge::Finding;
use bodega_core::records::lot::Lot;
use serde::Serialize;
use utoipa::ToSchema;

/// A lot and what the judge has to say of its fruit.
#[derive(Debug, Serialize, ToSchema)]
pub struct LotView {
    /// The lot.
    #[serde(flatten)]
    pub lot: Lot,
    /// Findings, stops first.
    pub findings: Vec<Finding>,
}
