//! What is in the bowls against the recipe: every proportion that changed, and on which side of it is safe.
//!
//! Every amount counts in proportion to the tomatoes, but for what goes into the jars: that counts by the jars that are filled.
//! Like measures are compared as they are; where cups meet pounds the comparison is made by room and by weight with averages,
//! and the stricter one counts. Source: USDA Guide 3 and extension guidance on changing tested salsas, from memory.

use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Ruling;
use bodega_model::measures::amounts::{Dimension, Unit, decimal, in_words, ratio};
use bodega_model::recipe::acids::{Acid, Named, acid, is_strength_open, named};
use bodega_model::recipe::part::{PacketLabel, Part, Role, Side, plain};
use num_rational::BigRational;
use num_traits::Zero;
use serde::Serialize;

use self::line::{Between, By, Line, Scale, alike, change_in_jars, change_in_pot, lines, sum, there, times};
use super::packet::{needed_by_label, open_questions};
use super::role::role_by_name;
use crate::recipe::swap::{Swap, swaps};

mod line;

/// Change of a proportion that no kitchen can measure: a third of a cup written as 0.333.
fn slack() -> BigRational {
    ratio(1, 2000)
}

/// One proportion.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Proportion {
    /// What, as the recipe calls it.
    pub name: String,
    /// What it does to the acid.
    pub role: Role,
    /// Which side of the recipe is safe.
    pub side: Side,
    /// What the two figures beside it count: `g`, `mL`, `piece` or `packet`.
    pub per: Option<Unit>,
    /// So much of it to a kilogram of tomatoes in the recipe; `null` when nobody can tell.
    pub base_per_kg: Option<f64>,
    /// And in the bowls.
    pub actual_per_kg: Option<f64>,
    /// By which share it changed: 0.33 is a third more, -0.17 a sixth less; `null` when the recipe has none of it, or nobody
    /// can tell.
    pub change: Option<f64>,
    /// Whether it is on the safe side; `null` when nobody can tell.
    pub safe: Option<bool>,
    /// Whether it is compared by averages of what a cup or a piece weighs.
    pub averaged: bool,
    /// What is to be said of it, for a person.
    pub says: String,
}

/// The bowls against the recipe.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Comparison {
    /// How many times the recipe's tomatoes there are; `null` when nobody can tell.
    pub tomato_factor: Option<f64>,
    /// Each proportion, in the recipe's order; what the recipe does not have comes last.
    pub proportions: Vec<Proportion>,
    /// Things that stand for others.
    pub swaps: Vec<Swap>,
    /// What has to be said before it can be told, for a person.
    pub missing: Vec<String>,
    /// Safe, not, or nobody can tell.
    pub verdict: Ruling,
}

/// The bowls with what the recipe says of each part: nobody makes tomatoes of peppers by calling them so.
fn called_by_the_recipe(base: &[Part], actual: &[Part]) -> Vec<Part> {
    let role = |part: &Part| {
        let same = base.iter().find(|other| plain(&other.name) == plain(&part.name));
        let known = same.or_else(|| base.iter().find(|other| other.line() == part.line()));
        known.map_or(part.role, |known| known.role)
    };
    actual.iter().map(|part| Part { role: role(part), ..part.clone() }).collect()
}

/// Parts with the roles that their names give them, where those say more.
pub(super) fn by_their_names(parts: &[Part]) -> Vec<Part> {
    parts.iter().map(|part| Part { role: role_by_name(part), ..part.clone() }).collect()
}

/// What is missing of a line that nobody can tell: a part that nobody measured, or that cannot be held against the others.
fn unmeasured(line: &Line<'_>) -> String {
    let bare = |part: &&&Part| part.is_there() && part.measured().is_none();
    if let Some(part) = line.base.iter().find(bare) {
        return part.not_on_its_page();
    }
    match line.actual.iter().find(bare) {
        Some(part) => format!("How much {}?", part.name),
        None if line.goes_into_jars() => {
            format!("Into how many jars of which size does the {} go?", line.name)
        }
        None => format!("What does the {} weigh, or how many cups is it?", line.name),
    }
}

