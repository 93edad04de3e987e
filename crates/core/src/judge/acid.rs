//! Whether every jar has its acid.

use bodega_model::jars::acid::{Agent, LeastDose, least_per_jar, per_jar, pot_share, total};
use bodega_model::jars::kinds::AcidSource;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::judge::finding::{Code, Finding, Severity};
use bodega_model::measures::words::counted;
use bodega_model::published::source::Source;

use super::case::{Case, CaseAcid};

/// Months an opened bottle of lemon juice keeps its place: a season. Common practice, no source.
const BOTTLE_MONTHS: f64 = 6.0;
const WHY: &str = "Tomatoes lie so near the line of pH 4.6 that only the added acid keeps the bacteria that cause botulism down.";

impl CaseAcid {
    /// Whether an amount was named for anything, be it nothing.
    fn has_dose(&self) -> bool {
        self.pot_dose_tsp.is_some() || self.per_jar_tsp.as_ref().is_some_and(|doses| !doses.is_empty())
    }

    /// What went into the jar itself, in teaspoons.
    fn own(&self, jar: JarSize) -> f64 {
        self.per_jar_tsp.as_ref().and_then(|doses| doses.get(&jar)).copied().unwrap_or(0.0)
    }

    /// What a jar gets: its own dose and its share of the pot, in teaspoons.
    fn given(&self, jar: JarSize, jars: &[(JarSize, u32)]) -> f64 {
        self.own(jar) + self.pot_dose_tsp.map_or(0.0, |pot| pot_share(pot, jar, jars))
    }
}

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let Some(acid) = &case.acid else { return vec![no_acid("No acid is planned for the jars.")] };
    // While it is not named it is asked for; without an amount there is nothing to hold against anything either.
    let Some(agent) = acid.agent else {
        return if acid.has_dose() { Vec::new() } else { vec![which()] };
    };
    let strength = [fresh(acid, agent), lime(acid, agent), weak(acid, agent)];
    let dose = dose(case, acid, agent).or_else(|| more(case, acid, agent));
    strength.into_iter().chain([dose, bottle(acid, agent)]).flatten().collect()
}

/// An acid that nobody named.
fn which() -> Finding {
    let found = Finding::new(
        Code::NoAcid,
        "Which acid, and how much? None is named.",
        WHY,
        "Say bottled lemon juice, citric acid or vinegar of 5 %: each has a dose of its own.",
        Source::usda_guide_3(),
    );
    found.untold()
}

/// Bottled lime juice. Source: USDA Guide 3 names lemon juice, citric acid and vinegar alone for plain tomatoes, from memory.
fn lime(acid: &CaseAcid, agent: Agent) -> Option<Finding> {
    let lime = agent == Agent::BottledLemonJuice && acid.source == Some(AcidSource::Lime);
    lime.then(|| {
        let found = Finding::new(
            Code::AcidShort,
            "The juice is of limes: no dose of it is published for plain tomatoes.",
            WHY,
            "Use bottled lemon juice, citric acid or vinegar of 5 %, or ask your local extension office.",
            Source::usda_guide_3(),
        );
        found.naming("lime juice").untold()
    })
}

/// Vinegar that is no acid for this. Source: USDA Guide 3, vinegar of 5 percent acidity, from memory.
fn weak(acid: &CaseAcid, agent: Agent) -> Option<Finding> {
    let weak = agent == Agent::Vinegar5Pct && acid.source == Some(AcidSource::Weak);
    weak.then(|| no_acid("The vinegar is weaker than 5 %, or home-made: that counts as none."))
}

/// How many times the dose is worth a word.
const DOUBLE: f64 = 2.0;

/// Far more than the dose: sour, and safe.
fn more(case: &Case, acid: &CaseAcid, agent: Agent) -> Option<Finding> {
    let jars: Vec<_> = case.sizes().collect();
    let is_double =
        |(jar, _): &&(JarSize, u32)| acid.given(*jar, &jars) >= DOUBLE * per_jar(agent, *jar).as_f64() - 1e-9;
    let (jar, _) = jars.iter().find(is_double)?;
    Some(Finding::new(
        Code::AcidMore,
        format!(
            "{} of {agent} in a {jar} is more than twice its dose, or just that.",
            said(agent, acid.given(*jar, &jars))
        ),
        "More acid only makes it sour; it does no harm.",
        "Nothing. Sugar in the jar or at the table takes the edge off; the acid stays.",
        Source::usda_guide_3(),
    ))
}

fn no_acid(message: &str) -> Finding {
    Finding::new(
        Code::NoAcid,
        message,
        WHY,
        "Put the dose into every empty jar before the food: 2 Tbsp bottled lemon juice or ½ tsp citric acid a quart, \
         half of it a pint.",
        Source::usda_guide_3(),
    )
}

fn fresh(acid: &CaseAcid, agent: Agent) -> Option<Finding> {
    let fresh = agent == Agent::BottledLemonJuice && acid.source == Some(AcidSource::Fresh);
    fresh.then(|| {
        Finding::new(
            Code::FreshCitrus,
            "The juice is from fresh lemons.",
            "Fresh lemons differ in strength; bottled juice is made to one.",
            "Use bottled lemon juice or citric acid for the dose. Fresh juice may be added on top, for taste.",
            Source::usda_guide_3(),
        )
    })
}

