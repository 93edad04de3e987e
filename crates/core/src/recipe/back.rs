//! The nearest way back to the recipe's proportions, in measures that a kitchen has.
//!
//! The comparison itself says how much is enough: whole steps are tried until it is satisfied, so that nothing is rounded to
//! the unsafe side and no second rule can differ from it.

use num_rational::BigRational;
use num_traits::{Signed, ToPrimitive, Zero};
use serde::Serialize;

use super::compare::{Comparison, compare, compared};
use super::measure::{Unit, decimal, exact, in_words};
use super::part::{Part, Role, Side, plain};
use crate::judge::Ruling;

/// Steps after which it is no kitchen any more.
const MOST_STEPS: i64 = 1 << 20;

/// So much more, or less, of something.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Change {
    /// Of what.
    pub name: String,
    /// More; below zero it is taken out.
    pub change_amount: f64,
    /// In which measure.
    pub unit: Unit,
    /// "add 2 lb of tomatoes", "take out 1 ½ cups of peppers".
    pub says: String,
}

/// Ways back in one sentence: "take out 1 cup of onion, or add 2 lb of tomatoes and add ¾ cup of lemon juice".
#[must_use]
pub fn ways_in_words(ways: &[Vec<Change>]) -> String {
    let steps =
        |way: &Vec<Change>| way.iter().map(|step| step.says.as_str()).collect::<Vec<_>>().join(" and ");
    ways.iter().map(steps).collect::<Vec<_>>().join(", or ")
}

fn change(part: &Part, by: &BigRational, unit: Unit) -> Change {
    let verb = if by.is_negative() { "take out" } else { "add" };
    let size = by.abs();
    let of = if unit == Unit::Piece { "" } else { " of" };
    let says = format!("{verb} {}{}{of} {}", in_words(&size), unit.behind(&size), part.name);
    Change { name: part.name.clone(), change_amount: decimal(by), unit, says }
}

/// The fewest whole steps with which something holds; it goes on holding with more.
fn fewest(most: i64, holds: impl Fn(i64) -> bool) -> Option<i64> {
    let mut high = 1;
    while !holds(high.min(most)) {
        if high >= most {
            return None;
        }
        high *= 2;
    }
    let mut low = high / 2;
    let mut high = high.min(most);
    while high - low > 1 {
        let middle = i64::midpoint(low, high);
        if holds(middle) { high = middle } else { low = middle }
    }
    Some(high)
}

/// A list with so many steps more (or fewer) of one of its parts; never below nothing.
fn with_steps(parts: &[Part], place: usize, steps: i64) -> Vec<Part> {
    let mut parts = parts.to_vec();
    if let Some((amount, unit)) = parts[place].measured() {
        let by = unit.step() * BigRational::from_integer(steps.into());
        parts[place].amount = Some(decimal(&(amount + by).max(BigRational::zero())));
    }
    parts
}

/// Whether something stands on a line that is safe below the recipe only: neither acid nor as liked.
const fn is_too_much(role: Role) -> bool {
    matches!(role.side(), Side::Down | Side::Never)
}

/// The part of the bowls, or of the recipe, that is added to: the largest of its kind that is measured.
fn added_to(base: &[Part], parts: &mut Vec<Part>, is: impl Fn(&Part) -> bool) -> Option<usize> {
    let measured = |part: &&Part| is(part) && part.measured().is_some();
    let largest = |parts: &[Part]| {
        parts.iter().filter(measured).max_by_key(|part| part.size()).map(|part| part.name.clone())
    };
    if let Some(name) = largest(parts) {
        return parts.iter().position(|part| part.name == name && is(part));
    }
    let name = largest(base)?;
    let mut more = base.iter().find(|part| part.name == name && is(part))?.clone();
    more.amount = Some(0.0);
    parts.push(more);
    Some(parts.len() - 1)
}

/// What differs between two lists, part by part.
fn differences(before: &[Part], after: &[Part]) -> Vec<Change> {
    let changed = |(place, part): (usize, &Part)| {
        let (amount, unit) = part.measured()?;
        let was = before.get(place).and_then(Part::measured).map(|(amount, _)| amount).unwrap_or_default();
        let by = amount - was;
        (!by.is_zero()).then(|| change(part, &by, unit))
    };
    after.iter().enumerate().filter_map(changed).collect()
}

/// The comparison without slack: a way back ends on the safe side.
fn exactly(base: &[Part], parts: &[Part]) -> Comparison {
    compared(base, parts, &BigRational::zero())
}

/// Whether a line of the comparison is safe.
fn holds(base: &[Part], parts: &[Part], name: &str, role: Role) -> bool {
    let seen = exactly(base, parts);
    let line = seen.proportions.iter().find(|line| line.name == name && line.role == role);
    line.is_some_and(|line| line.safe == Some(true))
}

