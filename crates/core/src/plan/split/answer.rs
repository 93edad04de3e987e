//! The best split, found and explained.

use bodega_model::measures::units::{pounds, quarts};

use super::loads::{Grouped, Loads};
use super::model::{Caps, GAP, Model, Solved};
use super::question::{Choice, Limit, NoSplit, Question, Resource, Share, Split};

/// How often the cuts are sharpened before jars have to be whole.
const ROUNDS: u32 = 12;

/// How often the model is solved with whole jars before a split within less canner time is taken.
const SOLVED: u32 = 12;

/// A part of all splits, with the best that the model knows in it.
struct Open {
    caps: Caps,
    found: Solved,
}

#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // whole, and bounded by the model
fn whole(jars: &[f64]) -> Vec<u32> {
    jars.iter().map(|jars| jars.round() as u32).collect()
}

fn answer(found: Solved, grouped: Grouped, proven: bool) -> Split {
    let each = whole(&found.jars).into_iter().zip(&found.fruit).zip(&found.drained);
    let share = |((jars, fruit), drained): ((u32, &Vec<f64>), &f64)| Share {
        jars,
        fruit: fruit.iter().map(|weight| pounds(*weight)).collect(),
        drained: quarts(*drained),
    };
    Split { shares: each.map(share).collect(), loads: grouped.loads, worth: found.worth, proven }
}

/// Works the best split out: the best that the model proposes whose loads are done within the canner's minutes.
///
/// # Errors
/// [`NoSplit::PinnedTooMuch`] when what is pinned does not fit; [`NoSplit::NoRoom`].
pub fn split(question: &Question<'_>) -> Result<Split, NoSplit> {
    best(question, &mut sharpened(question)?)
}

/// What is known of the loads before jars have to be whole: then the cuts cost little.
fn sharpened<'a>(question: &'a Question<'_>) -> Result<Loads<'a>, NoSplit> {
    let mut loads = Loads::new(question)?;
    let free: Caps = vec![None; question.choices.len()];
    for _ in 0..ROUNDS {
        let parts = Model::new(question, &loads, &free, false).solve()?;
        if !loads.cut(&parts.jars, &parts.loads) {
            break;
        }
    }
    Ok(loads)
}

fn best(question: &Question<'_>, loads: &mut Loads<'_>) -> Result<Split, NoSplit> {
    let free: Caps = vec![None; question.choices.len()];
    let minutes = question.stock.canner_minutes.unwrap_or(f64::INFINITY);
    let mut proven = true;
    let mut open = vec![Open { found: Model::new(question, loads, &free, true).solve()?, caps: free }];
    for _ in 0..SOLVED {
        let best = (0..open.len()).max_by(|a, b| open[*a].found.worth.total_cmp(&open[*b].found.worth));
        let Some(Open { caps, found }) = best.map(|place| open.swap_remove(place)) else {
            return Err(NoSplit::PinnedTooMuch);
        };
        proven &= found.proven;
        let jars = whole(&found.jars);
        let grouped = loads.group(&jars)?;
        if grouped.total <= minutes {
            return Ok(answer(found, grouped, proven));
        }
        if loads.cut(&found.jars, &found.loads) {
            open.extend(within(question, loads, caps)?);
            continue;
        }
        // No split with as many jars or more fits: one of them has to be fewer.
        proven &= grouped.least > minutes;
        let few = fewest_that_do_not_fit(question, loads, jars, minutes)?;
        for (place, count) in few.into_iter().enumerate().filter(|(_, count)| *count > 0) {
            let mut caps = caps.clone();
            caps[place] = Some(count - 1);
            open.extend(within(question, loads, caps)?);
        }
    }
    within_less(question, loads, minutes)
}

/// The best within some caps; none when nothing fits.
fn within(question: &Question<'_>, loads: &Loads<'_>, caps: Caps) -> Result<Option<Open>, NoSplit> {
    let is_pinned_above = |(choice, cap): (&Choice, &Option<u32>)| {
        choice.pinned.is_some_and(|pinned| cap.is_some_and(|cap| cap < pinned))
    };
    if question.choices.iter().zip(&caps).any(is_pinned_above) {
        return Ok(None);
    }
    match Model::new(question, loads, &caps, true).solve() {
        Ok(found) => Ok(Some(Open { caps, found })),
        Err(NoSplit::PinnedTooMuch) => Ok(None),
        Err(other) => Err(other),
    }
}

/// The fewest of some jars that take too long for the canner: fewer of any one of them would fit.
fn fewest_that_do_not_fit(
    question: &Question<'_>,
    loads: &Loads<'_>,
    mut jars: Vec<u32>,
    minutes: f64,
) -> Result<Vec<u32>, NoSplit> {
    for place in 0..question.choices.len() {
        let (mut least, mut too_many) = (0, jars[place]);
        while least < too_many {
            let middle = least + (too_many - least) / 2;
            jars[place] = middle;
            if loads.group(&jars)?.total > minutes { too_many = middle } else { least = middle + 1 }
        }
        jars[place] = too_many;
    }
    Ok(jars)
}

/// A split whose loads fit because the model is given less of the canner, as much as it was over.
fn within_less(question: &Question<'_>, loads: &mut Loads<'_>, minutes: f64) -> Result<Split, NoSplit> {
    let mut less = question.clone();
    let free: Caps = vec![None; question.choices.len()];
    loop {
        let found = Model::new(&less, loads, &free, true).solve()?;
        let grouped = loads.group(&whole(&found.jars))?;
        if grouped.total <= minutes {
            return Ok(answer(found, grouped, false));
        }
        less.stock.canner_minutes = less.stock.canner_minutes.map(|given| given - (grouped.total - minutes));
    }
}

/// What limits a split: every resource of which one step more makes it worth more, the most gainful first.
///
/// # Errors
/// As [`split`].
pub fn limits(question: &Question<'_>, found: &Split) -> Result<Vec<Limit>, NoSplit> {
    let stock = &question.stock;
    let mut resources: Vec<Resource> = (0..question.lots.len()).map(Resource::Fruit).collect();
    resources.extend(stock.jars.iter().map(|(size, _)| Resource::Jars(*size)));
    resources.extend(stock.lids.iter().map(|(mouth, _)| Resource::Lids(*mouth)));
    resources.extend(stock.acid_tsp.map(|_| Resource::Acid));
    resources.extend(stock.canner_minutes.map(|_| Resource::Canner));
    resources.extend(stock.stove_minutes.map(|_| Resource::Stove));
    resources.extend(stock.hands_minutes.map(|_| Resource::Hands));
    let loads = sharpened(question)?;
    let count = |split: &Split| split.shares.iter().map(|share| i64::from(share.jars)).sum::<i64>();
    let mut limits = Vec::new();
    for resource in resources {
        let mut more = question.clone();
        resource.add_step(&mut more);
        let better = best(&more, &mut loads.clone())?;
        let worth_more = better.worth - found.worth;
        if worth_more > found.worth.abs().max(1.0) * 2.0 * GAP {
            limits.push(Limit { resource, jars_more: count(&better) - count(found), worth_more });
        }
    }
    limits.sort_by(|a, b| b.worth_more.total_cmp(&a.worth_more));
    Ok(limits)
}
