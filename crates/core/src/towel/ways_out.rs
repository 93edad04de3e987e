//! What the towel says of jars that something is wrong with, and the ways out. Every stop has one, in words for jars that are
//! filled, closed and out of the canner.

use bodega_model::jars::acid::per_jar;
use bodega_model::jars::spoons::Spoons;
use bodega_model::judge::finding::Code;
use bodega_model::judge::standing::{End, JarStanding, Mending};
use bodega_model::ledger::keep::FRIDGE_DAYS;
use bodega_model::measures::ids::JarId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::words::{capital, counted};
use bodega_model::records::load::CannerLoad;
use bodega_model::records::towel::{Towel, TowelJar};
use bodega_model::tables::process::Method;
use bodega_model::towel::liquid::{HALF_GONE_DAYS, LiquidLost};
use bodega_model::towel::seal::{LidVerdict, Rescue};
use serde::Serialize;

use super::seal::{CHECK_BY, Cooling, Wrong, window};
use crate::canner::moment::unbroken;

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
    /// The words on the touch that processes them again.
    pub again: &'static str,
    /// Whether it also ends when what was said of them is corrected.
    pub correctable: bool,
}

/// What the towel says first while something keeps its jars off the shelf, whatever their lids do.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Alarm {
    /// The figure.
    pub figure: &'static str,
    /// Of how many jars.
    pub unit: String,
    /// What it means.
    pub words: String,
}

/// "Jar 3", "Jars 1, 2", or all of them.
fn who(jars: &[&TowelJar], towel: &Towel) -> String {
    let numbers: Vec<String> = jars.iter().map(|jar| jar.number.to_string()).collect();
    match numbers.as_slice() {
        [one] => format!("Jar {one}"),
        [_, _] if towel.jars.len() == 2 => "Both jars".to_owned(),
        all if all.len() == towel.jars.len() => format!("All {} jars", all.len()),
        _ => format!("Jars {}", numbers.join(", ")),
    }
}

fn late(jars: usize, hours: u32) -> String {
    let (they, were, them) = if jars == 1 { ("it", "Was it", "it") } else { ("they", "Were they", "them") };
    format!(
        "More than {hours} hours have passed since {they} came out of the canner. {were} kept cold all that time? \
         If not, or if nobody knows, discard {them} without tasting."
    )
}

/// A jar on the towel as its rules see it.
#[must_use]
pub fn cooling(jar: &TowelJar, towel: &Towel, load: &CannerLoad, now: Moment) -> Cooling {
    let chilled_at = jar.rescued_at.filter(|_| jar.rescue == Some(Rescue::Refrigerator));
    Cooling {
        verdict: jar.verdict,
        processed: load.is_processed(jar.id, now),
        dosed: jar.dosed,
        mending: Mending::Nothing,
        lifted_at: towel.lifted_at,
        chilled_at,
    }
    .with(&jar.standing)
}

/// What is said of some like jars: who they are, what is wrong, until when it can be put right.
struct Said<'a> {
    jars: &'a [&'a TowelJar],
    towel: &'a Towel,
    load: &'a CannerLoad,
    cooling: Vec<Cooling>,
    now: Moment,
}

