//! Stateless calculators: the rules of the core, asked over HTTP without any records.

pub mod acid;
pub mod audit;
pub mod canner;
pub mod day;
pub mod jar;
pub mod kettle;
pub mod loads;
pub mod process;
pub mod recipe;
pub mod yields;
