//! Where the kitchen is: its height, and what that does to boiling water.

pub mod cupboard;
pub mod number;
pub mod places;