impl<'a> Said<'a> {
    fn of(jars: &'a [&'a TowelJar], towel: &'a Towel, load: &'a CannerLoad, now: Moment) -> Self {
        let cooling = jars.iter().map(|jar| cooling(jar, towel, load, now)).collect();
        Self { jars, towel, load, cooling, now }
    }

    fn is_late(&self) -> bool {
        self.cooling.iter().any(|jar| jar.is_late(self.now))
    }

    /// "it", "them".
    fn them(&self) -> &'static str {
        if self.jars.len() == 1 { "it" } else { "them" }
    }

    fn lids(&self) -> &'static str {
        if self.jars.len() == 1 { "a new lid" } else { "new lids" }
    }

    fn late(&self) -> String {
        let hours = self.cooling.iter().map(|jar| jar.stands_for().0).min().unwrap_or(CHECK_BY.0) / 60;
        late(self.jars.len(), hours)
    }

    fn may(&self, rescue: Rescue) -> bool {
        // Whoever says that they were kept cold may do what a jar in the cold may.
        self.cooling.iter().all(|jar| jar.may(rescue, Some(true), self.now).is_ok())
    }

    fn ways_out(self, wrong: Wrong, words: String) -> WaysOut {
        let until = self.cooling.iter().map(Cooling::stands_until).min().unwrap_or(self.towel.check_by);
        let correctable = |jar: &&TowelJar| {
            let stops = &jar.standing.against;
            stops.iter().any(|stop| stop.ends.contains(&End::Correct))
        };
        WaysOut {
            wrong,
            at: words.contains("{at}").then_some(until),
            words,
            ways: Rescue::ALL.iter().copied().filter(|rescue| self.may(*rescue)).collect(),
            asks_cold: self.is_late(),
            again: again(wrong, self.load.batch.method),
            correctable: self.jars.iter().any(correctable),
            jars: self.jars.iter().map(|jar| jar.id).collect(),
        }
    }
}

const fn again(wrong: Wrong, method: Method) -> &'static str {
    match (wrong, method) {
        (Wrong::Unprocessed, Method::BoilingWater) => "Boil them again",
        (Wrong::Unprocessed, Method::AtmosphericSteam) => "Steam them again",
        (Wrong::Unprocessed, Method::PressureDial | Method::PressureWeighted) => "Into the canner again",
        (Wrong::Undosed, _) => "Back to the bench for the dose",
        (Wrong::Stopped, _) => "Back to the bench, to put it right",
        (Wrong::Lid, _) => "Process again",
    }
}

fn of_failed(said: Said<'_>) -> WaysOut {
    let jar = said.jars[0];
    let found = jar.verdict.map_or("lid failed", LidVerdict::label);
    let named = format!("Jar {}: {found}.", jar.number);
    let words = if said.is_late() {
        format!("{named} {}", said.late())
    } else {
        format!(
            "{named} Before {{at}}: check the rim, new lid, the full time again. Or eat it within {FRIDGE_DAYS} days, or \
             freeze it with 1½ in headspace."
        )
    };
    said.ways_out(Wrong::Lid, words)
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

/// What stands against a jar beside its acid, in sentences.
fn other_stops(standing: &JarStanding) -> Vec<&str> {
    let is_dose = |code| matches!(code, Code::NoAcid | Code::AcidShort | Code::PotDoseShort);
    standing.against.iter().filter(|stop| !is_dose(stop.code)).map(|stop| stop.message.as_str()).collect()
}

/// Jars without their dose. Source: USDA Guide 1 and 3, from memory, for the day within which a jar is processed again; that
/// it is opened for its dose is common practice, no source.
fn of_undosed(said: Said<'_>) -> WaysOut {
    let also = other_stops(&said.jars[0].standing).join(" ");
    let named = format!("{} {also}", lacking(said.jars)).trim_end().to_owned();
    let words = if said.is_late() {
        format!("{named} {}", said.late())
    } else if said.jars[0].standing.mending() == Mending::Never {
        format!("{named} {}", chill_only(&said))
    } else {
        format!(
            "{named} Before {{at}}: open {them}, {}, heat the food to the boil, {}, and the full {} minutes. Or \
             into the refrigerator now, and eat {them} within {FRIDGE_DAYS} days.",
            doses_of(said.jars, said.load),
            said.lids(),
            said.load.clock.required().0,
            them = said.them(),
        )
    };
    said.ways_out(Wrong::Undosed, words)
}

/// What stays in the food, or was lost of it, leaves the cold and nothing else.
fn chill_only(said: &Said<'_>) -> String {
    let is_dry = said.jars.iter().any(|jar| jar.liquid_lost == Some(LiquidLost::Half));
    let (nothing, days) = if is_dry {
        ("Nothing puts it back", format!("2 to {HALF_GONE_DAYS}"))
    } else {
        ("Nothing takes that out again", FRIDGE_DAYS.to_string())
    };
    format!(
        "{nothing}, and a lid that seals does not make up for it. Before {{at}}: into the refrigerator, \
         and eat {them} within {days} days, or freeze {them} with 1½ in headspace. Later: discard {them} without tasting.",
        them = said.them()
    )
}

/// What is put right in an opened jar before it is processed again; nothing for what the full time alone puts right.
const fn put_right(code: Code) -> Option<&'static str> {
    match code {
        Code::JarUnsuited => Some("fill canning jars with two-piece lids"),
        Code::RecipeJar => Some("fill jars no larger than the recipe's"),
        Code::FreshCitrus => Some("add the dose of bottled lemon juice or citric acid"),
        Code::PhHigh => Some("stir in acid until a blended sample reads 4.6 or below"),
        Code::SteamLimit => Some("use boiling water and not steam"),
        Code::NoTestedProcess => Some("pack it in a way that has a tested process"),
        Code::WaterLow => Some("have enough water over the lids"),
        Code::CannerUnsuited => Some("use a canner that is made for it"),
        _ => None,
    }
}

