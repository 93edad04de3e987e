//! The nearest way back to the recipe's proportions, in measures that a kitchen has.
//!
//! The comparison itself says how much is enough: whole steps are tried until it is satisfied, so that nothing is rounded to
//! the unsafe side and no second rule can differ from it.

use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Ruling;
use bodega_model::ledger::keep::COLD_INSTEAD;
use bodega_model::measures::amounts::{Unit, decimal, exact, in_words};
use bodega_model::recipe::part::{Part, Per, Role, Side, plain};
use num_rational::BigRational;
use num_traits::{Signed, ToPrimitive, Zero};
use serde::Serialize;

use super::compare::{Comparison, by_their_names, compare_filled, compared};

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
    let place = match part.per {
        Per::Batch => String::new(),
        Per::Jar(jar) => format!(" {} each {}", if by.is_negative() { "from" } else { "to" }, jar.label()),
    };
    let says = format!("{verb} {}{}{of} {}{place}", in_words(&size), unit.behind(&size), part.name);
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

/// What differs between two lists; one thing that stands there twice is one change of its sum.
fn differences(before: &[Part], after: &[Part]) -> Vec<Change> {
    let mut sums: Vec<(&Part, Unit, BigRational)> = Vec::new();
    for (place, part) in after.iter().enumerate() {
        let Some((amount, unit)) = part.measured() else { continue };
        let was = before.get(place).and_then(Part::measured).map(|(amount, _)| amount).unwrap_or_default();
        let by = amount - was;
        match sums.iter_mut().find(|(other, of, _)| other.name == part.name && *of == unit) {
            Some((.., sum)) => *sum += by,
            None => sums.push((part, unit, by)),
        }
    }
    let changed = sums.into_iter().filter(|(.., by)| !by.is_zero());
    changed.map(|(part, unit, by)| change(part, &by, unit)).collect()
}

/// A recipe and the jars that are filled: what a way back leads to.
struct Goal<'a> {
    base: &'a [Part],
    jars: &'a [(JarSize, u32)],
}

impl Goal<'_> {
    /// The comparison without slack: a way back ends on the safe side.
    fn exactly(&self, parts: &[Part]) -> Comparison {
        compared(self.base, parts, self.jars, false, &BigRational::zero())
    }

    /// Whether a line of the comparison is safe.
    fn holds(&self, parts: &[Part], name: &str, role: Role) -> bool {
        let seen = self.exactly(parts);
        let line = seen.proportions.iter().find(|line| line.name == name && line.role == role);
        line.is_some_and(|line| line.safe == Some(true))
    }
}

/// Adds acid and packets until there are enough; none when those of the recipe cannot put it right.
fn with_acid(goal: &Goal<'_>, mut parts: Vec<Part>) -> Option<Vec<Part>> {
    let never_less = |role: Role| role.side() == Side::Up;
    for short in goal.exactly(&parts).proportions.iter().filter(|line| never_less(line.role)) {
        if short.safe != Some(false) {
            continue;
        }
        let is_it = |part: &Part| part.role == short.role && part.name == short.name;
        // Of the same kind of acid, whatever bottle stands there.
        let kind = goal.base.iter().find(|part| is_it(part))?.clone();
        let place = match parts.iter().position(|part| is_it(part) && part.measured().is_some()) {
            Some(place) => place,
            None => {
                parts.push(Part { amount: Some(0.0), ..kind });
                parts.len() - 1
            }
        };
        let enough = |steps: i64| goal.holds(&with_steps(&parts, place, steps), &short.name, short.role);
        let steps = fewest(MOST_STEPS, enough)?;
        parts = with_steps(&parts, place, steps);
    }
    Some(parts)
}

