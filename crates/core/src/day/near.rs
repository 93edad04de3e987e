//! The second wish after a short day: what belongs together is done without long waits, so hands are not idle in between
//! and nothing begins sooner than it has to.

use super::bound::Bound;
use super::budget::Budget;
use super::shift::{earlier, later_starts};
use super::task::end;
use super::{Day, check, search};

/// Minutes from the first start to the last end of each set of tasks, summed up.
#[must_use]
pub fn spread(day: &Day, together: &[Vec<usize>], starts: &[u32]) -> u32 {
    let of_set = |set: &Vec<usize>| {
        let first = set.iter().map(|task| starts[*task]).min().unwrap_or(0);
        let last = set.iter().map(|task| starts[*task] + day.tasks[*task].minutes).max().unwrap_or(0);
        last - first
    };
    together.iter().map(of_set).sum()
}

/// Moves what lies inside its sets as early as it goes: that costs no waiting and leaves room for what takes longer.
fn settle(day: &Day, together: &[Vec<usize>], starts: &[u32]) -> Vec<u32> {
    earlier(day, starts, |task, now| {
        let sets = together.iter().filter(|set| set.contains(&task));
        let first = |set: &Vec<usize>| set.iter().map(|other| now[*other]).min();
        sets.filter_map(first).max().unwrap_or(0)
    })
}

/// A plan that ends no later and whose sets lie closer together, as far as the budget allows.
pub(super) fn draw_together(
    day: &Day,
    bound: &Bound,
    together: &[Vec<usize>],
    starts: Vec<u32>,
    budget: Budget,
) -> Vec<u32> {
    let last = end(day, &starts);
    let of = |starts: &[u32]| spread(day, together, starts);
    let holds = |starts: &Vec<u32>| check::faults(day, starts, last).is_empty();
    let settled = [settle(day, together, &starts), settle(day, together, &later_starts(day, &starts))];
    let best = settled.into_iter().filter(holds).chain([starts]).min_by_key(|starts| of(starts));
    let Some(best) = best else { return Vec::new() };
    let closer = search::closer(day, bound, together, (last, of(&best)), budget).filter(holds);
    let closer = closer.map(|starts| settle(day, together, &starts)).filter(holds);
    closer.unwrap_or(best)
}
