//! The nouns of home tomato canning: what things are, and what is true of one of them alone.
//!
//! Measures and words, published tables and their rows, records and findings as data. No rule that holds two things against each
//! other stands here: those are `bodega-core`'s. Like that crate it has no I/O, no clock, no randomness and no web types.

#![deny(missing_docs, clippy::missing_errors_doc)]
#![cfg_attr(not(test), deny(clippy::indexing_slicing, clippy::unwrap_used))]

pub mod canner;
pub mod contents;
pub mod crates;
pub mod jars;
pub mod judge;
pub mod kettle;
pub mod kitchen;
pub mod ledger;
pub mod measures;
pub mod plan;
pub mod published;
pub mod recipe;
pub mod records;
pub mod shelf;
pub mod tables;
pub mod towel;

use published::reader::TableError;

/// Parses and checks every published table of this crate.
///
/// # Errors
/// Names the file, the line and what is wrong with it.
pub fn check_tables() -> Result<(), TableError> {
    tables::process::Tables::parse()?;
    jars::acid::parse_doses()?;
    recipe::weights::parse_weights()?;
    Ok(())
}
