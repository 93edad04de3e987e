//! The bench: jars and the acid in each.

pub mod acid;
pub mod bench;
pub mod doses;
pub mod size;
