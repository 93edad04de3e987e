//! A figure that is never sure: from low to high.

use serde::Serialize;

/// A low, an expected and a high value.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Range<T> {
    /// What a poor crate gives.
    pub low: T,
    /// What to plan for.
    pub expected: T,
    /// What a good crate gives.
    pub high: T,
}
