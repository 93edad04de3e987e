//! The bench: jars and the acid in each.

pub mod acid;
pub mod bench;
pub mod claims;
pub mod contents;
pub mod doses;
pub mod ph;
pub mod salt;
pub mod size;
pub mod spoons;
pub mod unknown;
