//! Jars on the shelf as its station shows them.

use bodega_model::judge::standing::JarStanding;
use bodega_model::records::jar::JarRecord;
use bodega_store::AtHome;
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
    /// What stands against it, and what nobody has said of it yet; `null` of one that is not out of the canner, is kept cold or
    /// has left.
    pub standing: Option<JarStanding>,
}

impl JarRecordView {
    pub(crate) fn new(jar: JarRecord, at_home: &AtHome) -> Self {
        let standing = at_home.at_home(jar.id).filter(|_| jar.stands()).cloned();
        Self { whereabouts: jar.whereabouts(standing.as_ref()), standing, jar }
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
