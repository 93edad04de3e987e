//! Whether every jar has its acid.

use super::case::{AcidSource, Case, CaseAcid};
use super::{Code, Finding};
use crate::jars::acid::{Agent, LeastDose, label_of, least_per_jar, least_total, per_jar, total};
use crate::measures::words::counted;
use crate::tables::source::Source;

/// Months an opened bottle of lemon juice keeps its place: a season. Common practice, no source.
const BOTTLE_MONTHS: f64 = 6.0;
const WHY: &str = "Tomatoes lie so near the line of pH 4.6 that only the added acid keeps the bacteria that cause botulism down.";

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let Some(acid) = &case.acid else { return vec![no_acid("No acid is planned for the jars.")] };
    [fresh(acid), dose(case, acid), bottle(acid)].into_iter().flatten().collect()
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

fn fresh(acid: &CaseAcid) -> Option<Finding> {
    let fresh = acid.agent == Agent::BottledLemonJuice && acid.source == Some(AcidSource::Fresh);
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

/// The dose, in the jars or in the pot; either is enough when it covers every jar.
fn dose(case: &Case, acid: &CaseAcid) -> Option<Finding> {
    let jars: Vec<_> = case.sizes().collect();
    let given = |doses: &std::collections::BTreeMap<_, f64>, jar| doses.get(&jar).copied().unwrap_or(0.0);
    let in_jars = acid.per_jar_tsp.as_ref().map(|doses| {
        jars.iter()
            .map(|(jar, _)| {
                (*jar, LeastDose { needed: least_per_jar(acid.agent, *jar), given_tsp: given(doses, *jar) })
            })
            .filter(|(_, dose)| !dose.enough())
            .max_by(|a, b| a.1.short_tsp().total_cmp(&b.1.short_tsp()))
    });
    let in_pot =
        acid.pot_dose_tsp.map(|given_tsp| LeastDose { needed: least_total(acid.agent, &jars), given_tsp });
    if in_jars == Some(None) || in_pot.is_some_and(LeastDose::enough) {
        return None;
    }
    let nothing = acid.per_jar_tsp.iter().flat_map(|doses| doses.values()).all(|tsp| *tsp <= 0.0)
        && acid.pot_dose_tsp.is_none_or(|tsp| tsp <= 0.0);
    match (in_jars.flatten(), in_pot) {
        (None, None) => None,
        _ if nothing => Some(no_acid("The dose of acid is nothing.")),
        (Some((jar, dose)), _) => Some(Finding::new(
            Code::AcidShort,
            format!(
                "{} of {} in a {jar} is too little: it needs {}.",
                label_of(dose.given_tsp),
                acid.agent,
                per_jar(acid.agent, jar).label()
            ),
            WHY,
            format!("Add {} more to each {jar} before the lid goes on.", label_of(dose.short_tsp())),
            Source::usda_guide_3(),
        )),
        (None, Some(dose)) => Some(pot_short(acid.agent, &jars, dose)),
    }
}

fn pot_short(agent: Agent, jars: &[(crate::jars::size::JarSize, u32)], dose: LeastDose) -> Finding {
    let count: u32 = jars.iter().map(|(_, count)| count).sum();
    Finding::new(
        Code::PotDoseShort,
        format!(
            "{} of {agent} in the pot does not cover {}: {}.",
            label_of(dose.given_tsp),
            counted(f64::from(count), "jar"),
            format_args!("the full dose is {}", total(agent, jars).total_label())
        ),
        "A dose stirred into the pot is shared by all jars; each jar more makes every jar's share smaller.",
        format!("Stir in {} more, or put the full dose into each jar.", label_of(dose.short_tsp())),
        Source::usda_guide_3(),
    )
}

fn bottle(acid: &CaseAcid) -> Option<Finding> {
    let old = acid.agent == Agent::BottledLemonJuice
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