/// Adds acid until there is enough of it; false when the recipe's acid cannot put it right.
fn with_acid(base: &[Part], mut parts: Vec<Part>) -> Option<Vec<Part>> {
    for short in exactly(base, &parts).proportions.iter().filter(|line| line.role == Role::Acid) {
        if short.safe != Some(false) {
            continue;
        }
        let is_it = |part: &Part| part.role == Role::Acid && part.name == short.name;
        // Of the same kind of acid, whatever bottle stands there.
        let kind = base.iter().find(|part| is_it(part))?.clone();
        let place = match parts.iter().position(|part| is_it(part) && part.measured().is_some()) {
            Some(place) => place,
            None => {
                parts.push(Part { amount: Some(0.0), ..kind });
                parts.len() - 1
            }
        };
        let enough = |steps: i64| holds(base, &with_steps(&parts, place, steps), &short.name, Role::Acid);
        let steps = fewest(MOST_STEPS, enough)?;
        parts = with_steps(&parts, place, steps);
    }
    Some(parts)
}

/// Takes out what is too much.
fn taken_out(base: &[Part], actual: &[Part]) -> Option<Vec<Part>> {
    let mut parts = actual.to_vec();
    let seen = exactly(base, actual);
    let too_much = seen.proportions.iter().filter(|line| is_too_much(line.role) && line.safe == Some(false));
    for over in too_much {
        // The largest first, then what else stands on that line.
        let is_there = |part: &Part| {
            let named = part.line() == plain(&over.name);
            named && part.measured().is_some_and(|(amount, _)| amount.is_positive())
        };
        loop {
            if holds(base, &parts, &over.name, over.role) {
                break;
            }
            let largest = parts.iter().filter(|part| is_there(part)).max_by_key(|part| part.size())?.clone();
            let place = parts.iter().position(|part| *part == largest)?;
            let (amount, unit) = largest.measured()?;
            let most = (amount / unit.step()).ceil().to_integer().to_i64()?.min(MOST_STEPS);
            let enough = |steps: i64| holds(base, &with_steps(&parts, place, -steps), &over.name, over.role);
            let steps = fewest(most, enough).unwrap_or(most);
            parts = with_steps(&parts, place, -steps);
        }
    }
    with_acid(base, parts)
}

/// Adds tomatoes until they carry what is there, and the acid that goes with them.
fn filled_up(base: &[Part], actual: &[Part]) -> Option<Vec<Part>> {
    let mut parts = actual.to_vec();
    let carried = |parts: &[Part]| {
        exactly(base, parts)
            .proportions
            .iter()
            .filter(|line| is_too_much(line.role))
            .all(|line| line.safe == Some(true))
    };
    if !carried(&parts) {
        let place = added_to(base, &mut parts, |part| part.role == Role::Tomato)?;
        let enough = |steps: i64| carried(&with_steps(&parts, place, steps));
        let steps = fewest(MOST_STEPS, enough)?;
        parts = with_steps(&parts, place, steps);
    }
    with_acid(base, parts)
}

/// The ways back to the recipe, the nearest first; none when it is safe, or when nothing that can be added or taken out puts it
/// right. Once it is `mixed`, nothing can be taken out.
#[must_use]
pub fn ways_back(base: &[Part], actual: &[Part], mixed: bool) -> Vec<Vec<Change>> {
    let seen = compare(base, actual);
    if seen.verdict != Ruling::NotFine || !seen.missing.is_empty() || seen.swaps.iter().any(|swap| !swap.safe)
    {
        return Vec::new();
    }
    let mut ways: Vec<Vec<Change>> = Vec::new();
    let tries = if mixed {
        vec![filled_up(base, actual)]
    } else {
        vec![taken_out(base, actual), filled_up(base, actual)]
    };
    for parts in tries.into_iter().flatten() {
        let way = differences(actual, &parts);
        if exactly(base, &parts).verdict == Ruling::Fine && !way.is_empty() && !ways.contains(&way) {
            ways.push(way);
        }
    }
    ways
}

/// What else can be done with a mix that is not the recipe any more; nothing while it is.
#[must_use]
pub fn instead(seen: &Comparison) -> Vec<String> {
    if seen.verdict != Ruling::NotFine {
        return Vec::new();
    }
    vec![
        "Freeze it, or keep it in the refrigerator and eat it within a week.".to_owned(),
        "Make another tested recipe of it, if there is one that has all of this.".to_owned(),
    ]
}

/// The bowls after a way back; what it adds of the recipe and was not there yet is there then.
#[must_use]
pub fn changed(base: &[Part], parts: &[Part], way: &[Change]) -> Vec<Part> {
    let mut parts = parts.to_vec();
    for step in way {
        let is_it = |part: &Part| part.name == step.name && part.unit == Some(step.unit);
        if !parts.iter().any(is_it) {
            let added = base.iter().find(|part| is_it(part)).cloned();
            parts.extend(added.map(|part| Part { amount: Some(0.0), ..part }));
        }
        if let Some(part) = parts.iter_mut().find(|part| is_it(part)) {
            let amount = exact(part.amount.unwrap_or_default()) + exact(step.change_amount);
            part.amount = Some(decimal(&amount.max(BigRational::zero())));
        }
    }
    parts
}