/// Packets against what the tomatoes in the bowls take, rounded up; none while nobody can tell.
fn packets(line: &Line<'_>, scale: &Scale<'_>, slack: &BigRational) -> Option<(BigRational, BigRational)> {
    let counted = |parts: &[&Part]| {
        there(parts).iter().try_fold(BigRational::zero(), |sum, part| {
            let (amount, unit) = part.measured()?;
            matches!(unit, Unit::Packet | Unit::Piece).then_some(sum + amount)
        })
    };
    let by_label = || {
        line.actual.iter().chain(&line.base).find_map(|part| needed_by_label(part, scale.actual_g.as_ref()?))
    };
    let by_recipe = || Some(counted(&line.base)? * &scale.tomatoes?.high);
    let needed = by_label().or_else(by_recipe)?;
    Some((counted(&line.actual)?, (needed - slack).ceil()))
}

/// Packets as a proportion.
fn proportion_of_packets(line: &Line<'_>, scale: &Scale<'_>, slack: &BigRational) -> Proportion {
    let in_recipe = !there(&line.base).is_empty();
    let counted = if in_recipe { packets(line, scale, slack) } else { None };
    let safe = if in_recipe {
        counted.as_ref().map(|(given, needed)| given >= needed)
    } else {
        Some(there(&line.actual).is_empty())
    };
    let says = match (&counted, safe) {
        (Some((given, needed)), Some(false)) => {
            format!("{}: {} needed, {} there", line.name, in_words(needed), in_words(given))
        }
        (Some((given, _)), Some(true)) => format!("{}: {}, as many as it takes", line.name, in_words(given)),
        (None, Some(false)) => format!("{}: not in the recipe", line.name),
        _ => format!("{}: nobody can tell", line.name),
    };
    Proportion {
        name: line.name.to_owned(),
        role: line.role,
        side: line.role.side(),
        per: None,
        base_per_kg: None,
        actual_per_kg: None,
        change: counted
            .filter(|(_, needed)| !needed.is_zero())
            .map(|(given, needed)| decimal(&(given / needed)) - 1.0),
        safe,
        averaged: false,
        says,
    }
}

/// What is still to be said of bottles and labels before anybody can tell.
fn labels(base: &[Part], actual: &[Part]) -> Vec<String> {
    let mut open: Vec<String> = Vec::new();
    let mut ask = |question: String| {
        if !open.contains(&question) {
            open.push(question);
        }
    };
    for part in actual.iter().filter(|part| part.is_there()) {
        if is_strength_open(part) {
            ask(format!("How strong is the {}: 5 % or more?", part.name));
        }
        if let (Role::Acid, Some(Named::Asked(question))) = (part.role, named(&part.name)) {
            ask(question.to_owned());
        }
    }
    for part in base.iter().filter(|part| part.role == Role::Packet && part.is_there()) {
        let there = actual.iter().find(|other| plain(&other.name) == plain(&part.name));
        let (said, printed) =
            (there.and_then(|part| part.packet).unwrap_or_default(), part.packet.unwrap_or_default());
        let label = PacketLabel {
            tomatoes_lb: said.tomatoes_lb.or(printed.tomatoes_lb),
            acid: said.acid.or(printed.acid),
        };
        open_questions(&Part { packet: Some(label), ..part.clone() }).into_iter().for_each(&mut ask);
    }
    open
}

/// By how much it changed, in words.
fn by_how_much(change: f64) -> String {
    const SHARES: [(f64, &str); 7] = [
        (0.1, "a tenth"),
        (1.0 / 6.0, "a sixth"),
        (0.2, "a fifth"),
        (0.25, "a quarter"),
        (1.0 / 3.0, "a third"),
        (0.5, "half"),
        (2.0 / 3.0, "two thirds"),
    ];
    let share = SHARES.iter().find(|(share, _)| (change.abs() - share).abs() < 0.012);
    match share {
        Some((_, words)) => (*words).to_owned(),
        None => format!("{:.0} %", (change.abs() * 100.0).max(1.0)),
    }
}

