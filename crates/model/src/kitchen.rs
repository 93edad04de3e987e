//! Where a kitchen is and how its household writes.

pub mod altitude;
pub mod altitudes;
pub mod ways;
