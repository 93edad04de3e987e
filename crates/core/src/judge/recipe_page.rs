//! A recipe on its own page: whether it may go into jars at all, who printed it, and what is still to be held against a copy.
//!
//! The same findings stand on the page, in the plan, at the bowls, on the bench and in the audit, so that a page and its bowls
//! never say two things of one recipe.

use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Finding, Ruling};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::keep::FRIDGE_DAYS;
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::measures::words::{capital, counted};
use bodega_model::recipe::part::Part;
use bodega_model::recipe::per_jar::acid_doses;
use bodega_model::recipe::process::RecipeProcess;
use bodega_model::records::recipe::{Bowls, RecipeText};
use serde::Serialize;

use super::case::{Case, CaseRecipe};
use super::recipe_fit::{AcidOf, acid_of, fit, forbidden};
use crate::recipe::line::each_jar;
use crate::recipe::packet::is_packet;
use crate::recipe::page::parts_of;
use crate::recipe::source::{self as printed, is_tested};

vocabulary! {
    /// Where a recipe stands.
    "standing", Standing {
        /// It has a process, nothing speaks against it, and all of it was held against a copy.
        Checked = "checked", "checked";
        /// It has a process, and something is still to be said or to be held against a copy.
        Unchecked = "unchecked", "not checked yet";
        /// Something in it, or where it comes from, keeps it out of jars.
        NotForJars = "not_for_jars", "not for jars";
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
    /// Fine, not fine or cannot tell.
    pub ruling: Ruling,
    /// In a sentence for a person.
    pub says: String,
    /// What is still to be done, in the order of the work.
    pub missing: Vec<String>,
    /// What was found in it, stops first.
    pub findings: Vec<Finding>,
    /// Where its acid is, as far as it has any that can be relied on; `null` when it has none.
    pub acid: Option<String>,
}

fn not_canned() -> String {
    format!("It goes into the refrigerator for {FRIDGE_DAYS} days, or into the freezer. It is not canned.")
}

/// What is still to be held against a copy, in the order of the page.
fn still_open(text: &RecipeText) -> Vec<String> {
    let mut missing = printed::open_questions(text.kind, (&text.title, &text.edition, &text.page));
    let open = text.lines.iter().filter(|line| !line.ticked).count();
    if text.kind.is_none() && open == 0 && text.process_ticked {
        missing
            .push("It was ticked before anybody was asked who printed it, so it is judged anew.".to_owned());
    }
    if open > 0 {
        let lines = counted(f64::from(u32::try_from(open).unwrap_or(u32::MAX)), "line");
        missing.push(format!("Hold {lines} against the copy and tick them."));
    }
    if !text.process_ticked {
        missing.push("Hold jars, minutes and altitudes against the copy and tick them.".to_owned());
    }
    missing
}

/// A recipe as its page has it: whether it was held against a copy is the page's own question.
fn case_of(text: &RecipeText) -> CaseRecipe {
    CaseRecipe {
        base: parts_of(text),
        actual: None,
        mixed: false,
        makes: text.makes,
        process: text.process.clone().filter(|process| !process.times.is_empty()),
        checked: Some(true),
        is_all_its_acid: Some(text.is_all_its_acid),
        // The dose goes into the jars on the bench.
        dosed: Some(true),
        labels_asked: true,
    }
}

/// A time for which the page says nothing of altitude, in a kitchen that is too high for it.
fn unsaid_altitude(process: &RecipeProcess, altitude: Altitude) -> Option<Finding> {
    let times = process.times.iter().map(|line| process.time(line.jar, line.method, altitude));
    let why = times.clone().find_map(|time| time.err().filter(|why| why.is_untold()))?;
    let has_any = times.into_iter().any(|time| time.is_ok());
    (!has_any).then(|| super::time::no_recipe_time(why))
}

/// What its acid is, in a sentence; none when it has none that can be relied on.
#[must_use]
pub fn acid_words(parts: &[Part]) -> Option<String> {
    let in_jars: Vec<String> = acid_doses(parts).iter().map(Part::says).collect();
    if !in_jars.is_empty() {
        return Some(format!("{}.", capital(&in_jars.join(", "))));
    }
    brings_its_acid(parts).then(|| "Its acid is in it: no dose in the jars.".to_owned())
}

/// Whether these parts have an acid that can be relied on, with a measure.
#[must_use]
pub fn brings_its_acid(parts: &[Part]) -> bool {
    matches!(acid_of(parts), AcidOf::Measured)
}

vocabulary! {
    /// What a line of a recipe is still asked about.
    "question of a line", LineAbout {
        /// Whether it is for each jar or for the whole batch.
        EachJar = "each_jar", "each jar or the whole batch";
        /// What stands on the label of a packet.
        Packet = "packet", "what stands on the packet";
    }
}

/// A line of a recipe with something to be said beside it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LineAsk {
    /// The line, by its place from 0 on.
    pub place: usize,
    /// What is asked.
    pub about: LineAbout,
    /// The size of jar that its words name.
    pub jar: Option<JarSize>,
    /// Its name without what is asked about.
    pub name: String,
}

