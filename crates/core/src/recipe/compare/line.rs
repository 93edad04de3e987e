//! What belongs together in a recipe and in its bowls, added up, and by how much it changed.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::amounts::{Dimension, ratio};
use bodega_model::recipe::acids::{Acid, acid};
use bodega_model::recipe::part::{Part, Per, Role, Side, plain};
use bodega_model::recipe::per_jar::altogether;
use num_rational::BigRational;
use num_traits::Zero;

/// A range: the same by room and by weight.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Between {
    pub(super) low: BigRational,
    pub(super) high: BigRational,
    pub(super) averaged: bool,
}

/// How amounts are added up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum By {
    /// As they are written.
    Measure,
    /// Room, with averages.
    Room,
    /// Weight, with averages.
    Weight,
}

pub(super) fn sum(parts: &[&Part], by: By) -> Option<BigRational> {
    parts.iter().try_fold(BigRational::zero(), |sum, part| {
        let more = match by {
            By::Measure => part.size(),
            By::Room => part.millilitres(),
            By::Weight => part.grams(),
        };
        more.map(|more| sum + more)
    })
}

/// What all of it is measured in, when that is one thing; pieces are alike when they are of one name.
pub(super) fn alike(parts: &[&Part]) -> Option<Dimension> {
    let of = |part: &Part| part.measured().map(|(_, unit)| unit.dimension());
    let first = parts.first()?;
    let dimension = of(first)?;
    let same = |part: &&Part| {
        let counted = matches!(dimension, Dimension::Pieces | Dimension::Packets);
        of(part) == Some(dimension) && (!counted || plain(&part.name) == plain(&first.name))
    };
    parts.iter().all(same).then_some(dimension)
}

/// The parts that there are any of.
pub(super) fn there<'a>(parts: &[&'a Part]) -> Vec<&'a Part> {
    parts.iter().copied().filter(|part| part.is_there()).collect()
}

/// The ways in which two lists can be held against each other.
fn ways(base: &[&Part], actual: &[&Part]) -> Vec<By> {
    let all: Vec<&Part> = there(base).into_iter().chain(there(actual)).collect();
    if alike(&all).is_some() {
        return vec![By::Measure];
    }
    let can = |by: &By| sum(&all, *by).is_some();
    [By::Room, By::Weight].into_iter().filter(can).collect()
}

/// How many times `base` is in `actual`; none when nobody can tell, or when there is nothing in the base.
pub(super) fn times(base: &[&Part], actual: &[&Part], extra: &BigRational) -> Option<Between> {
    let (base, actual) = (there(base), there(actual));
    let ways = ways(&base, &actual);
    let each = |by: &By| {
        let (whole, part) = (sum(&base, *by)?, sum(&actual, *by)?);
        (!whole.is_zero()).then(|| (part + extra) / whole)
    };
    let all: Vec<BigRational> = ways.iter().map(each).collect::<Option<_>>()?;
    let (low, high) = (all.iter().min()?.clone(), all.iter().max()?.clone());
    Some(Between { low, high, averaged: ways != [By::Measure] })
}

/// A line of the comparison: what belongs together, in the recipe and in the bowls.
pub(super) struct Line<'a> {
    pub(super) name: &'a str,
    pub(super) role: Role,
    pub(super) base: Vec<&'a Part>,
    pub(super) actual: Vec<&'a Part>,
}

/// Puts what belongs together on one line; what the recipe says of it counts. Acids stand by their kind.
pub(super) fn lines<'a>(base: &'a [Part], actual: &'a [Part]) -> Vec<Line<'a>> {
    let key = |part: &Part, role: Role| match (role, acid(part)) {
        (Role::Acid, kind) if kind != Acid::Other => format!("acid {kind:?}"),
        _ => part.line(),
    };
    let mut all: Vec<(String, Line<'a>)> = Vec::new();
    for part in base.iter().filter(|part| part.role != Role::Tomato) {
        let key = key(part, part.role);
        match all.iter_mut().find(|(other, _)| *other == key) {
            Some((_, line)) => line.base.push(part),
            None => {
                let name = part.group.as_deref().filter(|_| part.role != Role::Acid).unwrap_or(&part.name);
                all.push((key, Line { name, role: part.role, base: vec![part], actual: Vec::new() }));
            }
        }
    }
    for part in actual.iter().filter(|part| part.role != Role::Tomato) {
        let key = key(part, part.role);
        match all.iter_mut().find(|(other, _)| *other == key) {
            Some((_, line)) => line.actual.push(part),
            None => {
                let name = part.group.as_deref().unwrap_or(&part.name);
                all.push((key, Line { name, role: part.role, base: Vec::new(), actual: vec![part] }));
            }
        }
    }
    all.into_iter().map(|(_, line)| line).collect()
}

impl Line<'_> {
    /// Whether any of it is measured out jar by jar.
    pub(super) fn goes_into_jars(&self) -> bool {
        self.base.iter().chain(&self.actual).any(|part| !part.per.is_batch() && part.is_there())
    }
}