/// Takes out what is too much.
fn taken_out(goal: &Goal<'_>, actual: &[Part]) -> Option<Vec<Part>> {
    let mut parts = actual.to_vec();
    let seen = goal.exactly(actual);
    let too_much = seen.proportions.iter().filter(|line| is_too_much(line.role) && line.safe == Some(false));
    for over in too_much {
        // The largest first, then what else stands on that line.
        let is_there = |part: &Part| {
            let named = part.line() == plain(&over.name);
            named && part.measured().is_some_and(|(amount, _)| amount.is_positive())
        };
        loop {
            if goal.holds(&parts, &over.name, over.role) {
                break;
            }
            let largest = parts.iter().filter(|part| is_there(part)).max_by_key(|part| part.size())?.clone();
            let place = parts.iter().position(|part| *part == largest)?;
            let (amount, unit) = largest.measured()?;
            let most = (amount / unit.step()).ceil().to_integer().to_i64()?.min(MOST_STEPS);
            let enough = |steps: i64| goal.holds(&with_steps(&parts, place, -steps), &over.name, over.role);
            let steps = fewest(most, enough).unwrap_or(most);
            parts = with_steps(&parts, place, -steps);
        }
    }
    with_acid(goal, parts)
}

/// Adds tomatoes until they carry what is there, and the acid that goes with them.
fn filled_up(goal: &Goal<'_>, actual: &[Part]) -> Option<Vec<Part>> {
    let mut parts = actual.to_vec();
    let carried = |parts: &[Part]| {
        goal.exactly(parts)
            .proportions
            .iter()
            .filter(|line| is_too_much(line.role))
            .all(|line| line.safe == Some(true))
    };
    if !carried(&parts) {
        let place = added_to(goal.base, &mut parts, |part| part.role == Role::Tomato)?;
        let enough = |steps: i64| carried(&with_steps(&parts, place, steps));
        let steps = fewest(MOST_STEPS, enough)?;
        parts = with_steps(&parts, place, steps);
    }
    with_acid(goal, parts)
}

/// The ways back to the recipe, the nearest first; none when it is safe, or when nothing that can be added or taken out puts it
/// right. Once it is `mixed`, nothing can be taken out.
#[must_use]
pub fn ways_back(base: &[Part], actual: &[Part], mixed: bool) -> Vec<Vec<Change>> {
    ways_back_filled(base, actual, &[], mixed)
}

/// The same once it is known which jars are filled.
#[must_use]
pub fn ways_back_filled(
    base: &[Part],
    actual: &[Part],
    jars: &[(JarSize, u32)],
    mixed: bool,
) -> Vec<Vec<Change>> {
    let seen = compare_filled(base, actual, jars, false);
    if seen.verdict != Ruling::NotFine || !seen.missing.is_empty() || seen.swaps.iter().any(|swap| !swap.safe)
    {
        return Vec::new();
    }
    let (base, actual) = (&by_their_names(base)[..], &by_their_names(actual)[..]);
    let goal = Goal { base, jars };
    let mut ways: Vec<Vec<Change>> = Vec::new();
    let tries = if mixed {
        vec![filled_up(&goal, actual)]
    } else {
        vec![taken_out(&goal, actual), filled_up(&goal, actual)]
    };
    for parts in tries.into_iter().flatten() {
        let way = differences(actual, &parts);
        if goal.exactly(&parts).verdict == Ruling::Fine && !way.is_empty() && !ways.contains(&way) {
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
        COLD_INSTEAD.to_owned(),
        "Make another tested recipe of it, if there is one that has all of this.".to_owned(),
    ]
}

/// The bowls after a way back; what it adds of the recipe and was not there yet is there then. What is taken out of a thing that
/// stands there twice comes out of both, one after the other.
#[must_use]
pub fn changed(base: &[Part], parts: &[Part], way: &[Change]) -> Vec<Part> {
    let mut parts = parts.to_vec();
    for step in way {
        let is_it = |part: &Part| part.name == step.name && part.unit == Some(step.unit);
        if !parts.iter().any(is_it) {
            let added = base.iter().find(|part| is_it(part)).cloned();
            parts.extend(added.map(|part| Part { amount: Some(0.0), ..part }));
        }
        let mut left = exact(step.change_amount);
        for part in parts.iter_mut().filter(|part| is_it(part)) {
            let amount = exact(part.amount.unwrap_or_default());
            let after = (&amount + &left).max(BigRational::zero());
            left -= &after - amount;
            part.amount = Some(decimal(&after));
        }
    }
    parts
}
