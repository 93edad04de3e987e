//! The records as the rules see them: plain structs with typed numbers, and no SQL.
//!
//! The store reads and writes them; what is true of them is said here and in the rooms of the stations.

pub mod batch;
pub mod canner;
pub mod claims;
pub mod cook;
pub mod correction;
pub mod day;
pub mod jar;
pub mod kitchen;
pub mod load;
pub mod lot;
pub mod moved;
pub mod recipe;
pub mod shelf;
pub mod stock;
pub mod towel;
