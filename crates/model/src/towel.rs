//! Jars on the towel: what was found at a lid, what a jar lost, and what is done about it.

pub mod liquid;
pub mod seal;