/// Jars that something else stands against than their time and acid.
fn of_stopped(said: Said<'_>) -> WaysOut {
    let standing = &said.jars[0].standing;
    let found: Vec<&str> = standing.against.iter().map(|stop| stop.message.as_str()).collect();
    let found = found.join(" ");
    // What was seen on the towel names its jars by itself.
    let named =
        if found.starts_with("Jar") { found } else { format!("{}: {found}", who(said.jars, said.towel)) };
    let words = if said.is_late() {
        format!("{named} {}", said.late())
    } else if standing.mending() == Mending::Never {
        format!("{named} {}", chill_only(&said))
    } else {
        let mut right: Vec<&str> = Vec::new();
        for put in standing.against.iter().filter_map(|stop| put_right(stop.code)) {
            if !right.contains(&put) {
                right.push(put);
            }
        }
        let right: String = right.iter().map(|put| format!("{put}, ")).collect();
        format!(
            "{named} Before {{at}}: open {them}, {right}heat the food to the boil, {}, and the full time of what is in {them}. \
             Or into the refrigerator now, and eat {them} within {FRIDGE_DAYS} days.",
            said.lids(),
            them = said.them()
        )
    };
    said.ways_out(Wrong::Stopped, words)
}

fn of_unprocessed(said: Said<'_>) -> WaysOut {
    let (jars, load, now) = (said.jars, said.load, said.now);
    let is_all = jars.len() == said.towel.jars.len();
    let count = f64::from(u32::try_from(jars.len()).unwrap_or(u32::MAX));
    let who = if is_all { "The jars".to_owned() } else { capital(&counted(count, "jar")) };
    let of_jar = |jar: &&TowelJar| load.jars.iter().find(|other| other.id == jar.id);
    let least = jars.iter().filter_map(of_jar).map(|jar| load.held_ms(jar, now)).min();
    let held = least.unwrap_or_else(|| load.clock.unbroken_ms(now)) / Minutes(1).ms();
    let needed = load.clock.required().0;
    let had = format!("{who} had {held} of {needed} minutes {}.", unbroken(load.batch.method));
    let stays = jars.iter().find(|jar| jar.standing.mending() == Mending::Never);
    let words = if said.is_late() {
        format!("{had} {}", said.late())
    } else if let Some(jar) = stays {
        format!("{had} {} {}", other_stops(&jar.standing).join(" "), chill_only(&said))
    } else if said.cooling.iter().all(|jar| jar.keeps_its_lid(now)) {
        format!(
            "{had} They are still hot: put them back at once, lids as they are, for the full {needed} minutes."
        )
    } else {
        format!(
            "{had} Before {{at}}: new lids, warm water, and the full {needed} minutes. Or into the refrigerator before \
             then: heated to the boil, they can be done again within {} hours of lifting, or eaten within {FRIDGE_DAYS} days.",
            CHECK_BY.0 / 60
        )
    };
    let undosed: Vec<&TowelJar> = jars.iter().filter(|jar| !jar.dosed).copied().collect();
    let words = if undosed.is_empty() || said.is_late() || stays.is_some() {
        words
    } else {
        format!("{words} {} It goes in before the lid: {}.", lacking(&undosed), doses_of(&undosed, load))
    };
    said.ways_out(Wrong::Unprocessed, words)
}

