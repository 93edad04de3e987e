//! Acids of recipes: bottled lemon and lime juice stand for each other and for vinegar, vinegar for nothing else, citric acid only
//! where the recipe has it. Source: extension guidance on changing tested salsas, from memory.

use serde::Serialize;

use crate::jars::acid::Agent;

use super::part::{Part, Role, plain};

/// A kind of acid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Acid {
    /// Lemon or lime juice, bottled; may stand for vinegar.
    Juice,
    /// Vinegar; stands for nothing else.
    Vinegar,
    /// Citric acid; only where the recipe has it.
    Citric,
    /// Another one, by its own name.
    Other,
}

/// The kind of an acid, by its name.
pub(super) fn acid(part: &Part) -> Acid {
    let name = plain(&part.name);
    if name.contains("citric") {
        Acid::Citric
    } else if name.contains("vinegar") {
        Acid::Vinegar
    } else if name.contains("lemon") || name.contains("lime") {
        Acid::Juice
    } else {
        Acid::Other
    }
}

/// The agent of a recipe as a batch is labelled with it: the acid it is made with, the strongest first.
#[must_use]
pub fn agent_of(parts: &[Part]) -> Agent {
    let has = |kind: Acid| parts.iter().any(|part| part.role == Role::Acid && acid(part) == kind);
    if has(Acid::Citric) {
        Agent::CitricAcid
    } else if has(Acid::Vinegar) && !has(Acid::Juice) {
        Agent::Vinegar5Pct
    } else {
        Agent::BottledLemonJuice
    }
}

/// Why something in the bowls may not stand for what the recipe has.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Swap {
    /// What is in the bowls.
    pub name: String,
    /// Whether it may stay.
    pub safe: bool,
    /// Why, for a person.
    pub says: String,
}

/// Per cent that a name speaks of: "vinegar 5 %".
fn per_cent(name: &str) -> Option<f64> {
    let before = name.split('%').next().filter(|_| name.contains('%'))?;
    before.split_whitespace().last()?.replace(',', ".").parse().ok()
}

/// What stands for something else among the acids.
pub(super) fn swaps(base: &[Part], actual: &[Part]) -> Vec<Swap> {
    let acids = |parts: &'_ [Part]| -> Vec<Part> {
        parts.iter().filter(|part| part.role == Role::Acid && part.is_there()).cloned().collect()
    };
    let (base, actual) = (acids(base), acids(actual));
    let has = |kind: Acid| base.iter().any(|part| acid(part) == kind);
    let mut found = Vec::new();
    for part in &actual {
        let kind = acid(part);
        let mut say = |safe: bool, says: &str| {
            found.push(Swap { name: part.name.clone(), safe, says: says.to_owned() });
        };
        let plain = plain(&part.name);
        if kind == Acid::Juice && (plain.contains("fresh") || plain.contains("squeezed")) {
            say(false, "Fresh lemons and limes differ too much: use bottled juice.");
        }
        let same = base.iter().filter(|other| acid(other) == kind);
        let strongest = same.filter_map(|other| per_cent(&other.name)).fold(0.0, f64::max);
        if per_cent(&part.name).is_some_and(|given| given < strongest) {
            say(false, "This vinegar is weaker than the recipe's: use one of at least its strength.");
        }
        match kind {
            Acid::Vinegar if !has(Acid::Vinegar) && has(Acid::Juice) => {
                say(false, "Vinegar is weaker than lemon or lime juice and never stands for it.");
            }
            Acid::Juice if !has(Acid::Juice) && has(Acid::Vinegar) => {
                say(
                    true,
                    "Bottled lemon or lime juice may stand for vinegar, cup for cup; it tastes sharper.",
                );
            }
            Acid::Citric if !has(Acid::Citric) => {
                say(false, "Citric acid goes in only where the recipe has it.");
            }
            _ => {}
        }
    }
    found
}
