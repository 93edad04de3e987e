//! Names and notes that people give to their batches and lots.

use bodega_model::measures::names::{self, clean_note};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::problem::ApiError;

/// What something is called, and a note beside it; empty or left out for nothing.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NameRequest {
    /// A name of up to 80 letters.
    pub name: Option<String>,
    /// A note of up to 1,000 letters.
    pub note: Option<String>,
}

impl NameRequest {
    /// Both, without space around them.
    pub(crate) fn checked(&self) -> Result<(Option<String>, Option<String>), ApiError> {
        let name = self.name.as_deref().filter(|name| !name.trim().is_empty());
        let name = name.map(|name| clean_name(name, "name")).transpose()?;
        let note = self.note.as_deref().map(clean_note).transpose();
        let note = note.map_err(|error| ApiError::field("note", error))?.flatten();
        Ok((name, note.map(str::to_owned)))
    }
}

/// A name of 1 to 80 letters on one line, without space around it.
pub(crate) fn clean_name(name: &str, field: &str) -> Result<String, ApiError> {
    names::clean_name(name).map(str::to_owned).map_err(|error| ApiError::field(field, error))
}