fn says(name: &str, side: Side, change: Option<f64>, safe: Option<bool>) -> String {
    match (side, change, safe) {
        (Side::Never, _, Some(false)) => {
            format!("{name}: not before canning; stir it in when you open the jar")
        }
        (_, _, None) => format!("{name}: nobody can tell"),
        (_, None, Some(false)) => format!("{name}: not in the recipe"),
        (_, None, Some(true)) => format!("{name}: as you like"),
        (Side::Any, Some(_), _) => format!("{name}: as you like"),
        (_, Some(change), Some(true)) if change.abs() <= decimal(&slack()) => {
            format!("{name}: as in the recipe")
        }
        (_, Some(change), _) if change <= -1.0 => format!("{name}: none of it is there"),
        (_, Some(change), _) if change > 0.0 => format!("{name}: {} over", by_how_much(change)),
        (_, Some(change), _) => format!("{name}: {} short", by_how_much(change)),
    }
}

/// What a kilogram of tomatoes carries of a line in the recipe, and in what it is counted.
fn per_kg(base: &[&Part], actual: &[&Part], tomatoes: Option<f64>) -> Option<(Unit, f64, f64)> {
    let (base, actual) = (there(base), there(actual));
    let kilograms = tomatoes? / 1000.0;
    let both = |by: By| Some((sum(&base, by)?, sum(&actual, by)?));
    let (unit, of) = match (both(By::Weight), both(By::Room)) {
        (Some(of), _) => (Unit::Gram, of),
        (None, Some(of)) => (Unit::Millilitre, of),
        (None, None) => {
            let all: Vec<&Part> = base.iter().chain(&actual).copied().collect();
            let unit = match alike(&all)? {
                Dimension::Pieces => Unit::Piece,
                Dimension::Packets => Unit::Packet,
                Dimension::Mass | Dimension::Volume => return None,
            };
            (unit, both(By::Measure)?)
        }
    };
    Some((unit, decimal(&of.0) / kilograms, decimal(&of.1)))
}

