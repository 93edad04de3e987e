//! Jars on the shelf as its station shows them.

use bodega_core::records::jar::JarRecord;
use serde::Serialize;
use utoipa::ToSchema;

/// A jar that left, and where its sisters are when it had spoiled.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeaveAnswer {
    /// The jar.
    pub jar: JarRecord,
    /// The other jars of its batch, when its contents spoiled; empty otherwise.
    pub sisters: Vec<JarRecord>,
}

/// One jar, as its label's code opens it.
#[derive(Debug, Serialize, ToSchema)]
pub struct JarCard {
    /// The jar.
    pub jar: JarRecord,
    /// Whether a sister of its batch spoiled.
    pub recalled: bool,
    /// What to look at before it is opened.
    pub before_opening: Vec<&'static str>,
}
