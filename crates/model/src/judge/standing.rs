//! What stands against a jar that is out of its canner, as data.

use serde::Serialize;

use crate::judge::finding::{Code, Ruling, Subject};
use crate::judge::question::Question;
use crate::measures::moment::Moment;
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// What really ends a stop that stands against a jar.
    "end of a stop", End {
        /// Opened, put right and processed again, in its time.
        Reprocess = "reprocess", "opened, put right and processed again";
        /// Into the refrigerator or the freezer, in its time.
        Cold = "cold", "into the refrigerator or the freezer";
        /// Thrown away.
        Discard = "discard", "discarded";
        /// What was said turns out to be wrong, and is corrected.
        Correct = "correct", "corrected, when what was said was wrong";
    }
}

/// One stop that stands against a jar.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Against {
    /// What was found.
    pub code: Code,
    /// What it is about.
    pub subject: Subject,
    /// In three words: "garlic in it".
    pub brief: String,
    /// In one sentence.
    pub message: String,
    /// Since when it stands: since the jar came out, or since it was found.
    pub since: Moment,
    /// What ends it.
    pub ends: Vec<End>,
}

/// What stands against a jar, and what is still to be said of it. It is worked out whenever it is asked for and never kept, so
/// that it cannot differ from what the records say.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JarStanding {
    /// Fine, not fine, or cannot tell. Only what is not fine keeps a jar off the shelf.
    pub ruling: Ruling,
    /// The stops, the worst first.
    pub against: Vec<Against>,
    /// What nobody has said of it yet.
    pub open: Vec<Question>,
    /// What nobody can tell, in three words each: "cocoa in it".
    pub untold: Vec<String>,
}

impl JarStanding {
    /// A jar of which nothing is to be said.
    pub const CLEAR: Self =
        Self { ruling: Ruling::Fine, against: Vec::new(), open: Vec::new(), untold: Vec::new() };

    /// Whether something stands against it.
    #[must_use]
    pub fn is_stopped(&self) -> bool {
        !self.against.is_empty()
    }

    /// Whether any of it is about the acid: a way out says the dose.
    #[must_use]
    pub fn lacks_acid(&self) -> bool {
        let is_dose = |code| matches!(code, Code::NoAcid | Code::AcidShort | Code::PotDoseShort);
        self.against.iter().any(|stop| is_dose(stop.code))
    }

    /// Whether what stands against it can be put right by opening the jar and processing it again.
    #[must_use]
    pub fn mending(&self) -> Mending {
        match self.against.as_slice() {
            [] => Mending::Nothing,
            all if all.iter().all(|stop| stop.ends.contains(&End::Reprocess)) => Mending::Again,
            _ => Mending::Never,
        }
    }

    /// What stands against it in a few words, each once: "garlic in it, too little acid". Nothing when nothing does.
    #[must_use]
    pub fn brief(&self) -> Option<String> {
        let mut words: Vec<&str> = Vec::new();
        for stop in &self.against {
            if !words.contains(&stop.brief.as_str()) {
                words.push(&stop.brief);
            }
        }
        (!words.is_empty()).then(|| words.join(", "))
    }

    /// What nobody has said yet in a few words: "what else went in, the water over the lids". Nothing when all was said.
    #[must_use]
    pub fn open_brief(&self) -> Option<String> {
        let questions = self.open.iter().map(|question| question.ask.brief());
        let words: Vec<&str> = questions.chain(self.untold.iter().map(String::as_str)).collect();
        (!words.is_empty()).then(|| words.join(", "))
    }

    /// In words that a list can sort by: "fine", "cannot tell: what else went in", "not fine: garlic in it".
    #[must_use]
    pub fn in_a_line(&self) -> String {
        match (self.brief(), self.open_brief()) {
            (Some(stops), _) => format!("{}: {stops}", Ruling::NotFine.label()),
            (None, Some(open)) => format!("{}: {open}", Ruling::CannotTell.label()),
            (None, None) => self.ruling.label().to_owned(),
        }
    }
}

/// Whether what stands against a jar can be put right by opening it and processing it again.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mending {
    /// Nothing stands against it.
    Nothing,
    /// It can.
    Again,
    /// It cannot: what is in it stays in it.
    Never,
}