/// What bowls are held against a recipe by: its tomatoes so many times, and the jars that are filled.
pub(super) struct Scale<'a> {
    pub(super) tomatoes: Option<&'a Between>,
    /// Grams of tomatoes in the bowls; `None` when they cannot be weighed.
    pub(super) actual_g: Option<BigRational>,
    pub(super) jars: &'a [(JarSize, u32)],
}

/// By how much a line changed, on the strict side, and whether averages were needed.
pub(super) struct Change {
    pub(super) by: BigRational,
    pub(super) averaged: bool,
}

/// The change of a line of which something goes into the jars: what the recipe asks for the jars that are filled, and for its
/// tomatoes where it has some in the pot too.
pub(super) fn change_in_jars(
    line: &Line<'_>,
    scale: &Scale<'_>,
    side: Side,
    extra: &BigRational,
) -> Option<Change> {
    let (base, actual) = (there(&line.base), there(&line.actual));
    let first = base.iter().chain(&actual).find_map(|part| match part.per {
        Per::Jar(jar) => Some((jar, 1)),
        Per::Batch => None,
    });
    let in_pot = base.iter().chain(&actual).any(|part| part.per.is_batch());
    // Dose against dose, while nobody has said how many jars there are.
    let one = [first?];
    let jars = match (scale.jars.is_empty(), in_pot) {
        (false, _) => scale.jars,
        (true, false) => &one[..],
        (true, true) => return None,
    };
    let all = |parts: &[&Part]| -> Vec<Part> { parts.iter().map(|part| altogether(part, jars)).collect() };
    let (of_pot, of_jars): (Vec<&Part>, Vec<&Part>) =
        base.iter().copied().partition(|part| part.per.is_batch());
    let (of_jars, actual) = (all(&of_jars), all(&actual));
    let (of_jars, actual): (Vec<&Part>, Vec<&Part>) = (of_jars.iter().collect(), actual.iter().collect());
    let both: Vec<&Part> = of_pot.iter().chain(&of_jars).copied().collect();
    let factor = match scale.tomatoes {
        Some(between) if side == Side::Up => between.high.clone(),
        Some(between) => between.low.clone(),
        None if of_pot.is_empty() => BigRational::zero(),
        None => return None,
    };
    let ways = ways(&both, &actual);
    let each = |by: &By| {
        let needed = sum(&of_pot, *by)? * &factor + sum(&of_jars, *by)?;
        (!needed.is_zero()).then(|| Some((sum(&actual, *by)? + extra) / needed))?
    };
    let all: Vec<BigRational> = ways.iter().map(each).collect::<Option<_>>()?;
    let strict = if side == Side::Up { all.iter().min()? } else { all.iter().max()? };
    Some(Change { by: strict - ratio(1, 1), averaged: ways != [By::Measure] })
}

/// The change of a line of which all goes into the pot.
pub(super) fn change_in_pot(
    line: &Line<'_>,
    scale: &Scale<'_>,
    side: Side,
    extra: &BigRational,
) -> Option<Change> {
    let parts = times(&line.base, &line.actual, extra)?;
    let tomatoes = scale.tomatoes?;
    let (part, tomato) = match side {
        Side::Up => (&parts.low, &tomatoes.high),
        _ => (&parts.high, &tomatoes.low),
    };
    (!tomato.is_zero()).then(|| Change { by: part / tomato - ratio(1, 1), averaged: parts.averaged })
}
