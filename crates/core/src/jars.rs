//! The bench: jars and the acid in each.

pub mod bench;
pub mod doses;
pub mod salt;
pub mod unknown;
