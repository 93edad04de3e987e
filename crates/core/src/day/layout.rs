//! The one way a day is laid out: a first plan, a shorter one, and the check of both.

use serde::Serialize;

use super::budget::Budget;
use super::task::{Day, end};
use super::{bound, check, keep, list, near, search};

/// How good a plan is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Status {
    /// Proven: no day is shorter.
    Optimal,
    /// It keeps every rule; a shorter one may exist.
    Feasible,
    /// Proven: there is none within the hours.
    Infeasible,
    /// None was found in the time given.
    Unknown,
}

/// A laid-out day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Layout {
    /// How good it is.
    pub status: Status,
    /// When the last task ends; `None` without a plan.
    pub makespan: Option<u32>,
    /// Proven: no plan ends sooner.
    pub bound: u32,
    /// When each task starts, in the order of the tasks; empty without a plan.
    pub starts: Vec<u32>,
    /// Why there is no plan, or how far it may be from the best.
    pub why: Option<String>,
}

/// Longest day that is searched, whatever was asked: a whole one, because a plan is found sooner with room.
const WHOLE_DAY: u32 = 24 * 60;

impl Layout {
    fn without(status: Status, bound: u32, why: String) -> Self {
        Self { status, makespan: None, bound, starts: Vec::new(), why: Some(why) }
    }

    /// A plan that fits, of a day that is proven to take so long at least.
    fn of(day: &Day, starts: Vec<u32>, proven: u32) -> Self {
        let makespan = end(day, &starts);
        let status = if proven == makespan { Status::Optimal } else { Status::Feasible };
        let why = (status == Status::Feasible)
            .then(|| format!("at most {} longer than the best possible", in_words(makespan - proven)));
        Self { status, makespan: Some(makespan), bound: proven, starts, why }
    }
}

/// The shortest day that is found within a budget.
#[must_use]
pub fn shortest(day: &Day, budget: Budget) -> Layout {
    if day.tasks.is_empty() {
        return Layout::of(day, Vec::new(), 0);
    }
    let none = |bound: u32, why: String| Layout::without(Status::Infeasible, bound, why);
    let bound = match bound::bound(day) {
        Ok(bound) => bound,
        Err(why) => return none(0, why),
    };
    let has = in_words(day.horizon);
    if bound.minutes > day.horizon {
        let why = format!("{} at least {}, and the day has {has}", bound.limit, in_words(bound.minutes));
        return none(bound.minutes, why);
    }
    let room = day.horizon.max(WHOLE_DAY);
    let first =
        list::schedule(day, &bound, room).filter(|starts| check::faults(day, starts, room).is_empty());
    let found = search::shorter(day, &bound, room, first, budget);
    let proven = bound.minutes;
    let Some(starts) = found.starts.filter(|starts| check::faults(day, starts, room).is_empty()) else {
        return if found.complete {
            none(
                proven,
                "some of these tasks cannot be had in any order: look at what must follow what".to_owned(),
            )
        } else {
            let why = "no plan was found in the time given; give it longer, or take something off the day"
                .to_owned();
            Layout::without(Status::Unknown, proven, why)
        };
    };
    let makespan = end(day, &starts);
    let proven = if found.complete { makespan } else { proven };
    if makespan <= day.horizon {
        return Layout::of(day, starts, proven);
    }
    if proven > day.horizon {
        none(proven, format!("it takes at least {}, and the day has {has}", in_words(proven)))
    } else {
        let why = format!("the best plan found takes {}, and the day has {has}", in_words(makespan));
        Layout::without(Status::Unknown, proven, why)
    }
}

/// What a plan should be like beside short.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Wish {
    /// Sets of tasks, each best done close together: nobody waits long between its first and its last.
    pub together: Vec<Vec<usize>>,
    /// When each task was to start in the plan before, in minutes from now; `None` for one that was not in it. That order
    /// is kept unless another makes the day shorter.
    pub before: Vec<Option<i64>>,
}

/// How long to search.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Limits {
    /// For a short day.
    pub length: Budget,
    /// Then for less waiting in a day of that length.
    pub waiting: Budget,
}

/// Lays a day out: as short as it can be, in the order of the plan before when that is as short, and then with as little
/// waiting as it takes.
#[must_use]
pub fn lay_out(day: &Day, wish: &Wish, limits: Limits) -> Layout {
    let (layout, kept) = in_known_order(day, wish, limits.length);
    let rules = kept.as_ref().unwrap_or(day);
    let (Some(_), Ok(bound)) = (layout.makespan, bound::bound(rules)) else { return layout };
    let starts = near::draw_together(rules, &bound, &wish.together, layout.starts, limits.waiting);
    Layout { starts, ..layout }
}

/// The shortest day, and the day with the order of the plan before as a rule when that is kept.
fn in_known_order(day: &Day, wish: &Wish, budget: Budget) -> (Layout, Option<Day>) {
    let Some(kept) = keep::in_order_of(day, &wish.before) else { return (shortest(day, budget), None) };
    let half = budget.half();
    let known = shortest(&kept, half);
    let Some(makespan) = known.makespan else { return (shortest(day, half), None) };
    if bound::bound(day).is_ok_and(|bound| bound.minutes == makespan) {
        return (Layout::of(day, known.starts, makespan), Some(kept));
    }
    let free = shortest(day, half);
    if free.makespan.is_some_and(|free| free < makespan) {
        return (free, None);
    }
    (Layout::of(day, known.starts, free.bound.min(makespan)), Some(kept))
}

/// "2 h 30 min".
fn in_words(minutes: u32) -> String {
    match (minutes / 60, minutes % 60) {
        (0, rest) => format!("{rest} min"),
        (hours, 0) => format!("{hours} h"),
        (hours, rest) => format!("{hours} h {rest} min"),
    }
}
