//! Names that people give.

use crate::problem::ApiError;

/// A name of 1 to 80 letters, without space around it.
pub(crate) fn clean_name(name: &str, field: &str) -> Result<String, ApiError> {
    const LONGEST: usize = 80;
    let name = name.trim();
    if name.is_empty() || name.chars().count() > LONGEST {
        return Err(ApiError::field(field, format!("{field} must have 1 to {LONGEST} letters")));
    }
    Ok(name.to_owned())
}
