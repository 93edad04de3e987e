//! The rules of home tomato canning, as pure functions and state machines.
//!
//! This crate has no I/O, no clock, no randomness and no web types. Time comes in as an argument
//! ([`moment::Moment`]); published tables are data files under `data/`, parsed and checked once by [`check_tables`].
//! Every rule names its source; see `docs/sources.md` for the list.

pub mod acid;
pub mod altitude;
pub mod boil_clock;
pub mod canner;
pub mod checklist;
pub mod day;
pub mod findings;
pub mod fruit;
pub mod jar;
pub mod kettle;
pub mod label_sheet;
pub mod limits;
pub mod loads;
pub mod measure;
pub mod moment;
pub mod outlook;
pub mod overnight;
pub mod pantry;
pub mod places;
pub mod plan;
pub mod process;
pub mod seal;
pub mod source;
pub mod split;
mod table;
pub mod units;
mod vocabulary;
pub mod yields;

pub use table::TableError;
pub use vocabulary::UnknownWord;

/// Parses and checks every published table the crate carries.
///
/// Call it once at start, so that a damaged table stops the program instead of a lookup in the middle of a day.
///
/// # Errors
/// Names the file, the line and what is wrong with it.
pub fn check_tables() -> Result<(), TableError> {
    process::Tables::parse()?;
    acid::parse_doses()?;
    yields::parse_table()?;
    canner::parse_packing()?;
    places::check_airfields()?;
    Ok(())
}
