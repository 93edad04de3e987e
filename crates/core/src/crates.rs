//! The crates: fruit as it comes in.

pub mod slip;
pub mod unlike;
