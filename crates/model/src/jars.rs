//! Jars: their sizes, kinds, doses of acid and spoons.

pub mod acid;
pub mod kinds;
pub mod ph;
pub mod size;
pub mod spoons;
