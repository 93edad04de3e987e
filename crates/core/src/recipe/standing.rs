//! Whether a recipe may be canned: only with a process of its own, held against a copy line by line.

use serde::Serialize;

use super::compare::Comparison;
use crate::judge::Ruling;
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::counted;
use crate::records::recipe::RecipeText;

vocabulary! {
    /// Where a recipe stands.
    "standing", Standing {
        /// It has a process, and all of it was held against a copy.
        Checked = "checked", "checked";
        /// It has a process that nobody has held against a copy.
        Unchecked = "unchecked", "not checked yet";
        /// Its source has no process.
        NoProcess = "no_process", "no tested process";
    }
}

/// Where a recipe stands, and what is missing before it may be canned.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Stands {
    /// Where.
    pub standing: Standing,
    /// In a sentence for a person.
    pub says: String,
    /// What is still to be done, in the order of the work.
    pub missing: Vec<String>,
}

/// Words that name a person and not a source.
const NO_SOURCE: [&str; 14] = [
    "mine",
    "my",
    "own",
    "ours",
    "grandmother",
    "grandma",
    "granny",
    "nana",
    "mother",
    "mum",
    "mom",
    "aunt",
    "neighbour",
    "friend",
];

/// Whether a title is that of a printed or published source.
fn is_source(title: &str) -> bool {
    let plain = super::part::plain(title);
    let names_a_person = plain
        .split(|sign: char| !sign.is_alphanumeric())
        .any(|word| NO_SOURCE.contains(&word.trim_end_matches('s')) || NO_SOURCE.contains(&word));
    !plain.is_empty() && !names_a_person
}

/// Where a recipe stands.
#[must_use]
pub fn stands(text: &RecipeText) -> Stands {
    let has_times = text.process.as_ref().is_some_and(|process| !process.times.is_empty());
    if !has_times {
        return Stands {
            standing: Standing::NoProcess,
            says: "No tested process: it goes into the refrigerator for a week, or into the freezer. It is not canned."
                .to_owned(),
            missing: Vec::new(),
        };
    }
    let mut missing = Vec::new();
    if text.title.trim().is_empty() {
        missing.push("Say the title of the book or page it is printed in.".to_owned());
    } else if !is_source(&text.title) {
        missing.push(format!("\"{}\" is a name, not a source: say where it is printed.", text.title.trim()));
    }
    if text.edition.trim().is_empty() {
        missing.push("Say its edition or year.".to_owned());
    }
    if text.page.trim().is_empty() {
        missing.push("Say the page.".to_owned());
    }
    let open = text.lines.iter().filter(|line| !line.ticked).count();
    if open > 0 {
        let lines = counted(f64::from(u32::try_from(open).unwrap_or(u32::MAX)), "line");
        missing.push(format!("Hold {lines} against the copy and tick them."));
    }
    if !text.process_ticked {
        missing.push("Hold jars, minutes and altitudes against the copy and tick them.".to_owned());
    }
    if missing.is_empty() {
        Stands {
            standing: Standing::Checked,
            says: "Checked against a copy: it may be canned.".to_owned(),
            missing,
        }
    } else {
        Stands {
            standing: Standing::Unchecked,
            says: "Not checked against a copy yet: look at it, but do not can by it.".to_owned(),
            missing,
        }
    }
}

/// Whether what is in the bowls may be canned, and if not, what to do.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MayCan {
    /// Yes, no, or nobody can tell yet.
    pub ruling: Ruling,
    /// In a sentence for a person.
    pub says: String,
}

/// Whether the bowls may be canned: a process of its own first, then the proportions, then the copy.
#[must_use]
pub fn may_can(stands: &Stands, seen: &Comparison) -> MayCan {
    let (ruling, says) = match (stands.standing, seen.verdict) {
        (Standing::NoProcess, _) => (Ruling::NotFine, stands.says.clone()),
        (_, Ruling::NotFine) => (Ruling::NotFine, "Not the tested proportions any more: it does not go into jars.".to_owned()),
        (_, Ruling::CannotTell) => {
            (Ruling::CannotTell, "Say what is in the bowls before it goes into jars.".to_owned())
        }
        (Standing::Unchecked, Ruling::Fine) => (
            Ruling::NotFine,
            "The proportions hold, but nobody has checked the recipe against a copy: freeze it, or check it first."
                .to_owned(),
        ),
        (Standing::Checked, Ruling::Fine) => (Ruling::Fine, "The proportions hold: fill the jars.".to_owned()),
    };
    MayCan { ruling, says }
}