/// What each jar gets, in the jar and from the pot, against what it needs.
fn dose(case: &Case, acid: &CaseAcid, agent: Agent) -> Option<Finding> {
    let jars: Vec<_> = case.sizes().collect();
    if !acid.has_dose() {
        return Some(no_acid(&format!("How much {agent}? No dose is named.")).untold());
    }
    let doses = || {
        jars.iter().map(|(jar, _)| {
            let given_tsp = acid.given(*jar, &jars);
            (*jar, LeastDose { needed: least_per_jar(agent, *jar), given_tsp })
        })
    };
    let shortest =
        doses().filter(|(_, dose)| !dose.enough()).max_by(|a, b| a.1.short_tsp().total_cmp(&b.1.short_tsp()));
    let Some((jar, dose)) = shortest else {
        let asked = |(jar, dose): (JarSize, LeastDose)| {
            let asked = LeastDose { needed: per_jar(agent, jar), ..dose };
            let metric = least_per_jar(agent, jar).as_f64() < jar_share(agent, jar);
            (metric && !asked.enough()).then_some((jar, asked))
        };
        let (jar, dose) = doses().find_map(asked)?;
        return Some(jar_short(agent, jar, dose).lighter(Severity::Warn));
    };
    let nothing = doses().all(|(_, dose)| dose.given_tsp <= 0.0);
    let only_pot = jars.iter().all(|(jar, _)| acid.own(*jar) <= 0.0);
    match acid.pot_dose_tsp {
        _ if nothing => Some(no_acid("No acid is in it.")),
        Some(given_tsp) if only_pot => Some(pot_short(agent, &jars, given_tsp)),
        _ => Some(jar_short(agent, jar, dose)),
    }
}

/// The published dose in proportion to what a jar holds, in teaspoons.
fn jar_share(agent: Agent, jar: JarSize) -> f64 {
    let pint = per_jar(agent, JarSize::Pint);
    pint.in_proportion(jar.pints()).as_f64()
}

/// In the published spoons, and in millilitres for everybody else's.
fn said(agent: Agent, tsp: f64) -> String {
    Spoons::Us.amount_with_volume(agent, tsp)
}

fn jar_short(agent: Agent, jar: JarSize, dose: LeastDose) -> Finding {
    let asked = LeastDose { needed: per_jar(agent, jar), ..dose };
    Finding::new(
        Code::AcidShort,
        format!(
            "{} of {agent} in a {jar} is too little: it needs {}.",
            said(agent, dose.given_tsp),
            said(agent, per_jar(agent, jar).as_f64())
        ),
        WHY,
        format!("Add {} more to each {jar} before the lid goes on.", said(agent, asked.short_tsp())),
        Source::usda_guide_3(),
    )
}

fn pot_short(agent: Agent, jars: &[(JarSize, u32)], given_tsp: f64) -> Finding {
    let dose = LeastDose { needed: total(agent, jars), given_tsp };
    let count: u32 = jars.iter().map(|(_, count)| count).sum();
    Finding::new(
        Code::PotDoseShort,
        format!(
            "{} of {agent} in the pot does not cover {}: the full dose is {}.",
            said(agent, given_tsp),
            counted(f64::from(count), "jar"),
            said(agent, dose.needed.as_f64())
        ),
        "A dose stirred into the pot is shared by all jars; each jar more makes every jar's share smaller.",
        format!("Stir in {} more, or put what is missing into each jar.", said(agent, dose.short_tsp())),
        Source::usda_guide_3(),
    )
}

/// The same once the lids are on: what is said of the bench would come too late, and the jars are named.
pub(super) fn under_lids(finding: Finding, numbers: &[u32]) -> Finding {
    if !matches!(finding.code, Code::NoAcid | Code::AcidShort | Code::PotDoseShort) {
        return finding;
    }
    let names: Vec<String> = numbers.iter().map(u32::to_string).collect();
    let (who, have) = if names.len() == 1 { ("Jar", "has") } else { ("Jars", "have") };
    let message = match finding.code {
        Code::NoAcid => format!("{who} {} {have} no dose of acid.", names.join(", ")),
        _ => format!("{who} {} {have} less acid than the dose. {}", names.join(", "), finding.message),
    };
    Finding {
        message,
        do_now: "Acid after the lid is not acid. Once out of the canner, and within the day: open, put in what is \
            missing, heat the food to the boil, new lid, the full time again. Or keep it cold and eat it within days."
            .to_owned(),
        ..finding
    }
}

fn bottle(acid: &CaseAcid, agent: Agent) -> Option<Finding> {
    let old = agent == Agent::BottledLemonJuice
        && acid.source != Some(AcidSource::Fresh)
        && acid.bottle_age_months.is_some_and(|months| months > BOTTLE_MONTHS);
    old.then(|| {
        Finding::new(
            Code::BottleOld,
            "The bottle of lemon juice has been open for more than a season.",
            "Open juice loses taste and may lose strength.",
            "Open a new bottle for this batch.",
            Source::common_practice(),
        )
    })
}
