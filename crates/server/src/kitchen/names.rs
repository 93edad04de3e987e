//! Names that people give.

use bodega_core::measures::names;

use crate::problem::ApiError;

/// A name of 1 to 80 letters on one line, without space around it.
pub(crate) fn clean_name(name: &str, field: &str) -> Result<String, ApiError> {
    names::clean_name(name).map(str::to_owned).map_err(|error| ApiError::field(field, error))
}
