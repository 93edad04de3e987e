//! Jars on the shelf as its station shows them.

use bodega_core::records::jar::JarRecord;
use serde::Serialize;
use utoipa::ToSchema;

/// A jar and where it is.
#[derive(Debug, Serialize, ToSchema)]
pub struct JarRecordView {
    /// The jar.
    #[serde(flatten)]
    pub jar: JarRecord,
    /// Where it is, in words.
    pub whereabouts: String,
}

impl From<JarRecord> for JarRecordView {
    fn from(jar: JarRecord) -> Self {
        Self { whereabouts: jar.whereabouts(), jar }
    }
}

/// A jar that left, and where its sisters are when it had spoiled.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeaveAnswer {
    /// The jar.
    pub jar: JarRecordView,
    /// The other jars of its batch, when its contents spoiled; empty otherwise.
    pub sisters: Vec<JarRecordView>,
}

/// One jar, as its label's code opens it.
#[derive(Debug, Serialize, ToSchema)]
pub struct JarCard {
    /// The jar.
    pub jar: JarRecordView,
    /// Whether a sister of its batch spoiled.
    pub recalled: bool,
    /// What to look at before it is opened.
    pub before_opening: Vec<&'static str>,
}