/// The lines of a recipe with something to be said beside them; a packet's label stays open to be read again.
#[must_use]
pub fn line_asks(text: &RecipeText) -> Vec<LineAsk> {
    let one = |(place, part): (usize, Part)| {
        if let Some(each) = each_jar(&part) {
            return Some(LineAsk { place, about: LineAbout::EachJar, jar: each.jar, name: each.name });
        }
        let packet = LineAsk { place, about: LineAbout::Packet, jar: None, name: part.name.clone() };
        is_packet(&part).then_some(packet)
    };
    parts_of(text).into_iter().enumerate().filter_map(one).collect()
}

/// Where a recipe stands, in a kitchen of this altitude where that is known.
#[must_use]
pub fn stands(text: &RecipeText, altitude: Option<Altitude>) -> Stands {
    let missing = still_open(text);
    let recipe = case_of(text);
    let acid = acid_words(&recipe.base);
    let mut findings = forbidden(&recipe.base);
    findings.extend(fit(&recipe, None));
    let process = recipe.process.as_ref();
    findings.extend(process.zip(altitude).and_then(|(process, altitude)| unsaid_altitude(process, altitude)));
    findings.sort_by_key(|finding| (finding.cannot_tell, finding.severity));
    let stopped = findings.iter().find(|finding| finding.is_told_stop());
    let open = findings.iter().find(|finding| finding.cannot_tell);
    let is_untested = text.kind.is_some_and(|kind| !is_tested(kind, &text.edition));
    let (standing, ruling, says) = if process.is_none() {
        (Standing::NoProcess, Ruling::NotFine, format!("No tested process: {}", lower(&not_canned())))
    } else if let Some(stop) = stopped {
        (Standing::NotForJars, Ruling::NotFine, format!("{} {}", stop.message, not_canned()))
    } else if is_untested {
        let words = "Nobody tested it: an older book, a page, a video or a friend is no tested source, however good the recipe is.";
        (Standing::NotForJars, Ruling::NotFine, format!("{words} {}", not_canned()))
    } else if let Some(open) = open {
        (
            Standing::Unchecked,
            Ruling::CannotTell,
            format!("Nobody can tell yet whether it may be canned. {}", open.message),
        )
    } else if !missing.is_empty() {
        let words = "Not checked against a copy yet: look at it, but do not can by it.";
        (Standing::Unchecked, Ruling::NotFine, words.to_owned())
    } else {
        (Standing::Checked, Ruling::Fine, "Checked against a copy: it may be canned.".to_owned())
    };
    let is_out = matches!(standing, Standing::NoProcess | Standing::NotForJars);
    Stands { standing, ruling, says, missing: if is_out { Vec::new() } else { missing }, findings, acid }
}

fn lower(sentence: &str) -> String {
    let mut signs = sentence.chars();
    signs.next().map(|first| first.to_lowercase().chain(signs).collect()).unwrap_or_default()
}

/// What is said of a recipe that is made and not canned, until it was told where it went.
#[must_use]
pub fn made_cold(is_told: bool) -> String {
    if is_told {
        return "Not canned. When all of it is told, put the bowls away.".to_owned();
    }
    format!(
        "Not canned: into the refrigerator within two hours and eaten within {FRIDGE_DAYS} days, or into the freezer. Say what went where."
    )
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

/// Whether the bowls may be canned: the recipe's own page first, then what is in the bowls. Both are the judge's findings, so that
/// a page and its bowls never say two things of one recipe.
#[must_use]
pub fn may_can(
    text: &RecipeText,
    altitude: Option<Altitude>,
    bowls: &Bowls,
    jars: &[(JarSize, u32)],
) -> MayCan {
    let stands = stands(text, altitude);
    if matches!(stands.standing, Standing::NoProcess | Standing::NotForJars) {
        return MayCan { ruling: stands.ruling, says: stands.says };
    }
    let recipe = CaseRecipe {
        base: bowls.base.clone(),
        actual: Some(bowls.actual.clone()),
        mixed: bowls.mixed_at.is_some(),
        // Far more jars than it fills are minded on the bench.
        makes: None,
        labels_asked: bowls.labels_asked,
        ..case_of(text)
    };
    let findings: Vec<Finding> = super::recipe::judge(&Case {
        all_jars: Some(jars.to_vec()),
        recipe: Some(recipe),
        ..Case::default()
    });
    let (ruling, says) = match Ruling::of(&findings, false) {
        Ruling::NotFine => {
            (Ruling::NotFine, "Not the tested proportions any more: it does not go into jars.".to_owned())
        }
        _ if stands.ruling == Ruling::CannotTell => (Ruling::CannotTell, stands.says),
        Ruling::CannotTell => {
            (Ruling::CannotTell, "Say what is in the bowls before it goes into jars.".to_owned())
        }
        Ruling::Fine if stands.standing == Standing::Unchecked => (
            Ruling::NotFine,
            "The proportions hold, but nobody has checked the recipe against a copy: freeze it, or check it first."
                .to_owned(),
        ),
        Ruling::Fine if acid_doses(&bowls.base).is_empty() => {
            (Ruling::Fine, "The proportions hold: fill the jars.".to_owned())
        }
        Ruling::Fine => {
            (Ruling::Fine, "The proportions hold: acid into each jar, then fill the jars.".to_owned())
        }
    };
    MayCan { ruling, says }
}
