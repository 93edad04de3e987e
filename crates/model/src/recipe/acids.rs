//! Acids of recipes: what is one by its name, and which may stand for which.
//!
//! Only bottled lemon or lime juice, vinegar of 5 % and citric acid have a strength that can be relied on. Bottled juices stand
//! for each other and for vinegar, vinegar for nothing else, citric acid only where the recipe has it. Source: extension
//! guidance on changing tested salsas, from memory.

use crate::jars::acid::Agent;
use crate::recipe::part::{Part, Role, Strength, plain};
use crate::recipe::words::Words;

/// A kind of acid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Acid {
    /// Lemon or lime juice, bottled; may stand for vinegar.
    Juice,
    /// Vinegar; stands for nothing else.
    Vinegar,
    /// Citric acid; only where the recipe has it.
    Citric,
    /// Another one, by its own name.
    Other,
}

/// What a name says of acid.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Named {
    /// It is one whose strength is known.
    Acid(Acid),
    /// It sounds like one and is none that can be relied on.
    NotAcid {
        /// What it is instead.
        role: Role,
        /// Why, for a person.
        why: &'static str,
    },
    /// It could be one of two.
    Asked(&'static str),
}

const FRESH: &str = "Fresh lemons and limes differ too much: use bottled juice.";
const NOT_JUICE: &str = "That is not the juice, and no acid that can be relied on: use bottled juice.";
const SWEETENED: &str =
    "That is sweetened and thinned, and no acid that can be relied on: use bottled juice.";
const BRINE: &str = "Brine and pickle juice are thinned by what lay in them: use fresh vinegar of 5 %.";
const HOME_MADE: &str = "Nobody knows how strong home-made vinegar is: use vinegar of 5 %.";
/// What is said of a vinegar that is weaker than 5 %.
pub const WEAK: &str = "This vinegar is weaker than 5 %: use one of at least 5 %.";
const RICE: &str = "Rice vinegar is often weaker than 5 %: how strong is it?";
const WHICH: &str = "Which is it: vinegar or lemon juice? They are not as strong.";
const NO_DOSE: &str = "No tested recipe relies on that as its acid.";

/// Per cent that a vinegar has to have at the least. Source: USDA Guide 1, from memory.
const VINEGAR_PER_CENT: f64 = 5.0;

/// What a name says of acid; none when it does not speak of one.
#[must_use]
pub fn named(name: &str) -> Option<Named> {
    let words = Words::of(name);
    let no = |role: Role, why: &'static str| Some(Named::NotAcid { role, why });
    // The mineral, not the fruit.
    if words.has_any(&["pickling lime", "slaked lime", "hydrated lime"]) {
        return None;
    }
    let citrus = words.has_any(&["lemon", "lemons", "lime", "limes"]);
    let vinegar = words.has_any(&["vinegar", "vinegars"]);
    if words.has_any(&["pickle", "pickles", "pickled", "brine"])
        && (vinegar || words.has_any(&["juice", "brine"]))
    {
        return no(Role::Liquid, BRINE);
    }
    if words.has_any(&["lemonade", "limeade"])
        || (citrus && words.has_any(&["cordial", "squash", "syrup", "soda", "drink", "concentrate", "curd"]))
    {
        return no(Role::Liquid, SWEETENED);
    }
    if words.has("citric") {
        return Some(Named::Acid(Acid::Citric));
    }
    if words.has_any(&[
        "ascorbic acid",
        "vitamin c",
        "aspirin",
        "cream of tartar",
        "tartaric acid",
        "fruit fresh",
    ]) {
        return no(Role::Free, NO_DOSE);
    }
    if vinegar {
        if citrus && words.has("or") {
            return Some(Named::Asked(WHICH));
        }
        if words.has_any(&["homemade", "home made", "kombucha"]) {
            return no(Role::Liquid, HOME_MADE);
        }
        return match per_cent(name) {
            Some(given) if given < VINEGAR_PER_CENT => no(Role::Liquid, WEAK),
            None if words.has("rice") => Some(Named::Asked(RICE)),
            _ => Some(Named::Acid(Acid::Vinegar)),
        };
    }
    if !citrus {
        return None;
    }
    if words.has_any(&[
        "pepper", "thyme", "basil", "balm", "grass", "verbena", "salt", "cucumber", "leaf", "leaves",
    ]) {
        return None;
    }
    if words.has_any(&["zest", "peel", "rind", "slice", "slices", "wedge", "wedges", "oil", "extract"]) {
        return None;
    }
    let is_juice = words.has_any(&["juice", "juices"]);
    let is_fresh = words.has_any(&["fresh", "freshly", "squeezed", "juice of", "juiced", "pressed"]);
    match (is_juice, is_fresh && !words.has("bottled")) {
        (true, false) => Some(Named::Acid(Acid::Juice)),
        (true, true) => no(Role::Free, FRESH),
        (false, _) => no(Role::Free, NOT_JUICE),
    }
}

/// The kind of an acid, by its name.
pub fn acid(part: &Part) -> Acid {
    match named(&part.name) {
        Some(Named::Acid(kind)) => kind,
        _ => Acid::Other,
    }
}

/// The acid that a part brings, of a strength that can be relied on.
#[must_use]
pub fn known_acid(part: &Part) -> Option<Acid> {
    match named(&part.name)? {
        Named::Acid(kind) if part.strength != Some(Strength::Weak) => Some(kind),
        _ => None,
    }
}

/// The agent of plain tomatoes whose dose an acid is held against.
#[must_use]
pub const fn agent(kind: Acid) -> Option<Agent> {
    match kind {
        Acid::Juice => Some(Agent::BottledLemonJuice),
        Acid::Vinegar => Some(Agent::Vinegar5Pct),
        Acid::Citric => Some(Agent::CitricAcid),
        Acid::Other => None,
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

/// Per cent that a name speaks of: "vinegar 5 %", "vinegar, 5 percent", "4-percent vinegar".
#[must_use]
pub fn per_cent(name: &str) -> Option<f64> {
    let name = plain(name).replace("per cent", "%").replace("percent", "%").replace("-%", "%");
    let before = name.split('%').next().filter(|_| name.contains('%'))?;
    let number =
        before.split(|sign: char| sign.is_whitespace() || sign == '(').rfind(|word| !word.is_empty())?;
    number.replace(',', ".").parse().ok()
}

/// Whether the strength of a vinegar was never said: neither by its name nor by who poured it.
#[must_use]
pub fn is_strength_open(part: &Part) -> bool {
    acid(part) == Acid::Vinegar
        && part.is_there()
        && part.strength.is_none()
        && per_cent(&part.name).is_none()
}
