//! Where the kitchen is: its height, and what that does to boiling water.

pub mod altitude;
pub mod altitudes;
pub mod cupboard;
pub mod number;
pub mod places;
pub mod ways;
