//! A kitchen of many years: a history written by SQL, and the demo kitchen's day on top of it.

use std::path::Path;

use anyhow::Context;
use bodega::clock::Clock;
use bodega::demo;
use bodega_store::{FILE_NAME, Store};
use rusqlite::Connection;

/// Jars of a batch of the history: four loads of seven.
const JARS_OF_BATCH: u32 = 28;

/// Makes a kitchen with about so many jars in an empty directory: a batch a day, all but the last ten months of it eaten.
///
/// # Errors
/// When the directory is not empty or the disk will not have it.
pub fn make(directory: &Path, jars: u32) -> anyhow::Result<()> {
    demo::check_empty(directory)?;
    let now = Clock::wall().now();
    demo::furnish(&Store::open(directory)?, now)?;
    let history = Connection::open(directory.join(FILE_NAME))?;
    history.pragma_update(None, "synchronous", false)?;
    let text = include_str!("large.sql")
        .replace(":batches", &(jars / JARS_OF_BATCH).to_string())
        .replace(":now", &now.0.to_string());
    history.execute_batch(&format!("BEGIN; {text} COMMIT;")).context("the history could not be written")?;
    drop(history);
    Ok(demo::live_in(&Store::open(directory)?, now)?)
}