/// Everything on a towel that somebody has to decide about: first the jars that are not processed, together, then those
/// without acid, together, then those that anything else stands against, like ones together, then each jar whose lid failed.
#[must_use]
pub fn ways_out(towel: &Towel, load: &CannerLoad, now: Moment) -> Vec<WaysOut> {
    let is = |jar: &&TowelJar, wrong: Wrong| {
        jar.rescue.is_none() && cooling(jar, towel, load, now).wrong() == Some(wrong)
    };
    let with = |wrong: Wrong| -> Vec<&TowelJar> { towel.jars.iter().filter(|jar| is(jar, wrong)).collect() };
    let alike = |jars: Vec<&'_ TowelJar>| -> Vec<Vec<JarId>> {
        let mut groups: Vec<Vec<&TowelJar>> = Vec::new();
        for jar in jars {
            match groups.iter_mut().find(|group| group[0].standing.against == jar.standing.against) {
                Some(group) => group.push(jar),
                None => groups.push(vec![jar]),
            }
        }
        groups.into_iter().map(|group| group.into_iter().map(|jar| jar.id).collect()).collect()
    };
    let together = |jars: &[&TowelJar], of: fn(Said<'_>) -> WaysOut| {
        (!jars.is_empty()).then(|| of(Said::of(jars, towel, load, now)))
    };
    let mut found: Vec<WaysOut> = Vec::new();
    found.extend(together(&with(Wrong::Unprocessed), of_unprocessed));
    found.extend(together(&with(Wrong::Undosed), of_undosed));
    for ids in alike(with(Wrong::Stopped)) {
        let jars: Vec<&TowelJar> = towel.jars.iter().filter(|jar| ids.contains(&jar.id)).collect();
        found.extend(together(&jars, of_stopped));
    }
    for jar in with(Wrong::Lid) {
        found.extend(together(&[jar], of_failed));
    }
    found
}

/// What stands over everything that a towel says of its lids, the worst first; `None` while nothing does.
#[must_use]
pub fn alarm(towel: &Towel, ways_out: &[WaysOut]) -> Option<Alarm> {
    let of = |wrong: Wrong| -> Vec<&WaysOut> { ways_out.iter().filter(|way| way.wrong == wrong).collect() };
    let unit = |ways: &[&WaysOut]| {
        let jars: usize = ways.iter().map(|way| way.jars.len()).sum();
        counted(f64::from(u32::try_from(jars).unwrap_or(u32::MAX)), "jar")
    };
    let unprocessed = of(Wrong::Unprocessed);
    if !unprocessed.is_empty() {
        return Some(Alarm {
            figure: "Not processed",
            unit: unit(&unprocessed),
            words: "These jars are not cooling: they are waiting to be processed again.".to_owned(),
        });
    }
    let undosed = of(Wrong::Undosed);
    if !undosed.is_empty() {
        let words = "A lid that seals does not make up for it.".to_owned();
        return Some(Alarm { figure: "No acid", unit: format!("in {}", unit(&undosed)), words });
    }
    let stopped = of(Wrong::Stopped);
    let first = stopped.first()?.jars.first()?;
    let brief = towel.jars.iter().find(|jar| jar.id == *first).and_then(|jar| jar.standing.brief())?;
    Some(Alarm {
        figure: "Do not eat",
        unit: unit(&stopped),
        words: format!("{}. A lid that seals does not make up for it.", capital(&brief)),
    })
}

/// Until when a jar in the refrigerator can still be processed again; `None` of one that is not waiting for that.
#[must_use]
pub fn again_until(cooling: &Cooling, now: Moment) -> Option<Moment> {
    let is_time_only = matches!(cooling.wrong(), Some(Wrong::Unprocessed | Wrong::Undosed | Wrong::Stopped));
    let may = is_time_only && cooling.may(Rescue::Reprocess, None, now).is_ok();
    may.then(|| window(cooling.lifted_at).1)
}
