//! What the towel says of jars that something is wrong with, and the ways out.

use serde::Serialize;

use super::seal::{Cooling, FRIDGE_DAYS, LidVerdict, Rescue, Wrong, window};
use crate::canner::moment::unbroken;
use crate::jars::acid::per_jar;
use crate::jars::spoons::Spoons;
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
    /// What is wrong with them; that they are not processed or have no acid is said before anything else.
    pub wrong: Wrong,
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
    Cooling {
        verdict: jar.verdict,
        processed: load.is_processed(jar.id, now),
        dosed: jar.dosed,
        lifted_at: towel.lifted_at,
    }
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
    WaysOut { jars: vec![jar.id], wrong: Wrong::Lid, words, at, ways: ways(is_late), asks_cold: is_late }
}

/// The dose of each size among some jars: "½ tsp (2.5 mL, 2.5 g) citric acid into each quart", in the published spoons.
fn doses_of(jars: &[&TowelJar], load: &CannerLoad) -> String {
    let mut doses: Vec<String> = Vec::new();
    for jar in load.jars.iter().filter(|jar| jars.iter().any(|other| other.id == jar.id)) {
        let dose = Spoons::Us.dose_with_volume(jar.agent, per_jar(jar.agent, jar.size));
        let dose = format!("{dose} {} into each {}", jar.agent, jar.size);
        if !doses.contains(&dose) {
            doses.push(dose);
        }
    }
    doses.join(", ")
}

/// "Jar 3 has no dose of acid."
fn lacking(jars: &[&TowelJar]) -> String {
    let numbers: Vec<String> = jars.iter().map(|jar| jar.number.to_string()).collect();
    match numbers.as_slice() {
        [one] => format!("Jar {one} has no dose of acid."),
        _ => format!("Jars {} have no dose of acid.", numbers.join(", ")),
    }
}

/// Jars without their dose. Source: USDA Guide 1 and 3, from memory, for the day within which a jar is processed again; that
/// it is opened for its dose is common practice, no source.
fn of_undosed(jars: &[&TowelJar], towel: &Towel, load: &CannerLoad, now: Moment) -> WaysOut {
    let named = lacking(jars);
    let is_late = jars.iter().any(|jar| cooling(jar, towel, load, now).is_late(now));
    let words = if is_late {
        let late = if jars.len() == 1 { LATE } else { LATE_ALL };
        format!("{named} {late}")
    } else {
        let (them, lids) = if jars.len() == 1 { ("it", "a new lid") } else { ("them", "new lids") };
        format!(
            "{named} Before {{at}}: open {them}, {}, heat the food to the boil, {lids}, and the full {} minutes. Or \
             into the refrigerator now, and eat {them} within {FRIDGE_DAYS} days.",
            doses_of(jars, load),
            load.clock.required().0,
        )
    };
    WaysOut {
        jars: jars.iter().map(|jar| jar.id).collect(),
        wrong: Wrong::Undosed,
        at: (!is_late).then_some(window(towel.lifted_at).1),
        words,
        ways: ways(is_late),
        asks_cold: is_late,
    }
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
    let undosed: Vec<&TowelJar> = jars.iter().filter(|jar| !jar.dosed).copied().collect();
    let words = if undosed.is_empty() || is_late {
        words
    } else {
        format!("{words} {} It goes in before the lid: {}.", lacking(&undosed), doses_of(&undosed, load))
    };
    WaysOut {
        jars: jars.iter().map(|jar| jar.id).collect(),
        wrong: Wrong::Unprocessed,
        at: words.contains("{at}").then_some(by),
        words,
        ways: ways(is_late),
        asks_cold: is_late,
    }
}

/// Everything on a towel that somebody has to decide about: first the jars that are not processed, together, then those
/// without acid, together, then each jar whose lid failed.
#[must_use]
pub fn ways_out(towel: &Towel, load: &CannerLoad, now: Moment) -> Vec<WaysOut> {
    let is = |jar: &&TowelJar, wrong: Wrong| {
        jar.rescue.is_none() && cooling(jar, towel, load, now).wrong() == Some(wrong)
    };
    let with = |wrong: Wrong| -> Vec<&TowelJar> { towel.jars.iter().filter(|jar| is(jar, wrong)).collect() };
    let together = |jars: Vec<&TowelJar>, of: fn(&[&TowelJar], &Towel, &CannerLoad, Moment) -> WaysOut| {
        (!jars.is_empty()).then(|| of(&jars, towel, load, now))
    };
    let first = together(with(Wrong::Unprocessed), of_unprocessed);
    let then = together(with(Wrong::Undosed), of_undosed);
    let failed = with(Wrong::Lid);
    let each = failed.into_iter().map(|jar| of_failed(jar, &cooling(jar, towel, load, now), now));
    first.into_iter().chain(then).chain(each).collect()
}
