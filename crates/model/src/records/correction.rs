//! What was said of jars and turned out to be wrong.

use serde::Serialize;

use crate::measures::moment::Moment;

/// One correction, in the words of its day.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Correction {
    /// When.
    pub at: Moment,
    /// The device it was said at, as it is called; `null` for the machine that keeps the records.
    pub who: Option<String>,
    /// What it is about.
    pub about: String,
    /// What was said before.
    pub was: String,
    /// What is said now.
    pub says: String,
}
