//! What makes a recipe itself unfit for jars, before there is a bowl.
//!
//! A process needs an acid with a measure, in boiling water and in steam; meat, fish, egg, dairy, pasta, rice, beans, nuts, flour
//! and the like are in no process that a household can hold here. Source: USDA Guide 3 and extension guidance, from memory.

use bodega_model::jars::acid::{least_per_jar, per_jar};
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Finding};
use bodega_model::ledger::keep::COLD_INSTEAD;
use bodega_model::measures::amounts::{Dimension, Unit, decimal, exact, ratio};
use bodega_model::measures::words::capital;
use bodega_model::published::source::Source;
use bodega_model::recipe::acids::{Named, agent, known_acid, named};
use bodega_model::recipe::part::{PacketAcid, Part, Per, Role, Side};
use bodega_model::recipe::process::RecipeProcess;
use num_rational::BigRational;
use num_traits::Zero;

use super::case::{CaseRecipe, Heating};
use crate::recipe::line::{each_jar, in_each_or_all};
use crate::recipe::packet::{is_packet, open_questions};
use crate::recipe::role::role_by_name;

pub(super) fn source() -> Source {
    Source::recalled("USDA Guide 3 and university extension guidance on changing tested recipes")
}

const WHY_ACID: &str = "In boiling water and steam only acid keeps botulism away, and it has to be measured: bottled lemon or lime \
                        juice, vinegar of 5 %, or citric acid.";

/// Parts that are in no jar, by their names, whatever they were called.
#[must_use]
pub fn forbidden<'a>(parts: impl IntoIterator<Item = &'a Part>) -> Vec<Finding> {
    let there = parts.into_iter().filter(|part| part.is_there());
    let by_name: Vec<(Role, &str)> = there.map(|part| (role_by_name(part), part.name.as_str())).collect();
    let mut found = Vec::new();
    for role in [Role::NotAllowed, Role::Thickener] {
        let mut names: Vec<&str> = Vec::new();
        for (_, name) in by_name.iter().filter(|(of, _)| *of == role) {
            if !names.contains(name) {
                names.push(name);
            }
        }
        if names.is_empty() {
            continue;
        }
        let named = names.join(", ");
        let finding = if role == Role::Thickener {
            Finding::new(
                Code::Thickener,
                format!("{} in it: never before canning.", capital(&named)),
                "A thickened jar heats through far more slowly than the one that was tested.",
                "Leave it out and thicken when you open the jar.",
                source(),
            )
        } else {
            Finding::new(
                Code::LowAcidAddition,
                format!("{} in it: no recipe for jars here has that.", capital(&named)),
                "Meat, fish, egg, dairy, pasta, rice, beans and nuts carry germs and hold back the heat; no process that a kitchen \
                 can keep here covers them.",
                format!("Leave it out and add it when you open the jar. {COLD_INSTEAD}"),
                source(),
            )
        };
        found.push(finding.naming(named));
    }
    found
}

