//! Reads the published tables: comma-separated rows under `#` comment lines.
//!
//! It checks shape only; what a row means is checked by the module that owns the table.

use serde::de::DeserializeOwned;

/// A published table that does not parse or does not hold together.
#[derive(Debug, Clone, thiserror::Error)]
#[error("table {file} is damaged: {reason}; reinstall the program")]
pub struct TableError {
    file: &'static str,
    reason: String,
}

impl TableError {
    /// A table that is damaged, with what is wrong with it.
    pub fn new(file: &'static str, reason: impl std::fmt::Display) -> Self {
        Self { file, reason: reason.to_string() }
    }
}

/// Parses every row of an embedded table.
///
/// # Errors
/// The first row that does not fit the columns, with its line number.
pub fn rows<T: DeserializeOwned>(file: &'static str, text: &str) -> Result<Vec<T>, TableError> {
    let mut reader =
        csv::ReaderBuilder::new().comment(Some(b'#')).trim(csv::Trim::All).from_reader(text.as_bytes());
    let parsed: Vec<T> =
        reader.deserialize().collect::<Result<_, _>>().map_err(|error| TableError::new(file, error))?;
    if parsed.is_empty() {
        return Err(TableError::new(file, "it has no rows"));
    }
    Ok(parsed)
}
