//! What the towel says of jars that something is wrong with, and the ways out.

use serde::Serialize;

use super::seal::{Cooling, FRIDGE_DAYS, LidVerdict, Rescue, window};
use crate::canner::moment::unbroken;
use crate::measures::ids::JarId;
use crate::measures::moment::{Minutes, Moment};
use crate::measures::words::{capital, counted};
use crate::records::load::CannerLoad;
use crate::records::towel::{Towel, TowelJar};

/// Jars that something has to be done about.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WaysOut {
    /// The jars.
    pub jars: Vec<JarId>,
    /// Whether they are not processed, which is said before anything else.
    pub unprocessed: bool,
    /// What is wrong and what to do; `{at}` stands for the clock time of `at`.
    pub words: String,
    /// A moment in the words.
    pub at: Option<Moment>,
    /// What may be done now; when it asks whether they were kept cold, only if they were.
    pub ways: Vec<Rescue>,
    /// Whether it asks that.
    pub asks_cold: bool,
}

const LATE: &str = "More than 24 hours have passed since it came out of the canner. Was it kept cold all that time? \
    If not, or if nobody knows, discard it without tasting.";
const LATE_ALL: &str = "More than 24 hours have passed since they came out of the canner. Were they kept cold all that \
    time? If not, or if nobody knows, discard them without tasting.";

fn ways(is_late: bool) -> Vec<Rescue> {
    let may = |rescue: &Rescue| !is_late || *rescue != Rescue::Reprocess;
    Rescue::ALL.iter().copied().filter(may).collect()
}

/// A jar on the towel as its rules see it.
#[must_use]
pub fn cooling(jar: &TowelJar, towel: &Towel, load: &CannerLoad, now: Moment) -> Cooling {
    Cooling { verdict: jar.verdict, processed: load.is_processed(jar.id, now), lifted_at: towel.lifted_at }
}

fn of_failed(jar: &TowelJar, cooling: &Cooling, now: Moment) -> WaysOut {
    let found = jar.verdict.map_or("lid failed", LidVerdict::label);
    let named = format!("Jar {}: {found}.", jar.number);
    let (is_late, by) = (cooling.is_late(now), window(cooling.lifted_at).1);
    let words = if is_late {
        format!("{named} {LATE}")
    } else {
        format!(
            "{named} Before {{at}}: check the rim, new lid, the full time again. Or eat it within {FRIDGE_DAYS} days, or \
             freeze it with 1½ in headspace."
        )
    };
    let at = (!is_late).then_some(by);
    WaysOut { jars: vec![jar.id], unprocessed: false, words, at, ways: ways(is_late), asks_cold: is_late }
}

fn of_unprocessed(jars: &[&TowelJar], towel: &Towel, load: &CannerLoad, now: Moment) -> WaysOut {
    let is_all = jars.len() == towel.jars.len();
    let count = f64::from(u32::try_from(jars.len()).unwrap_or(u32::MAX));
    let who = if is_all { "The jars".to_owned() } else { capital(&counted(count, "jar")) };
    let held = load.clock.unbroken_ms(now) / Minutes(1).ms();
    let needed = load.clock.required().0;
    let had = format!("{who} had {held} of {needed} minutes {}.", unbroken(load.batch.method));
    let cooling: Vec<Cooling> = jars.iter().map(|jar| cooling(jar, towel, load, now)).collect();
    let (is_late, by) = (cooling.iter().any(|jar| jar.is_late(now)), window(towel.lifted_at).1);
    let words = if is_late {
        format!("{had} {LATE_ALL}")
    } else if cooling.iter().all(|jar| jar.keeps_its_lid(now)) {
        format!(
            "{had} They are still hot: put them back at once, lids as they are, for the full {needed} minutes."
        )
    } else {
        format!(
            "{had} Before {{at}}: new lids, warm water, and the full {needed} minutes. Or into the refrigerator now, and \
             eat them within {FRIDGE_DAYS} days."
        )
    };
    WaysOut {
        jars: jars.iter().map(|jar| jar.id).collect(),
        unprocessed: true,
        at: words.contains("{at}").then_some(by),
        words,
        ways: ways(is_late),
        asks_cold: is_late,
    }
}

/// Everything on a towel that somebody has to decide about: first the jars that are not processed, together, then each
/// jar whose lid failed.
#[must_use]
pub fn ways_out(towel: &Towel, load: &CannerLoad, now: Moment) -> Vec<WaysOut> {
    let undecided = towel.jars.iter().filter(|jar| jar.rescue.is_none());
    let wrong: Vec<(&TowelJar, Cooling)> = undecided
        .map(|jar| (jar, cooling(jar, towel, load, now)))
        .filter(|(_, cooling)| cooling.is_wrong())
        .collect();
    let unprocessed: Vec<&TowelJar> =
        wrong.iter().filter(|(_, cooling)| !cooling.processed).map(|(jar, _)| *jar).collect();
    let first = (!unprocessed.is_empty()).then(|| of_unprocessed(&unprocessed, towel, load, now));
    let failed = wrong.iter().filter(|(_, cooling)| cooling.processed);
    first.into_iter().chain(failed.map(|(jar, cooling)| of_failed(jar, cooling, now))).collect()
}
