//! The rules of home tomato canning, as pure functions and state machines.
//!
//! This crate has no I/O, no clock, no randomness and no web types. Time comes in as an argument
//! ([`Moment`](bodega_model::measures::moment::Moment)); published tables are data files under `data/`, parsed and checked once by [`check_tables`].
//! Every rule names its source; see `docs/sources.md` for the list.

#![deny(missing_docs, clippy::missing_errors_doc)]
#![cfg_attr(not(test), deny(clippy::unwrap_used))]

pub mod canner;
pub mod counter;
pub mod crates;
pub mod day;
pub mod figures;
pub mod jars;
pub mod judge;
pub mod kettle;
pub mod kitchen;
pub mod ledger;
pub mod plan;
pub mod recipe;
pub mod shelf;
pub mod towel;

/// Parses and checks every published table that a rule looks in. The airfields, which only help to find a height, are read
/// when a place is first looked for.
///
/// Call it once at start, so that a damaged table stops the program instead of a lookup in the middle of a day.
///
/// # Errors
/// Names the file, the line and what is wrong with it.
pub fn check_tables() -> Result<(), bodega_model::published::reader::TableError> {
    bodega_model::check_tables()?;
    plan::yields::parse_table()?;
    canner::standing::parse_packing()?;
    recipe::shipped::parse_recipes()?;
    Ok(())
}
