//! The crates: fruit as it comes in.

pub mod fruit;
pub mod slip;
