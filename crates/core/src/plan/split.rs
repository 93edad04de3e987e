//! The best split: how much of each lot goes to which product in which jars, within jars, lids, acid and hours.
//!
//! A mixed-integer model, solved exactly. Jars and canner loads are whole; fruit, drained juice and hours are not. A jar
//! counts its volume times the preference of its goal until the goal is met, and a little beyond it, so that fruit is
//! used rather than left. Jars of several products may share a load.

mod loads;
mod model;

use self::loads::{Grouped, Loads};
use self::model::{Caps, GAP, Model, Solved};
use crate::canner::room::{NoRoom, Room};
use crate::jars::size::{JarSize, Mouth};
use crate::ledger::food::Stuff;
use crate::measures::moment::Minutes;
use crate::measures::units::{Mass, Volume, pounds, quarts};
use crate::plan::making::Making;
use crate::plan::stuff::part_of;
use crate::plan::yields::learn::Household;
use crate::records::load::SharedLoad;

/// How often the cuts are sharpened before jars have to be whole.
const ROUNDS: u32 = 12;
/// How often the model is solved with whole jars before a split within less canner time is taken.
const SOLVED: u32 = 12;

/// One product in one jar that fruit may become, with its tested time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choice {
    /// What.
    pub making: Making,
    /// In which jar.
    pub jar: JarSize,
    /// Its mouth, which decides the lid.
    pub mouth: Mouth,
    /// Tested minutes.
    pub minutes: Minutes,
    /// At which pressure; only what needs the same goes in together.
    pub psi: Option<u32>,
    /// Acid for a jar, in teaspoons.
    pub acid_tsp: f64,
    /// Jars the shelf asks for.
    pub goal: u32,
    /// How much they are wanted, 1 to 3.
    pub preference: f64,
    /// So many and no other, when the person has decided.
    pub pinned: Option<u32>,
}

/// Something there is only so much of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Resource {
    /// Fruit of a lot, by its place.
    Fruit(usize),
    /// Empty jars of a size.
    Jars(JarSize),
    /// New lids of a mouth.
    Lids(Mouth),
    /// Acid.
    Acid,
    /// Canner.
    Canner,
    /// Burners.
    Stove,
    /// Hands.
    Hands,
}

/// What there is. `None` is as much as it takes.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Stock {
    /// Empty jars by size.
    pub jars: Vec<(JarSize, u32)>,
    /// New lids by mouth.
    pub lids: Vec<(Mouth, u32)>,
    /// Acid in teaspoons.
    pub acid_tsp: Option<f64>,
    /// Minutes of the canner.
    pub canner_minutes: Option<f64>,
    /// Minutes of burners, all together.
    pub stove_minutes: Option<f64>,
    /// Minutes of hands, all together.
    pub hands_minutes: Option<f64>,
}

/// The whole question.
#[derive(Debug, Clone)]
pub struct Question<'a> {
    /// Fruit.
    pub lots: Vec<Stuff>,
    /// What it may become.
    pub choices: Vec<Choice>,
    /// What there is.
    pub stock: Stock,
    /// What the canner has room for.
    pub room: &'a dyn Room,
    /// Minutes between two loads.
    pub turnaround: Minutes,
    /// Yields of the household.
    pub household: &'a Household,
}

/// One choice of the answer.
#[derive(Debug, Clone, PartialEq)]
pub struct Share {
    /// Jars of it.
    pub jars: u32,
    /// Fruit from each lot.
    pub fruit: Vec<Mass>,
    /// Thin juice drained off it and canned as juice.
    pub drained: Volume,
}

/// What limits the day, and what a little more of it would gain.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limit {
    /// What there is too little of.
    pub resource: Resource,
    /// Jars more, when there is one [step](Resource::step) more of it.
    pub jars_more: i64,
    /// Worth of the answer more.
    pub worth_more: f64,
}

/// The best split.
#[derive(Debug, Clone, PartialEq)]
pub struct Split {
    /// One share for each choice, in their order.
    pub shares: Vec<Share>,
    /// How their jars go into the canner, longest first for each pressure; by the places of the choices.
    pub loads: Vec<SharedLoad>,
    /// Worth of all jars.
    pub worth: f64,
    /// Whether it is proven that no other split is worth more.
    pub proven: bool,
}

/// No split fits.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NoSplit {
    /// What is pinned needs more than there is.
    #[error("what is pinned does not fit into the fruit, the stock and the hours; let one of them go")]
    PinnedTooMuch,
    /// A jar that the canner does not hold.
    #[error(transparent)]
    NoRoom(#[from] NoRoom),
    /// The solver failed.
    #[error("the split could not be worked out: {0}")]
    Failed(String),
}

impl Resource {
    /// How much more is tried to see what it gains: 10 lb, one jar, one lid, a quart's acid, an hour.
    fn add_step(self, question: &mut Question<'_>) {
        const HOUR: f64 = 60.0;
        let stock = &mut question.stock;
        match self {
            Self::Fruit(lot) => {
                let more = question.lots[lot].mass + pounds(10.0);
                question.lots[lot] = part_of(&question.lots[lot], more);
            }
            Self::Jars(jar) => {
                stock.jars.iter_mut().filter(|(size, _)| *size == jar).for_each(|(_, count)| *count += 1);
            }
            Self::Lids(mouth) => {
                stock.lids.iter_mut().filter(|(of, _)| *of == mouth).for_each(|(_, count)| *count += 1);
            }
            Self::Acid => stock.acid_tsp = stock.acid_tsp.map(|tsp| tsp + 6.0),
            Self::Canner => stock.canner_minutes = stock.canner_minutes.map(|minutes| minutes + HOUR),
            Self::Stove => stock.stove_minutes = stock.stove_minutes.map(|minutes| minutes + HOUR),
            Self::Hands => stock.hands_minutes = stock.hands_minutes.map(|minutes| minutes + HOUR),
        }
    }

    /// The step that is tried, in words.
    #[must_use]
    pub const fn step(self) -> &'static str {
        match self {
            Self::Fruit(_) => "10 lb more",
            Self::Jars(_) => "one jar more",
            Self::Lids(_) => "one lid more",
            Self::Acid => "acid for one quart more",
            Self::Canner => "one hour more of the canner",
            Self::Stove => "one burner hour more",
            Self::Hands => "one hour more of hands",
        }
    }
}

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
