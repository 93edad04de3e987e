//! Quantities, moments, limits and words: what everything else is counted in.

pub mod amounts;
pub mod ids;
pub mod limits;
pub mod moment;
pub mod names;
pub mod range;
pub mod teaspoons;
pub mod units;
pub mod vocabulary;
pub mod words;