/// How the acid of a recipe stands.
pub(super) enum AcidOf {
    /// It is there, and measured.
    Measured,
    /// It may be, and something is still to be said.
    Open(String),
    /// It may be in a packet whose label nobody read.
    OnLabel(String),
    /// There is none that can be relied on; what sounded like one, and why it is none.
    None(Option<(String, &'static str)>),
}

fn is_measured(part: &Part) -> bool {
    part.measured().is_some_and(|(amount, unit)| {
        !amount.is_zero() && matches!(unit.dimension(), Dimension::Volume | Dimension::Mass)
    })
}

pub(super) fn acid_of(base: &[Part]) -> AcidOf {
    let there: Vec<&Part> = base.iter().filter(|part| part.is_there()).collect();
    let packets = || there.iter().copied().filter(|part| is_packet(part));
    let acid_in = |part: &Part| part.packet.and_then(|label| label.acid);
    let mut known = there.iter().filter(|part| known_acid(part).is_some());
    if known.clone().any(|part| is_measured(part))
        || packets().any(|part| acid_in(part) == Some(PacketAcid::Inside))
    {
        return AcidOf::Measured;
    }
    if let Some(part) = known.next() {
        return AcidOf::Open(format!(
            "How much {}? The page has to say it in spoons, cups or by weight.",
            part.name
        ));
    }
    let asked = there.iter().find_map(|part| match named(&part.name) {
        Some(Named::Asked(question)) => Some(question.to_owned()),
        // Called an acid, and none that has a name here.
        None if role_by_name(part) == Role::Acid => Some(format!(
            "Which acid is {}? Lemon juice, vinegar or citric acid, as the page has it.",
            part.name
        )),
        _ => None,
    });
    let label = packets().filter(|part| acid_in(part).is_none()).find_map(|part| open_questions(part).pop());
    match (asked, label) {
        (Some(question), _) => AcidOf::Open(question),
        (None, Some(question)) => AcidOf::OnLabel(question),
        (None, None) => AcidOf::None(there.iter().find_map(|part| match named(&part.name)? {
            Named::NotAcid { why, .. } => Some((part.name.clone(), why)),
            _ => None,
        })),
    }
}

/// Pounds of raw tomatoes to a quart of plain ones. Source: USDA Guide 3 (21 lb to 7 quarts), from memory.
const POUNDS_TO_A_QUART: i64 = 3;

/// How many times the dose of plain tomatoes there is: in the pot by the weight of the tomatoes, in the jars by the jar. `None` when
/// nobody can weigh them.
fn share_of_plain_dose(base: &[Part]) -> Option<BigRational> {
    let mut pounds = BigRational::zero();
    for part in base.iter().filter(|part| role_by_name(part) == Role::Tomato) {
        pounds += part.grams()? / Unit::Pound.size();
    }
    let quarts = pounds / ratio(POUNDS_TO_A_QUART, 1);
    let mut share = BigRational::zero();
    for part in base.iter().filter(|part| part.is_there()) {
        let Some(agent) = known_acid(part).and_then(agent) else { continue };
        let teaspoons = part.millilitres().or_else(|| part.grams())? / Unit::Teaspoon.size();
        let needed = match part.per {
            Per::Jar(jar) => exact(least_per_jar(agent, jar).as_f64()),
            Per::Batch => exact(per_jar(agent, JarSize::Quart).as_f64()) * &quarts,
        };
        if needed.is_zero() {
            return None;
        }
        share += teaspoons / needed;
    }
    Some(share)
}

/// Whether a recipe's jars are heated in water or steam, where only acid keeps them safe.
fn needs_acid(process: Option<&RecipeProcess>, heating: Option<Heating>) -> bool {
    match heating.and_then(Heating::method) {
        Some(method) => !method.is_pressure(),
        None => process.is_none_or(|process| process.times.iter().any(|line| !line.method.is_pressure())),
    }
}

/// Whether the recipe itself is fit for jars: its acid, its packets, its measures.
pub(super) fn fit(recipe: &CaseRecipe, heating: Option<Heating>) -> Vec<Finding> {
    // What cannot be read is asked for elsewhere, and without a process there are no jars.
    if recipe.base.is_empty() || recipe.process.is_none() {
        return Vec::new();
    }
    let base = &recipe.base;
    let mut found = Vec::new();
    if needs_acid(recipe.process.as_ref(), heating) {
        found.extend(acid(recipe));
    }
    let mut asks: Vec<String> = Vec::new();
    if recipe.labels_asked {
        asks.extend(base.iter().filter(|part| part.is_there()).flat_map(open_questions));
    }
    asks.extend(base.iter().filter_map(each_jar).map(|each| in_each_or_all(each.jar)));
    let unmeasured = |part: &&Part| part.amount.is_none() && role_by_name(part).side() == Side::Down;
    asks.extend(base.iter().filter(unmeasured).map(Part::not_on_its_page));
    // Said already, where it is about the acid.
    asks.retain(|ask| !found.iter().any(|finding: &Finding| finding.message == *ask));
    found.extend(asks.into_iter().map(|ask| {
        Finding::new(
            Code::RecipeRatio,
            ask,
            "What nobody measured can be anything; a tested recipe is its proportions.",
            "Look on the page or the label and say it; until then keep it cold or freeze it.",
            source(),
        )
        .untold()
    }));
    found
}

fn acid(recipe: &CaseRecipe) -> Option<Finding> {
    let base = &recipe.base;
    match acid_of(base) {
        AcidOf::None(sounds) => {
            let but = sounds.map(|(name, why)| format!(" {}: {why}", capital(&name))).unwrap_or_default();
            Some(Finding::new(
                Code::RecipeUntested,
                format!("No acid is in it that can be relied on: its jars cannot be canned.{but}"),
                WHY_ACID,
                format!(
                    "{COLD_INSTEAD} If the page has an acid that is not written down here, write it down."
                ),
                source(),
            ))
        }
        // Before labels were asked about, it is neither alarm nor claim.
        AcidOf::OnLabel(_) if !recipe.labels_asked => None,
        AcidOf::Open(question) | AcidOf::OnLabel(question) => Some(
            Finding::new(
                Code::RecipeUntested,
                question,
                WHY_ACID,
                "Look on the page or the label and say it; until then keep it cold or freeze it.",
                source(),
            )
            .untold(),
        ),
        AcidOf::Measured => {
            let share = share_of_plain_dose(base)?;
            // A hair under it is a decimal number.
            let is_less = !share.is_zero() && decimal(&share) < 1.0 - 1e-6;
            (is_less && recipe.is_all_its_acid != Some(true)).then(|| {
                Finding::new(
                    Code::AcidShort,
                    "Is that all of its acid? Plain tomatoes of this weight would get more.",
                    "Some pages put acid into the pot and into the jars, or name it once at the end; a line is easily missed.",
                    "Look through the page once more. If there is no more, say so; if there is, write it down.",
                    source(),
                )
                .untold()
            })
        }
    }
}