/// Juice that is left over when it has done its own work stands for vinegar; millilitres.
fn spare_juice(lines: &[Line<'_>], tomatoes: &Between) -> BigRational {
    let Some(line) = lines.iter().find(|line| {
        line.role == Role::Acid
            && line.base.iter().chain(&line.actual).any(|part| acid(part) == Acid::Juice)
            && !line.goes_into_jars()
    }) else {
        return BigRational::zero();
    };
    let room = |parts: &[&Part]| sum(&there(parts), By::Room);
    let (Some(needed), Some(given)) = (room(&line.base), room(&line.actual)) else {
        return BigRational::zero();
    };
    (given - needed * &tomatoes.high).max(BigRational::zero())
}

/// Dried vegetables count as the fresh ones that they replace.
fn is_dried(part: &Part) -> bool {
    let name = plain(&part.name);
    name.contains("dried") || name.contains("dehydrated")
}

fn proportion(
    line: &Line<'_>,
    scale: &Scale<'_>,
    base_g: Option<f64>,
    extra: &BigRational,
    slack: &BigRational,
) -> Proportion {
    if line.role == Role::Packet {
        return proportion_of_packets(line, scale, slack);
    }
    let side = line.role.side();
    let is_there = !there(&line.actual).is_empty();
    let in_recipe = !there(&line.base).is_empty();
    let dried = side == Side::Down
        && there(&line.actual).iter().any(|part| is_dried(part))
        && !line.base.iter().any(|part| is_dried(part));
    let in_jars = line.goes_into_jars();
    let changed = match (in_recipe && !dried, in_jars) {
        (false, _) => None,
        (true, true) => change_in_jars(line, scale, side, extra),
        (true, false) => change_in_pot(line, scale, side, extra),
    };
    let strict = changed.as_ref().map(|change| &change.by);
    let safe = match (side, strict) {
        (Side::Never, _) => Some(!is_there),
        (Side::Any, _) => Some(true),
        (Side::Up, _) if !in_recipe => Some(true),
        (Side::Down, _) if !is_there => Some(true),
        (Side::Down, _) if !in_recipe => Some(false),
        // Nothing of an acid that the recipe has is too little, whatever the tomatoes are.
        (Side::Up, _) if !is_there && extra.is_zero() => Some(false),
        (Side::Up, Some(change)) => Some(*change >= -slack.clone()),
        (Side::Down, Some(change)) => Some(change <= slack),
        (Side::Up | Side::Down, None) => None,
    };
    let change = strict.map(decimal);
    let per = if in_jars { None } else { per_kg(&line.base, &line.actual, base_g) };
    let factor = scale.tomatoes.map(|tomatoes| decimal(&tomatoes.low)).filter(|factor| *factor > 0.0);
    Proportion {
        name: line.name.to_owned(),
        role: line.role,
        side,
        per: per.map(|(unit, ..)| unit),
        base_per_kg: per.map(|(_, base, _)| base),
        actual_per_kg: match (per, change, factor) {
            (Some((_, base, _)), Some(change), _) => Some(base * (1.0 + change)),
            (Some((_, _, actual)), None, Some(factor)) => {
                base_g.map(|base| actual / (base / 1000.0) / factor)
            }
            _ => None,
        },
        change,
        safe,
        averaged: changed.is_some_and(|change| change.averaged),
        says: says(line.name, side, change, safe),
    }
}

fn tomatoes(parts: &[Part]) -> Vec<&Part> {
    parts.iter().filter(|part| part.role == Role::Tomato).collect()
}

/// Holds what is in the bowls against the recipe, before anybody knows how many jars are filled.
#[must_use]
pub fn compare(base: &[Part], actual: &[Part]) -> Comparison {
    compare_filled(base, actual, &[], true)
}

/// Holds what is in the bowls and in the jars against the recipe; `jars` are all that are filled. Of bowls that were set out
/// before the strength of vinegar and the labels of packets were asked, `labels_asked` is false: what was not asked is neither
/// alarm nor claim.
#[must_use]
pub fn compare_filled(
    base: &[Part],
    actual: &[Part],
    jars: &[(JarSize, u32)],
    labels_asked: bool,
) -> Comparison {
    compared(base, actual, jars, labels_asked, &slack())
}

/// The same with so much slack in every proportion; a way back is held to none.
pub(super) fn compared(
    base: &[Part],
    actual: &[Part],
    jars: &[(JarSize, u32)],
    labels_asked: bool,
    slack: &BigRational,
) -> Comparison {
    let base = &by_their_names(base)[..];
    let called = called_by_the_recipe(base, actual);
    let swaps = swaps(base, &called);
    let actual = &by_their_names(&called)[..];
    let (base_t, actual_t) = (tomatoes(base), tomatoes(actual));
    let factor = times(&base_t, &actual_t, &BigRational::zero());
    let base_g = sum(&there(&base_t), By::Weight).map(|grams| decimal(&grams)).filter(|grams| *grams > 0.0);
    let actual_g = sum(&there(&actual_t), By::Weight).filter(|grams| !grams.is_zero());
    let lines = lines(base, actual);
    let spare = factor.as_ref().map(|factor| spare_juice(&lines, factor)).unwrap_or_default();
    let scale = Scale { tomatoes: factor.as_ref(), actual_g, jars };
    let mut missing = Vec::new();
    if factor.as_ref().is_none_or(|factor| factor.low.is_zero()) {
        missing.push("How many tomatoes are in it?".to_owned());
    }
    let proportions: Vec<Proportion> = lines
        .iter()
        .map(|line| {
            let vinegar = line.role == Role::Acid && line.base.iter().any(|part| acid(part) == Acid::Vinegar);
            let extra = if vinegar { spare.clone() } else { BigRational::zero() };
            let proportion = proportion(line, &scale, base_g, &extra, slack);
            if proportion.safe.is_none() && line.role != Role::Packet {
                missing.push(unmeasured(line));
            }
            proportion
        })
        .collect();
    let unknown = proportions.iter().find(|line| line.role == Role::Packet && line.safe.is_none());
    missing.extend(unknown.map(|line| format!("How many packets of {} are in it?", line.name)));
    if labels_asked {
        missing.extend(labels(base, actual));
    }
    let is_off =
        proportions.iter().any(|line| line.safe == Some(false)) || swaps.iter().any(|swap| !swap.safe);
    let verdict = if is_off {
        Ruling::NotFine
    } else if missing.is_empty() {
        Ruling::Fine
    } else {
        Ruling::CannotTell
    };
    let tomato_factor = factor.map(|factor| decimal(&factor.low));
    Comparison { tomato_factor, proportions, swaps, missing, verdict }
}
